/** Bytes as people say them. */
export function byteSize(bytes: number): string {
  if (bytes >= 1e9) return `${(bytes / 1e9).toFixed(1)} GB`;
  if (bytes >= 1e6) return `${Math.round(bytes / 1e6)} MB`;
  return `${Math.round(bytes / 1e3)} kB`;
}

/** `1 take`, `3 takes`. */
export const counted = (count: number, what: string): string => `${count} ${what}${count === 1 ? '' : 's'}`;
