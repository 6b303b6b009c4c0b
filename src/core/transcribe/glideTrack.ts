import { elementAt, type Decibels, type Midi } from '../shared';

import { framesOf, type AnalysisFrame } from './frames';
import type { NoteOnset } from './noteOnsets';
import type { PitchTrack } from './path';
import { plateausOf } from './plateaus';
export const NEAR: Midi = 0.35;

export const SAME_NOTE = framesOf(0.055);

export const SAME_PITCH: Midi = 0.75;

/** The windows smear a hammered step over about this long: what takes longer is a glide of the hand. */
export const QUICKEST = framesOf(0.048);

export const LONGEST = framesOf(0.3);

/** A finger that slides or bends adds no energy. */
export const STILL_RISE: Decibels = 2.5;

export const STILL_STRENGTH = 0.3;

/** From a held note, three semitones or more within about a tenth of a second are a new note at the arrival. */
export const NEW_NOTE: Midi = 2.6;

export const WIDER_THAN_BENDS: Midi = 3.5;

export const SLIDE_AT_MOST = { narrow: framesOf(0.105), wide: framesOf(0.19) };

export const HELD = framesOf(0.14);

/** A slide into a note has arrived by then. */
export const GRACE = {
  rise: 7,
  arrives: framesOf(0.165),
  widest: 3.8,
  quickest: framesOf(0.023),
  attack: framesOf(0.035),
  /** A pitch that stood this long before was a note of its own. */
  stands: framesOf(0.06),
};

export const PICKED: Decibels = 2.5;

export const SAME_ATTACK = framesOf(0.03);

export const STOOD = 5;

/** Pitches this near, claimed of one moment while the pitch glides, are one string on its way. */
export const ON_THE_WAY: Midi = 2.2;

export const isStill = (frames: readonly AnalysisFrame[], from: number, arrival: number): boolean =>
  strongest(frames, from, arrival + 3) < STILL_STRENGTH && riseWithin(frames, from, arrival + 6) < GRACE.rise;

/**
 * What was believed first is near the goal and the tracked pitch never stood on it: the string was on its way.
 */
export function isUnsettled(
  last: NoteOnset,
  arrival: number,
  goal: Midi,
  frames: readonly AnalysisFrame[],
): boolean {
  const apart = Math.abs(elementAt(last.starts, 0).midi - goal);
  if (arrival - last.frame > GRACE.arrives || apart < 0.4 || apart > GRACE.widest) return false;
  return isUnsettledFrom(last.frame, arrival, goal, frames);
}

/**
 * The string stood nowhere but at the goal, and was seen on its way to it: asked of the period tracker
 * itself, since the path may have
 * been held by what was believed.
 */
export function isUnsettledFrom(
  from: number,
  arrival: number,
  goal: Midi,
  frames: readonly AnalysisFrame[],
): boolean {
  let [run, last, nearer, seen, first] = [0, NaN, 0, 0, NaN];
  for (let frame = from + 2; frame < arrival; frame++) {
    const pitch =
      elementAt(frames, frame).candidates.find(({ midi }) => Math.abs(midi - goal) < GRACE.widest)?.midi ??
      NaN;
    run = Math.abs(pitch - last) < 0.12 && Math.abs(pitch - goal) > NEAR ? run + 1 : 0;
    if (run >= STOOD) return false;
    if (!Number.isNaN(pitch)) {
      if (Number.isNaN(first)) first = pitch;
      if (Math.abs(pitch - goal) < Math.abs(last - goal) + 0.02) nearer++;
      seen++;
    }
    last = pitch;
  }
  return seen >= 5 && nearer >= 0.6 * seen && Math.abs(first - goal) > NEAR;
}

export const isSlide = (extent: Midi, takes: number): boolean =>
  extent >= NEW_NOTE && takes <= (extent >= WIDER_THAN_BENDS ? SLIDE_AT_MOST.wide : SLIDE_AT_MOST.narrow);

/** Slides between held pitches that nothing claimed: from plateau to plateau of the tracked pitch. */
export function slidesWithin(noteOnset: NoteOnset, next: number, track: PitchTrack): NoteOnset[] {
  if (noteOnset.starts.length > 1 || next - noteOnset.frame < 2 * HELD) return [];
  const span = track.subarray(noteOnset.frame, Math.min(next, noteOnset.frame + framesOf(8)));
  const levels = plateausOf(span).filter(({ from, to }) => to - from >= HELD);
  return levels.slice(1).flatMap((level, index) => {
    const before = elementAt(levels, index);
    const takes = level.from - before.to + framesOf(0.03);
    const extent = Math.abs(level.pitch - before.pitch);
    const returns = [levels[index - 1], levels[index + 2]].some(
      (other, side) => other && Math.abs(other.pitch - (side === 0 ? level : before).pitch) < 0.6,
    );
    // up and back again is a bend with its release
    if (returns || !isSlide(extent, takes) || takes < QUICKEST || !isUnbroken(span, before.to, level.from))
      return [];
    const frame = noteOnset.frame + level.from;
    return [
      {
        frame,
        starts: [
          { frame, midi: level.pitch, belief: elementAt(noteOnset.starts, 0).belief, kind: 'step' as const },
        ],
      },
    ];
  });
}

/** The pitch is there all the way, without a leap. */
export function isUnbroken(track: Float64Array, from: number, to: number): boolean {
  for (let frame = Math.max(1, from); frame <= to; frame++)
    if (!(Math.abs(elementAt(track, frame) - elementAt(track, frame - 1)) < 1.6)) return false;
  return true;
}

export function firstNear(track: PitchTrack, pitch: Midi, from: number, to: number): number | null {
  for (let frame = from; frame < Math.min(to, track.length); frame++)
    if (
      Math.abs(elementAt(track, frame) - pitch) < NEAR &&
      Math.abs((track[frame + 3] ?? NaN) - pitch) < NEAR
    )
      return frame;
  return null;
}

/**
 * Back from the arrival for as long as the pitch moves away from the goal: where the glide began. Null where
 * it leaps.
 */
export function leavingOf(track: PitchTrack, arrival: number, earliest: number, goal: Midi): number | null {
  let [frame, away, still] = [arrival, Math.abs(elementAt(track, arrival) - goal), 0];
  let leaving = arrival;
  while (frame > earliest && still < 3) {
    frame--;
    const pitch = elementAt(track, frame);
    if (Number.isNaN(pitch)) break;
    const now = Math.abs(pitch - goal);
    // right after an attack the first frames may still tell of the note before
    if (Math.abs(pitch - elementAt(track, frame + 1)) > 1.6)
      return frame - earliest < GRACE.attack && leaving < arrival ? leaving : null;
    if (now < away - 0.3) return null;
    if (now > away + 0.03) {
      leaving = frame;
      still = 0;
    } else still++;
    away = Math.max(away, now);
  }
  return leaving < arrival ? leaving : null;
}

export function strongest(frames: readonly AnalysisFrame[], from: number, to: number): number {
  let most = 0;
  for (let frame = Math.max(0, from); frame < Math.min(frames.length, to); frame++)
    most = Math.max(most, elementAt(frames, frame).flux);
  return most;
}

/** From the lowest level so far to what follows it, in dB. */
export function riseWithin(frames: readonly AnalysisFrame[], from: number, to: number): Decibels {
  let [low, rise] = [Infinity, 0];
  for (let frame = Math.max(0, from); frame < Math.min(frames.length, to); frame++) {
    low = Math.min(low, elementAt(frames, frame).level);
    rise = Math.max(rise, elementAt(frames, frame).level - low);
  }
  return rise;
}
