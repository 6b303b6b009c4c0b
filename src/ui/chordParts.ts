import { elementAt } from '@/core/shared';

/**
 * The pieces a chord symbol is typeset from: root, its accidental, the `m` on the baseline, raised figures,
 * and a bass.
 */
export type ChordParts = {
  readonly root: string;
  readonly accidental: string;
  readonly minor: string;
  readonly figures: string;
  readonly bass: string;
};

const real = (text: string): string =>
  text.replaceAll('bb', '♭♭').replaceAll('b', '♭').replaceAll('##', '♯♯').replaceAll('#', '♯');

/** `Bbm7b5/Eb` → B ♭ m 7♭5 E♭. N.C. and anything unread stand as they are. */
export function chordParts(symbol: string): ChordParts {
  const found = /^([A-G])(bb?|##?|♭♭?|♯♯?)?(.*?)(?:\/([A-G](?:bb?|##?|♭♭?|♯♯?)?))?$/u.exec(symbol);
  if (!found) return { root: symbol, accidental: '', minor: '', figures: '', bass: '' };
  const rest = found[3] ?? '';
  const minor = /^(?:min|mi|m(?!aj)(?!a7)|-)/.exec(rest)?.[0] ?? '';
  const figures = rest
    .slice(minor.length)
    .replace(/^(?:maj7|M7|ma7|Δ7?|△7?)/u, '△7')
    .replace(/^(?:maj|M)(?=9|11|13)/, '△')
    .replace(/^dim/, '°')
    .replace(/^o(?=7|$)/, '°')
    .replace(/^aug/, '+');
  return {
    root: elementAt(found, 1),
    accidental: real(found[2] ?? ''),
    minor: minor ? 'm' : '',
    figures: real(figures),
    bass: real(found[4] ?? ''),
  };
}

/** The symbol as one line of text with real accidentals: for labels that readers speak. */
export const chordText = (symbol: string): string => {
  const { root, accidental, minor, figures, bass } = chordParts(symbol);
  return `${root}${accidental}${minor}${figures}${bass ? `/${bass}` : ''}`;
};

/** Rough width of a symbol in ems of its root: to fit long ones into their column. */
export function chordWidth(symbol: string): number {
  const { root, accidental, minor, figures, bass } = chordParts(symbol);
  return (
    0.68 * root.length +
    0.4 * accidental.length +
    (minor ? 0.6 : 0) +
    0.38 * figures.length +
    (bass ? 0.35 + 0.5 * bass.length : 0)
  );
}
