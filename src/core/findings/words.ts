import { elementAt } from '../shared';

/** `no change`, `1 change`, `5 changes`. */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count === 0 ? 'no' : count} ${count === 1 ? one : many}`;

/** `3 of 12 changes`, `all 12 changes`, `both changes`, `none of 12 changes`, `the only change`. */
export function share(count: number, of: number, one: string, many = `${one}s`): string {
  if (of === 1) return count === 1 ? `the only ${one}` : `not the only ${one}`;
  if (count === of) return of === 2 ? `both ${many}` : `all ${of} ${many}`;
  return `${count === 0 ? 'none' : count} of ${of} ${many}`;
}

/** `B`, `B and D`, `B, D and F`. */
export const listed = (words: readonly string[], last = 'and'): string =>
  words.length < 2
    ? (words[0] ?? '')
    : `${words.slice(0, -1).join(', ')} ${last} ${elementAt(words, words.length - 1)}`;

const MOST_BARS = 3;

/**
 * ` in bars 2, 5 and 6`: the bars of the form where it was most, in order; nothing where it was everywhere.
 * @param throughBars counted from 1 through all choruses
 */
export function barsInWords(throughBars: readonly number[], inForm: number): string {
  const counts = new Map<number, number>();
  for (const through of throughBars) {
    const bar = ((through - 1) % inForm) + 1;
    counts.set(bar, (counts.get(bar) ?? 0) + 1);
  }
  const bars = [...counts]
    .sort((a, b) => b[1] - a[1] || a[0] - b[0])
    .slice(0, MOST_BARS)
    .map(([bar]) => bar)
    .sort((a, b) => a - b);
  if (bars.length === 0) return '';
  return ` in ${bars.length === 1 ? 'bar' : 'bars'} ${listed(bars.map(String))}`;
}

/** Beats as a player says them: half a beat, a beat and a half, two beats. */
export function beatsInWords(beats: number): string {
  const halves = Math.max(1, Math.round(Math.abs(beats) * 2));
  if (halves === 1) return 'half a beat';
  if (halves === 2) return 'a beat';
  if (halves === 3) return 'a beat and a half';
  return halves % 2 === 0 ? `${NUMBERS[halves / 2] ?? halves / 2} beats` : `${halves / 2} beats`;
}

const NUMBERS: Readonly<Record<number, string>> = { 2: 'two', 3: 'three', 4: 'four', 5: 'five', 6: 'six' };
