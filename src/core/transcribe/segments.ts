import { median, type Decibels, type Seconds } from '../vocabulary';
import { FRAME_SECONDS, type Frame } from './frames';
import type { Onset } from './onsets';
import type { PitchTrack } from './path';

/** A stretch of one note: frames `from` … `to` (half-open), and the attack it grew from, if any. */
export type Segment = { from: number; to: number; readonly onset: Onset | null; readonly cut: 'attack' | 'step' | 'voice' };

const framesOf = (seconds: Seconds): number => Math.max(1, Math.round(seconds / FRAME_SECONDS));
const BRIDGE = framesOf(0.018);
const SIDE = framesOf(0.032);
const GUARD = 2;
const STEP_SEMITONES = 0.7;
const PLATEAU_SEMITONES = 0.55;
const SHORTEST = framesOf(0.045);
/** A level rise that makes an attack inside a ringing note a new note. */
const REAL_RISE: Decibels = 2.5;
const STRONG_FLUX = 0.25;
/** Under a fresh attack the body may answer an octave, a twelfth or two octaves below the string for this long. */
const THUMP = framesOf(0.14);
const BODY_STEPS = [12, 19, 24];
/** While the note before still rings the two have no common period: the new pitch may be heard this long after its attack. */
const LATEST_PITCH = framesOf(0.2);

/**
 * Cuts the pitch track into notes: at attacks, where pitch begins or ends, and at steps from plateau to plateau of 70 cents or more
 * within about 40 ms (hammer-ons, pull-offs, slides). Equal pitches without a real rise of level are joined again.
 */
export function segmentsOf(track: PitchTrack, frames: readonly Frame[], onsets: readonly Onset[]): Segment[] {
  const cuts = onsets.filter((onset) => isVoicedSoon(track, onset.frame));
  const regions = voicedRegions(track);
  const pieces = regions.flatMap((region, index) => cutRegion(region, regions[index - 1]?.to ?? 0, track, cuts));
  return join(lateArrivals(pieces.filter((piece) => piece.to - piece.from >= 3), track), track, frames)
    .filter((piece) => piece.to - piece.from >= SHORTEST);
}

/** Contiguous voiced frames; gaps of up to 18 ms are bridged. */
function voicedRegions(track: PitchTrack): { from: number; to: number }[] {
  const regions: { from: number; to: number }[] = [];
  for (let frame = 0; frame < track.length; frame++) {
    if (Number.isNaN(track[frame]!)) continue;
    const last = regions[regions.length - 1];
    if (last && frame - last.to <= BRIDGE) last.to = frame + 1;
    else regions.push({ from: frame, to: frame + 1 });
  }
  return regions;
}

const isVoicedSoon = (track: PitchTrack, frame: number): boolean => {
  for (let ahead = 0; ahead <= LATEST_PITCH; ahead++) if (!Number.isNaN(track[frame + ahead] ?? NaN)) return true;
  return false;
};

/** @param free the frame from which attacks are not part of the region before */
function cutRegion(region: { from: number; to: number }, free: number, track: PitchTrack, onsets: readonly Onset[]): Segment[] {
  const earliest = Math.min(region.from - framesOf(0.07), Math.max(free - framesOf(0.03), region.from - LATEST_PITCH));
  const first = onsets.findLast((onset) => onset.frame <= region.from + framesOf(0.025) && onset.frame >= earliest) ?? null;
  const attacks = onsets.filter((onset) => onset !== first && onset.frame > region.from + framesOf(0.02) && onset.frame < region.to - 2);
  const marks: Segment[] = [{ from: region.from, to: region.to, onset: first, cut: first ? 'attack' : 'voice' }];
  const cuts: { frame: number; onset: Onset | null }[] = [
    ...attacks.map((onset) => ({ frame: onset.frame, onset })),
    ...stepsIn(region, track).filter((frame) => !onsets.some((onset) => Math.abs(onset.frame - frame) <= framesOf(0.05))).map((frame) => ({ frame, onset: null })),
  ].sort((a, b) => a.frame - b.frame);
  for (const { frame, onset } of cuts) {
    const last = marks[marks.length - 1]!;
    if (frame - last.from < 4) continue;
    marks.push({ from: frame, to: region.to, onset, cut: onset ? 'attack' : 'step' });
    last.to = frame;
  }
  return marks;
}

/** Frames where one plateau gives way to another. */
function stepsIn(region: { from: number; to: number }, track: PitchTrack): number[] {
  const steps: number[] = [];
  let best: { frame: number; size: number } | null = null;
  for (let frame = region.from + SIDE; frame < region.to - SIDE; frame++) {
    const before = voiced(track, frame - SIDE - GUARD, frame - GUARD);
    const after = voiced(track, frame + GUARD, frame + GUARD + SIDE);
    const size = Math.abs((median(after) ?? 0) - (median(before) ?? 0));
    const isStep = before.length > 2 && after.length > 2 && size >= STEP_SEMITONES && range(before) <= PLATEAU_SEMITONES && range(after) <= PLATEAU_SEMITONES;
    if (isStep && (!best || size > best.size + 0.02)) best = { frame, size };
    if (best && (!isStep || frame - best.frame > SIDE)) {
      steps.push(steepest(track, best.frame));
      best = null;
      frame += GUARD;
    }
  }
  if (best) steps.push(steepest(track, best.frame));
  return steps;
}

function steepest(track: PitchTrack, around: number): number {
  let [at, most] = [around, 0];
  for (let frame = around - SIDE; frame <= around + SIDE; frame++) {
    const move = Math.abs((track[frame + 1] ?? NaN) - (track[frame - 1] ?? NaN));
    if (move > most) [at, most] = [frame, move];
  }
  return at;
}

const voiced = (track: PitchTrack, from: number, to: number): number[] =>
  Array.from(track.subarray(Math.max(0, from), Math.max(0, to))).filter((midi) => !Number.isNaN(midi));

const range = (values: readonly number[]): number => Math.max(...values) - Math.min(...values);

/** The pitch a segment rests at: the median past its first 25 ms. */
export function restingPitch(track: PitchTrack, segment: Segment): number {
  const skip = Math.min(framesOf(0.025), Math.floor((segment.to - segment.from) / 3));
  return median(voiced(track, segment.from + skip, segment.to)) ?? NaN;
}

/** Does a pitch lie a whole multiple above another, 2 to 12 times its frequency? Within 35 cents. */
function isHarmonicOf(pitch: number, low: number): boolean {
  const ratio = 2 ** ((pitch - low) / 12);
  const whole = Math.round(ratio);
  return whole >= 2 && whole <= 12 && Math.abs(12 * Math.log2(ratio / whole)) < 0.35;
}

/**
 * While two notes sound together right after an attack the pitch steps late. Where the old note outsounds the new one, the stretch
 * between goes back to the old note; where their common subharmonic was followed, it is nobody's. The new note begins at the attack.
 */
function lateArrivals(pieces: readonly Segment[], track: PitchTrack): Segment[] {
  const settled: Segment[] = [];
  for (const piece of pieces) {
    const [before, last] = [settled[settled.length - 2], settled[settled.length - 1]];
    const late =
      before && last && piece.onset === null && last.onset !== null && piece.from - last.onset.frame <= LATEST_PITCH && piece.from - last.to <= BRIDGE &&
      last.from - before.to <= framesOf(0.06);
    const [old, between, next] = late ? [before, last, piece].map((one) => restingPitch(track, one)) as [number, number, number] : [0, 0, 0];
    const lingers = late && Math.abs(old - between) < 0.5;
    if (!late || !(lingers || (isHarmonicOf(old, between) && isHarmonicOf(next, between)))) settled.push({ ...piece });
    else {
      settled.pop();
      if (lingers) before.to = last.to;
      settled.push({ ...piece, onset: last.onset, cut: 'attack' });
    }
  }
  return settled;
}

/**
 * Joins what an attack or a gap cut without need: the same pitch and no rise of level; without an attack, an octave drop (overdrive:
 * the second harmonic rang above the first) or a step up out of the body's answer to the attack.
 */
function join(pieces: readonly Segment[], track: PitchTrack, frames: readonly Frame[]): Segment[] {
  const joined: Segment[] = [];
  for (const piece of pieces) {
    const last = joined[joined.length - 1];
    if (last && piece.from - last.to <= framesOf(0.06) && belongsTo(last, piece, track, frames)) last.to = piece.to;
    else joined.push({ ...piece });
  }
  return joined;
}

function belongsTo(last: Segment, piece: Segment, track: PitchTrack, frames: readonly Frame[]): boolean {
  const move = restingPitch(track, piece) - restingPitch(track, last);
  const struck = piece.onset !== null && (piece.onset.rise >= REAL_RISE || piece.onset.strength >= STRONG_FLUX);
  if (Math.abs(move) < 0.6) return !struck && levelRise(frames, last, piece) < 6;
  if (piece.onset !== null) return false;
  const young = last.onset !== null && piece.from - last.from < THUMP && piece.to - piece.from > last.to - last.from;
  return Math.abs(move + 12) < 0.5 || (young && BODY_STEPS.some((step) => Math.abs(move - step) < 0.5));
}

/** Rise of level from the end of one stretch into the next. */
function levelRise(frames: readonly Frame[], last: Segment, piece: Segment): Decibels {
  const end = frames[Math.max(last.from, last.to - 1)]!.level;
  const peak = Math.max(...frames.slice(piece.from, Math.min(piece.to, piece.from + framesOf(0.05))).map((frame) => frame.level));
  return peak - end;
}
