import type { Key } from '@/core/music';
import type { ScoreBar } from '@/core/notation';

const MOST_BARS = 4;
/** Width a bar needs: its border, and each of its heads. */
const BORDER = 26;
const HEAD = 21;
/** Clef, key and meter at the beginning of a line. */
const START = 90;

const needs = ({ entries }: ScoreBar): number => BORDER + HEAD * entries.length;

/**
 * Bars as lines of a page: four to a line as the form has them, two or one where they would be crowded.
 * A pickup stands before the first bar of the form.
 */
export function pageLines(bars: readonly ScoreBar[], width: number): ScoreBar[][] {
  const lines: ScoreBar[][] = [];
  for (const group of fours(bars)) lines.push(...fitted(group, width));
  return lines;
}

/** By fours from the first bar of each chorus. */
function fours(bars: readonly ScoreBar[]): ScoreBar[][] {
  const groups: ScoreBar[][] = [];
  for (const bar of bars) {
    const last = groups.at(-1);
    const begins = bar.index >= 0 && bar.index % MOST_BARS === 0 && last?.at(-1)?.index !== -1;
    if (!last || begins || last.length > MOST_BARS) groups.push([bar]);
    else last.push(bar);
  }
  return groups;
}

function fitted(group: ScoreBar[], width: number): ScoreBar[][] {
  const wide = group.reduce((sum, bar) => sum + needs(bar), START);
  if (wide <= width || group.length === 1) return [group];
  const half = Math.ceil(group.length / 2);
  return [...fitted(group.slice(0, half), width), ...fitted(group.slice(half), width)];
}

/** How wide a line is drawn: over the whole page, unless its few notes would stand too far apart. */
export const lineWidth = (line: readonly ScoreBar[], width: number): number =>
  Math.min(
    width,
    line.reduce((sum, { entries }) => sum + 2 * (BORDER + HEAD * entries.length), START),
  );

/** As the engraver names keys: `Bb`, `F#m`; C where there is none. */
export function keyName(key: Key | null): string {
  if (!key) return 'C';
  const { letter, alter } = key.tonic;
  return `${letter}${alter > 0 ? '#'.repeat(alter) : 'b'.repeat(-alter)}${key.minor ? 'm' : ''}`;
}

/** How many sharps or flats a key is written with (common practice, no source). */
export function keyAccidentals(key: string): number {
  const order = ['C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#'];
  const flats = ['C', 'F', 'Bb', 'Eb', 'Ab', 'Db', 'Gb', 'Cb'];
  const minor: Record<string, string> = {
    Am: 'C',
    Em: 'G',
    Bm: 'D',
    'F#m': 'A',
    'C#m': 'E',
    'G#m': 'B',
    'D#m': 'F#',
    'A#m': 'C#',
    Dm: 'F',
    Gm: 'Bb',
    Cm: 'Eb',
    Fm: 'Ab',
    Bbm: 'Db',
    Ebm: 'Gb',
    Abm: 'Cb',
  };
  const major = minor[key] ?? key;
  return Math.max(order.indexOf(major), flats.indexOf(major), 0);
}
