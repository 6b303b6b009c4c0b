import type { Midi, Seconds } from '../vocabulary';
import { FRAME_SECONDS, type Frame } from './frames';
import { riseAt } from './onsets';
import type { PitchTrack } from './path';
import type { Start, Strike } from './strikes';

const framesOf = (seconds: Seconds): number => Math.max(1, Math.round(seconds / FRAME_SECONDS));
const NEAR: Midi = 0.35;
/** The windows smear a hammered step over about this long: what takes longer is a glide of the hand. */
const QUICKEST = framesOf(0.048);
const LONGEST = framesOf(0.3);
/** A finger that slides or bends adds no energy. */
const STILL_RISE = 2.5;
const STILL_STRENGTH = 0.3;
/** 8-ears: from a held note, three semitones or more within about a tenth of a second are a new note at the arrival. */
const NEW_NOTE: Midi = 2.6;
const SLIDE_AT_MOST = framesOf(0.15);
const HELD = framesOf(0.14);

/**
 * Follows glides from one believed note into the next: a slide into a note and a bend are one note, a slide between held pitches two,
 * the second beginning where it arrives.
 */
export function settleGlides(strikes: readonly Strike[], track: PitchTrack, frames: readonly Frame[]): Strike[] {
  const settled: Strike[] = [];
  for (const strike of strikes) {
    const last = settled.at(-1);
    const glide = last ? glideBetween(last, strike, track, frames) : null;
    if (!last || !glide) settled.push(strike);
    else if (glide.isNewNote) settled.push(moved(strike, glide.arrival));
    else if (strike.starts[0]!.belief > last.starts[0]!.belief) settled[settled.length - 1] = { ...last, starts: [{ ...last.starts[0]!, belief: strike.starts[0]!.belief }] };
  }
  return settled;
}

const moved = (strike: Strike, frame: number): Strike => ({ frame, starts: strike.starts.map((start): Start => ({ ...start, frame })) });

/** The glide that leads from one strike to the next, if one does: both of one string, the pitch never silent and never struck again. */
function glideBetween(last: Strike, strike: Strike, track: PitchTrack, frames: readonly Frame[]): { arrival: number; isNewNote: boolean } | null {
  if (last.starts.length > 1 || strike.starts.length > 1 || strike.frame - last.frame > framesOf(4)) return null;
  const goal = strike.starts[0]!.midi;
  const arrival = firstNear(track, goal, Math.max(last.frame + 2, strike.frame - SLIDE_AT_MOST), strike.frame + SLIDE_AT_MOST);
  if (arrival === null) return null;
  const leaving = leavingOf(track, arrival, last.frame, goal);
  if (leaving === null) return null;
  const from = track[leaving]!;
  const takes = arrival - leaving;
  if (Math.abs(goal - from) < 0.6 || takes < QUICKEST || takes > LONGEST) return null;
  if (riseAt(frames, strike.frame) >= STILL_RISE || strongest(frames, leaving + 2, arrival + 3) >= STILL_STRENGTH) return null;
  const isNewNote = Math.abs(goal - from) >= NEW_NOTE && takes <= SLIDE_AT_MOST && leaving - last.frame >= HELD;
  return { arrival, isNewNote };
}

function firstNear(track: PitchTrack, pitch: Midi, from: number, to: number): number | null {
  for (let frame = from; frame < Math.min(to, track.length); frame++) if (Math.abs(track[frame]! - pitch) < NEAR && Math.abs((track[frame + 3] ?? NaN) - pitch) < NEAR) return frame;
  return null;
}

/** Back from the arrival for as long as the pitch moves away from the goal: where the glide began. Null where it breaks off. */
function leavingOf(track: PitchTrack, arrival: number, earliest: number, goal: Midi): number | null {
  let [frame, away, still] = [arrival, Math.abs(track[arrival]! - goal), 0];
  let leaving = arrival;
  while (frame > earliest && still < 3) {
    frame--;
    const pitch = track[frame]!;
    if (Number.isNaN(pitch)) break;
    const now = Math.abs(pitch - goal);
    if (Math.abs(pitch - track[frame + 1]!) > 1.6 || now < away - 0.3) return null;
    if (now > away + 0.03) {
      leaving = frame;
      still = 0;
    } else still++;
    away = Math.max(away, now);
  }
  return leaving < arrival ? leaving : null;
}

function strongest(frames: readonly Frame[], from: number, to: number): number {
  let most = 0;
  for (let frame = Math.max(0, from); frame < Math.min(frames.length, to); frame++) most = Math.max(most, frames[frame]!.flux);
  return most;
}
