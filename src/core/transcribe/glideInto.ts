import { type Seconds } from '../shared';
import { FRAME_SECONDS } from './frames';
import type { PitchTrack } from './path';
/** How a tracked pitch came to where it is: from the pitch held before, in semitones and seconds. */
export function glideInto(
  track: PitchTrack,
  at: number,
): { extent: number; seconds: Seconds; held: Seconds } {
  const goal = middle(track, at + 1, at + 7);
  if (Number.isNaN(goal)) return NO_GLIDE;
  const end = backWhile(at, 40, 1, (frame) => !(Math.abs(track[frame]! - goal) >= 0.4));
  const start = backWhile(end, 50, 2, (frame) => Math.abs(track[frame]! - (track[frame - 4] ?? NaN)) > 0.12);
  const from = middle(track, start - 6, start);
  if (Number.isNaN(from)) return NO_GLIDE;
  const held = backWhile(start, 80, 1, (frame) => Math.abs((track[frame - 1] ?? NaN) - from) < 0.5);
  return {
    extent: goal - from,
    seconds: (end - start) * FRAME_SECONDS,
    held: (start - held) * FRAME_SECONDS,
  };
}

export const NO_GLIDE = { extent: 0, seconds: 0, held: 0 } as const;

/** Goes back from a frame by `step` for as long as `goesOn`, at most so many frames. */
export function backWhile(
  from: number,
  most: number,
  step: number,
  goesOn: (frame: number) => boolean,
): number {
  let frame = from;
  while (frame > 0 && from - frame < most && goesOn(frame)) frame -= step;
  return frame;
}

export function middle(track: PitchTrack, from: number, to: number): number {
  const values = Array.from(track.subarray(Math.max(0, from), Math.max(0, to)))
    .filter((value) => !Number.isNaN(value))
    .sort((a, b) => a - b);
  return values.length ? values[values.length >> 1]! : NaN;
}
