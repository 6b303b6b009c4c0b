import type { Semitones } from '../../shared';
import type { Line } from '../notes/voice';

/**
 * A cell said again elsewhere: places in the line, notes in the cell, how often and how far it moves each
 * time.
 */
export type MovedShape = {
  readonly first: number;
  readonly last: number;
  readonly size: number;
  readonly statements: number;
  readonly offset: Semitones;
};

/** Cells longer than this are phrases said again, not shapes under the hand. */
const LONGEST_CELL = 8;

/**
 * Shapes that move: the longest from each place on; the next one begins after it.
 * Rule T7.9: `moved-shape` (same intervals at one non-zero offset: a cell of ≥ 3 notes twice, or of 2 notes
 * three times).
 * @param linked is each note linked to the next?
 */
export function movedShapesOf(line: Line, linked: readonly boolean[]): MovedShape[] {
  const found: MovedShape[] = [];
  for (let first = 0; first + 5 < line.length; first++) {
    const best = longestAt(line, linked, first);
    if (!best) continue;
    found.push(best);
    first = best.last;
  }
  return found;
}

/** Of cells that reach equally far the shortest, which is said most often. */
function longestAt(line: Line, linked: readonly boolean[], first: number): MovedShape | null {
  let best: MovedShape | null = null;
  for (let size = 2; size <= LONGEST_CELL && linked[first + size - 2]; size++) {
    const offset =
      line[first + size] && linked[first + size - 1] ? line[first + size]!.pitch - line[first]!.pitch : 0;
    if (offset === 0) continue;
    let place = first;
    while (
      place + size < line.length &&
      linked[place + size - 1] &&
      line[place + size]!.pitch - line[place]!.pitch === offset
    )
      place++;
    const statements = Math.floor((place - first) / size) + 1;
    const last = first + statements * size - 1;
    if (statements >= (size === 2 ? 3 : 2) && (!best || last > best.last))
      best = { first, last, size, statements, offset };
  }
  return best;
}

/** `3 notes, up 1`: the cell and how it moves. */
export const movedName = ({ size, offset }: MovedShape): string =>
  `${size} notes, ${offset > 0 ? 'up' : 'down'} ${Math.abs(offset)}`;
