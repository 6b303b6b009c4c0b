import { median, type Midi } from '../shared';
import { framesOf } from './frames';

/** T4.1: a plateau lasts 80 ms within 30 cents. */
const PLATEAU = framesOf(0.08);
const SHORT_PLATEAU = framesOf(0.045);
const PLATEAU_REACH: Midi = 0.42;
/** A move smaller than this is intonation, not a gesture. */
export const LEAST_MOVE: Midi = 0.6;
/** A plateau stands where its frames are this near its pitch. */
const STANDS: Midi = 0.15;

export type PitchPlateau = { from: number; to: number; pitch: Midi };

/** Longest runs that stay within 30 cents or so, from the longest down, in order of time. */
export function plateausOf(pitches: Float64Array, more: Midi = 0): PitchPlateau[] {
  const reach = PLATEAU_REACH + more;
  const found: PitchPlateau[] = [];
  const search = (from: number, to: number): void => {
    let best: PitchPlateau | null = null;
    let start = from;
    for (let end = from; end < to; end++) {
      while (rangeOf(pitches, start, end + 1) > reach) start++;
      if (!best || end + 1 - start > best.to - best.from) best = { from: start, to: end + 1, pitch: 0 };
    }
    const least = from === 0 && best && best.from < SHORT_PLATEAU ? SHORT_PLATEAU >> 1 : SHORT_PLATEAU;
    if (!best || best.to - best.from < least) return;
    found.push(trimmed(pitches, best));
    search(from, best.from);
    search(best.to, to);
  };
  search(0, pitches.length);
  return found.sort((a, b) => a.from - b.from);
}

function rangeOf(pitches: Float64Array, from: number, to: number): number {
  let [low, high] = [Infinity, -Infinity];
  for (let n = from; n < to; n++) {
    if (Number.isNaN(pitches[n]!)) return Infinity;
    low = Math.min(low, pitches[n]!);
    high = Math.max(high, pitches[n]!);
  }
  return high - low;
}

/**
 * The ends of a run may lean into a glide: it stands where the nearest half of its frames lie (the shorth: Andrews and
 * others, Robust Estimates of Location, 1972).
 */
function trimmed(pitches: Float64Array, { from, to }: PitchPlateau): PitchPlateau {
  const sorted = pitches.slice(from, to).sort();
  const half = Math.ceil(sorted.length / 2);
  let first = 0;
  for (let at = 1; at + half <= sorted.length; at++)
    if (sorted[at + half - 1]! - sorted[at]! < sorted[first + half - 1]! - sorted[first]!) first = at;
  return { from, to, pitch: median(Array.from(sorted.subarray(first, first + half)))! };
}

/** The plateau that stands longest; one shorter than a plateau of the rules only where there is no other. */
export function longest(
  levels: readonly PitchPlateau[],
  stands: (level: PitchPlateau) => number,
): PitchPlateau {
  const lasting = levels.filter(({ from, to }) => to - from >= PLATEAU);
  return (lasting.length ? lasting : levels).reduce((best, level) =>
    stands(level) > stands(best) ? level : best,
  );
}

/** How long a plateau stands where it stands: its ends may lean into slow glides. */
export const standing =
  (pitches: Float64Array, more: Midi) =>
  ({ from, to, pitch }: PitchPlateau): number =>
    pitches.subarray(from, to).filter((value) => Math.abs(value - pitch) < STANDS + more).length;

/** Neighbours at one pitch are one plateau. */
export function joinSame(levels: readonly PitchPlateau[]): PitchPlateau[] {
  const joined: PitchPlateau[] = [];
  for (const level of levels) {
    const last = joined.at(-1);
    if (last && Math.abs(last.pitch - level.pitch) < LEAST_MOVE * 0.75) {
      const [a, b] = [last.to - last.from, level.to - level.from];
      joined[joined.length - 1] = {
        from: last.from,
        to: level.to,
        pitch: (last.pitch * a + level.pitch * b) / (a + b),
      };
    } else joined.push(level);
  }
  return joined;
}
