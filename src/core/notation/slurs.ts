import { elementAt, isSlurred, type Slur } from '../shared';
import type { ScoreEntry } from './score';

/**
 * How a single note is slurred to the one before, by which of them is higher; null where it was picked, where
 * a rest stands between, or where several strings sound.
 */
export function slurInto(before: ScoreEntry | undefined, entry: ScoreEntry | undefined): Slur | null {
  if (before?.pitches.length !== 1 || entry?.pitches.length !== 1) return null;
  const [{ note: from }, { note: to, tie }] = [elementAt(before.pitches, 0), elementAt(entry.pitches, 0)];
  if (tie.from || !isSlurred(to.attack) || from.ghost || to.ghost || from.midi === to.midi) return null;
  return to.midi > from.midi ? 'hammer' : 'pull';
}

/** Entries under one slur, by their places in a line. */
export type SlurSpan = { readonly first: number; readonly last: number };

/**
 * Where slurs stand over a line of entries: each from the picked note to the last that the fretting hand begins.
 * One that comes from the line before begins at −1, one that goes on into the next ends past the line.
 */
export function slursOver(
  entries: readonly ScoreEntry[],
  before: ScoreEntry | undefined,
  after: ScoreEntry | undefined,
): SlurSpan[] {
  const spans: SlurSpan[] = [];
  const all = [before, ...entries, after];
  for (let place = 1; place < all.length; place++) {
    if (slurInto(all[place - 1], all[place]) === null) continue;
    const last = spans.at(-1);
    if (last?.last === place - 2) spans.splice(-1, 1, { first: last.first, last: place - 1 });
    else spans.push({ first: startOf(all, place - 1) - 1, last: place - 1 });
  }
  return spans;
}

/** A note that is held over begins where it was struck. */
function startOf(all: readonly (ScoreEntry | undefined)[], place: number): number {
  let first = place;
  while (first > 1 && all[first]?.pitches[0]?.tie.from && (all[first - 1]?.pitches.length ?? 0) > 0) first--;
  return first;
}
