import { framesOf } from './frames';
import type { NoteOnset } from './noteOnsets';
/** Pieces are divided where nothing begins, looked for this far to each side. */
export const SEAM = framesOf(2);

/**
 * The middle of the widest gap between what begins around a frame: either side of it finds the same
 * beginnings.
 */
export function seamNear(target: number, noteOnsets: readonly NoteOnset[]): number {
  const begins = [
    target - SEAM,
    ...noteOnsets.map(({ frame }) => frame).filter((frame) => Math.abs(frame - target) < SEAM),
    target + SEAM,
  ];
  let [seam, widest] = [target, 0];
  for (let index = 1; index < begins.length; index++) {
    const gap = begins[index]! - begins[index - 1]!;
    if (gap > widest) [seam, widest] = [begins[index - 1]! + (gap >> 1), gap];
  }
  return seam;
}
