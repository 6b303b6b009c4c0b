/** A printed interval with real accidentals: `b7` → `♭7`. */
export const intervalLabel = (interval: string | null): string =>
  (interval ?? '').replace('bb', '♭♭').replace('b', '♭').replace('#', '♯');
