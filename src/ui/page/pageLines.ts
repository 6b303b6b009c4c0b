import { fifthsOf, noteName, type Key } from '@/core/music';
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

/** More sharps or flats than this no key is written with. */
const MOST_SIGNS = 7;

/** A key signature as the engraver names it, `Bb` or `F#m`, and how many signs it has: C where there is none. */
export function signatureOf(key: Key | null): { readonly name: string; readonly signs: number } {
  const signs = key ? Math.abs(fifthsOf(key)) : 0;
  // a key past those, as G♯ major, is written by accidentals alone
  if (!key || signs > MOST_SIGNS) return { name: 'C', signs: 0 };
  return { name: `${noteName(key.tonic)}${key.minor ? 'm' : ''}`, signs };
}
