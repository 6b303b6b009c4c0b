import { elementAt } from '../shared';
import type { ChordShape } from './chordShapes';

/** One string from a shape to the next one; null where the string is silent in it. */
export type StringMove = {
  readonly string: number;
  readonly from: number | null;
  readonly to: number | null;
};

/** Our own weights: a string that begins or ceases to sound costs as much as two frets. */
const STRING_CHANGED = 2;

/** From one shape to another, string by string, the lowest string first. */
export const movesBetween = (from: ChordShape, to: ChordShape): StringMove[] =>
  from.frets.map((fret, low) => ({
    string: from.frets.length - low,
    from: fret,
    to: elementAt(to.frets, low),
  }));

/** Frets that all strings move together. */
function costOf(moves: readonly StringMove[]): number {
  return moves.reduce((sum, { from, to }) => {
    if (from === null && to === null) return sum;
    return sum + (from === null || to === null ? STRING_CHANGED : Math.abs(to - from));
  }, 0);
}

/**
 * Of the shapes of the next chord the one that lies nearest: most common tones, fewest frets to go.
 * @returns null where there is none to choose from
 */
export function nearestShape(from: ChordShape, choices: readonly ChordShape[]): ChordShape | null {
  let nearest: ChordShape | null = null;
  let least = Infinity;
  for (const shape of choices) {
    const cost = costOf(movesBetween(from, shape));
    if (cost < least) {
      nearest = shape;
      least = cost;
    }
  }
  return nearest;
}

/** How a shape goes on to the next: strings that stay, move by one fret, by more, begin or cease. */
export function countMoves(moves: readonly StringMove[]) {
  const both = moves.flatMap(({ from, to }) => (from === null || to === null ? [] : [Math.abs(to - from)]));
  return {
    stay: both.filter((frets) => frets === 0).length,
    byOne: both.filter((frets) => frets === 1).length,
    further: both.filter((frets) => frets > 1).length,
  };
}
