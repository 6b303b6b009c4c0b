import { present } from '../shared';
import type { Location } from './location';

export const HAND_SIZES = ['small', 'usual', 'large'] as const;
export const OPEN_STRINGS = ['liked', 'usual', 'avoided'] as const;
export const NECK_AREAS = ['low', 'middle', 'high', 'anywhere'] as const;

/** What a player's hand likes. Of the ways with the fewest shifts it chooses one; a small hand shifts instead of stretching. */
export type HandHabits = {
  readonly size: (typeof HAND_SIZES)[number];
  readonly open: (typeof OPEN_STRINGS)[number];
  readonly area: (typeof NECK_AREAS)[number];
};
export const USUAL_HABITS: HandHabits = { size: 'usual', open: 'usual', area: 'low' };

/**
 * What a hand finds hard, in one currency: our own weights, settled on the worked examples of the tests.
 * A shift is counted before all of these: the fewest shifts win, then the least cost.
 */
export const COST = {
  stretch: 0.7,
  skip: 0.45,
  sameFinger: 0.9,
  crossing: 0.12,
  shiftPerFret: 0.12,
  openUpTheNeck: 1.2,
  indexLast: 0.01,
  unlike: 0.02,
  little: 0.15,
};

const STRETCHES = { small: 2, usual: 1, large: 0.3 } as const;
const OPEN = {
  liked: { low: -0.3, up: 0 },
  usual: { low: 0, up: COST.openUpTheNeck },
  avoided: { low: 4, up: 4 },
} as const;
/** Frets that cost nothing, and what each fret away from them costs. */
const AREAS = {
  low: { from: 0, to: 5, fret: 0.03 },
  middle: { from: 5, to: 9, fret: 0.06 },
  high: { from: 10, to: 14, fret: 0.06 },
  anywhere: { from: 0, to: 36, fret: 0 },
} as const;

/** What it costs to hold a fret with a finger here. */
export function placeCost(
  fret: number,
  finger: number,
  { from, fingers }: Location,
  { size, open, area }: HandHabits,
): number {
  if (fret === 0 || finger === 0) return from > 2 ? OPEN[open].up : OPEN[open].low;
  const span = present(fingers[finger - 1]);
  const home = finger === 4 ? span[0] : span[1];
  const reach = span[0] !== span[1] && fret !== home ? COST.stretch + (finger === 4 ? COST.little : 0) : 0;
  const liked = AREAS[area];
  return (
    reach * STRETCHES[size] +
    (from > 1 ? COST.indexLast * (fret - from) : 0) +
    COST.unlike * Math.abs(finger - Math.min(4, fret - from + 1)) +
    liked.fret * Math.max(0, liked.from - fret, fret - liked.to)
  );
}
