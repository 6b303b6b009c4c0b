import type { Beats, BeatsPerMinute } from '../shared';
import type { Level, RhythmRequest } from './request';

/** Note values that belong together, by how often they are taken; some of them rests. */
export type RhythmCell = readonly [weight: number, durations: readonly Beats[], rests?: readonly number[]];
const TRIPLET = 1 / 3;
const VALUES: Readonly<Partial<Record<RhythmRequest['base'], Beats>>> = { running: 0.5, triplets: TRIPLET };

/** Cells of one value, and now and then one that is twice as long. */
export function plainCells(base: RhythmRequest['base']): Cells {
  const value = VALUES[base] ?? 1;
  const count = Math.round(1 / value);
  return {
    one: [[6, Array.from({ length: count }, () => value)], ...(count > 1 ? [[0.4, [1]] as RhythmCell] : [])],
    two: count === 1 ? [[0.8, [2]]] : [],
  };
}

/** Cells of one and of two beats that suit the tempo and the level. */
export type Cells = { readonly one: readonly RhythmCell[]; readonly two: readonly RhythmCell[] };

export function cellsFor({ base, tempo, level }: RhythmRequest): Cells {
  const triplets = tempo <= 170 && level !== 'easy' ? 0.5 : 0;
  switch (base) {
    case 'running':
      return {
        one: [
          [4, [0.5, 0.5]],
          [0.25 + triplets * 0.4, [TRIPLET, TRIPLET, TRIPLET]],
          [0.3, [1]],
        ],
        two: [
          [5, [0.5, 0.5, 0.5, 0.5]],
          [0.6, [1, 0.5, 0.5]],
          [0.5, [0.5, 0.5, 1]],
        ],
      };
    case 'quarters':
      return {
        one: [
          [4, [1]],
          [1.1, [0.5, 0.5]],
        ],
        two: [
          [2.4, [1, 1]],
          [1, [1.5, 0.5]],
          [0.7, [2]],
          [0.9, [1, 0.5, 0.5]],
          [0.6, [0.5, 0.5, 1]],
        ],
      };
    case 'triplets':
      return {
        one: [
          [5, [TRIPLET, TRIPLET, TRIPLET]],
          [0.5, [1]],
        ],
        two: [],
      };
    case 'offbeats':
      return {
        one: [
          [4, [0.5, 0.5], [0]],
          [0.8, [0.5, 0.5]],
        ],
        two: [
          [2.2, [0.5, 1, 0.5], [0]],
          [1, [0.5, 1.5], [0]],
          [1, [0.5, 0.5, 0.5, 0.5], [0, 2]],
          [0.8, [0.5, 0.5, 0.5, 0.5], [0]],
        ],
      };
    case 'mixed':
      return mixedCells(tempo, level);
  }
}

/** Quarters and longer notes where it is fast or easy, triplets and sixteenths where it is slow or rich. */
function mixedCells(tempo: BeatsPerMinute, level: Level): Cells {
  const fast = tempo > 190 || level === 'easy';
  const triplets = tempo <= 170 && level !== 'easy' ? 0.5 : 0;
  const sixteenths = tempo <= 84 || (level === 'rich' && tempo <= 110) ? 0.5 : 0;
  const rich = level === 'rich' ? 2 : 1;
  return {
    one: [
      [fast ? 2.6 : 1.1, [1]],
      [2.4, [0.5, 0.5]],
      [0.5, [0.5, 0.5], [0]],
      [triplets * rich, [TRIPLET, TRIPLET, TRIPLET]],
      [sixteenths * rich, [0.25, 0.25, 0.5]],
    ],
    two: [
      [2.2, [0.5, 0.5, 0.5, 0.5]],
      [fast ? 1.6 : 1, [1.5, 0.5]],
      [1, [0.5, 1, 0.5]],
      [fast ? 1.8 : 0.9, [1, 0.5, 0.5]],
      [1.1, [0.5, 0.5, 1]],
      [0.4, [0.5, 0.5, 0.5, 0.5], [0]],
    ],
  };
}
