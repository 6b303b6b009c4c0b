import { median, type Cents, type Hz, type Midi, type Seconds } from '../shared';
import { FRAME_SECONDS, framesOf } from './frames';
import { joinSame, LEAST_MOVE, longest, plateausOf, standing, type PitchPlateau } from './plateaus';

/**
 * What a note's pitch does over its length. Times in seconds from its onset, pitches as MIDI numbers with
 * their fraction.
 */
export type PitchGesture = {
  /** Where it settles. */
  readonly pitch: Midi;
  /** Corners of a bend: [seconds, pitch], straight between. */
  readonly bend?: readonly (readonly [Seconds, Midi])[];
  /** Rate, and how far the pitch swings to each side. */
  readonly vibrato?: { readonly hz: Hz; readonly cents: Cents };
};

/** The pick's noise has no pitch yet. */
const PICK = framesOf(0.018);
/** A glide that has arrived this soon after the pick is a slide into the note; a bend takes longer. */
const SLIDE_ARRIVES: Seconds = 0.145;
const WIDEST_BEND: Midi = 4.6;
const LEAP: Midi = 1.3;
const BELONGS: Midi = 0.7;

/**
 * Reads the gesture from a note's pitch frame by frame (NaN where it has none), the first frame at its
 * onset. Null where little has a
 * pitch, or what has one is not this note: while other strings ring the track may be on one of them.
 * @param expected the pitch that is believed to begin
 */
export function gestureOf(track: Float64Array, expected: Midi): PitchGesture | null {
  const pitches = filled(track);
  if (!pitches) return null;
  const vibrato = vibratoOf(pitches);
  const calm = vibrato ? smoothed(pitches, framesOf(1 / vibrato.hz)) : medianOfThree(pitches);
  const levels = plateausOf(calm, vibrato ? 0.3 : 0);
  const withVibrato = vibrato
    ? { vibrato: { hz: Math.round(vibrato.hz * 10) / 10, cents: Math.round(vibrato.cents) } }
    : {};
  if (levels.length === 0) {
    const pitch = lastHalf(calm);
    return Math.abs(pitch - expected) < BELONGS ? { pitch, ...withVibrato } : null;
  }
  const moves = runsOf(joinSame(levels), track).find((run) => belongs(run, expected));
  if (!moves) return null;
  const settled = longest(moves, standing(calm, vibrato ? 0.3 : 0));
  const pitch = vibrato ? median(Array.from(calm.subarray(settled.from, settled.to)))! : settled.pitch;
  if (moves.length < 2 || spread(moves) < LEAST_MOVE) return { pitch, ...withVibrato };
  const second = moves[1]!;
  // what has arrived so soon came by a slide, or the path was still on the note before
  if (second === settled && second.from * FRAME_SECONDS <= SLIDE_ARRIVES) return { pitch, ...withVibrato };
  if (spread(moves) > WIDEST_BEND) return { pitch, ...withVibrato };
  return {
    pitch,
    bend: moves.flatMap(({ from, to, pitch: at }, index): [Seconds, Midi][] => [
      [index === 0 ? 0 : from * FRAME_SECONDS, at],
      [(to - 1) * FRAME_SECONDS, at],
    ]),
    ...withVibrato,
  };
}

/** Plateaus that glides lead between; where the pitch leaps or is silent, another run begins. */
function runsOf(levels: readonly PitchPlateau[], track: Float64Array): PitchPlateau[][] {
  const runs: PitchPlateau[][] = [];
  for (const level of levels) {
    const last = runs.at(-1)?.at(-1);
    if (last && glidesBetween(track, last.to, level.from)) runs.at(-1)!.push(level);
    else runs.push([level]);
  }
  return runs;
}

function glidesBetween(track: Float64Array, from: number, to: number): boolean {
  let silent = 0;
  let last = track[from - 1]!;
  for (let frame = from; frame <= to; frame++) {
    const pitch = track[frame]!;
    if (Number.isNaN(pitch)) silent++;
    else {
      if (Math.abs(pitch - last) > LEAP * (1 + silent)) return false;
      last = pitch;
    }
  }
  return silent <= 3;
}

/** One of the plateaus is the pitch believed, or a glide between two of them goes through it. */
function belongs(run: readonly PitchPlateau[], expected: Midi): boolean {
  return (
    run.some(({ pitch }) => Math.abs(pitch - expected) < BELONGS) ||
    run.slice(1).some(({ pitch }, index) => (pitch - expected) * (run[index]!.pitch - expected) < 0)
  );
}

/**
 * Gaps filled by straight lines; the pick left out at the front takes the first pitch after it. Null where
 * little has a pitch.
 */
function filled(track: Float64Array): Float64Array | null {
  const known: number[] = [];
  const skip = Math.min(PICK, Math.floor(track.length / 3));
  for (let frame = skip; frame < track.length; frame++) if (!Number.isNaN(track[frame]!)) known.push(frame);
  if (known.length < 3) return null;
  const pitches = new Float64Array(known.at(-1)! + 1);
  pitches.fill(track[known[0]!]!, 0, known[0]! + 1);
  for (let index = 1; index < known.length; index++) {
    const [a, b] = [known[index - 1]!, known[index]!];
    for (let frame = a + 1; frame <= b; frame++)
      pitches[frame] = track[a]! + ((track[b]! - track[a]!) * (frame - a)) / (b - a);
  }
  return pitches;
}

const medianOfThree = (pitches: Float64Array): Float64Array =>
  pitches.map((pitch, frame) => median([pitches[frame - 1] ?? pitch, pitch, pitches[frame + 1] ?? pitch])!);

function smoothed(pitches: Float64Array, width: number): Float64Array {
  const half = width >> 1;
  return pitches.map((_, frame) => {
    const [from, to] = [Math.max(0, frame - half), Math.min(pitches.length, frame + half + 1)];
    let sum = 0;
    for (let n = from; n < to; n++) sum += pitches[n]!;
    return sum / (to - from);
  });
}

const spread = (levels: readonly PitchPlateau[]): number =>
  Math.max(...levels.map(({ pitch }) => pitch)) - Math.min(...levels.map(({ pitch }) => pitch));
const lastHalf = (pitches: Float64Array): Midi => median(Array.from(pitches.subarray(pitches.length >> 1)))!;

const VIBRATO = {
  slowest: 3.2,
  fastest: 8.5,
  leastSeconds: 0.42,
  leastSwing: 0.06,
  leastCents: 9,
  widest: 1.2,
  agreement: 0.45,
};

/**
 * A steady swing of the pitch between 3 and 8.5 times a second, by autocorrelation of what is left over its
 * slow course (after Rossignol
 * et al., "Vibrato: detection, estimation, extraction, modification", DAFx 1999).
 */
function vibratoOf(pitches: Float64Array): { hz: Hz; cents: Cents } | null {
  const least = framesOf(VIBRATO.leastSeconds);
  if (pitches.length < least) return null;
  const slow = smoothed(pitches, framesOf(0.22));
  const rest = pitches.map((pitch, frame) => pitch - slow[frame]!);
  let best: { hz: Hz; cents: Cents; agreement: number } | null = null;
  for (let from = framesOf(0.05); from + least <= pitches.length; from += framesOf(0.1)) {
    const part = rest.subarray(from, Math.min(pitches.length - 2, from + framesOf(0.6)));
    if (part.length < least) break;
    const power = part.reduce((sum, value) => sum + value * value, 0) / part.length;
    const swing = Math.sqrt(2 * power);
    if (swing < VIBRATO.leastSwing || swing > VIBRATO.widest) continue;
    for (
      let lag = framesOf(1 / VIBRATO.fastest);
      lag <= Math.min(framesOf(1 / VIBRATO.slowest), part.length - 8);
      lag++
    ) {
      const agreement = correlation(part, lag);
      if (
        agreement < VIBRATO.agreement ||
        agreement < correlation(part, lag - 1) ||
        agreement < correlation(part, lag + 1)
      )
        continue;
      // twice the period agrees as well: the shorter is the swing
      if (!best || agreement > best.agreement + 0.12)
        best = {
          hz: 1 / (lag * FRAME_SECONDS),
          cents: swingAt(pitches.subarray(from, from + part.length), lag) * 100,
          agreement,
        };
    }
  }
  return best && best.cents >= VIBRATO.leastCents && swingsBothWays(rest, best.hz) ? best : null;
}

/** Half the width of the swing of one period, by projection on its sine over whole periods. */
function swingAt(pitches: Float64Array, period: number): Midi {
  const count = Math.floor(pitches.length / period) * period;
  const slope =
    (pitches[count - 1]! - pitches[count - 1 - period]! + pitches[period]! - pitches[0]!) / (2 * period);
  let [re, im] = [0, 0];
  for (let n = 0; n < count; n++) {
    const value = pitches[n]! - slope * n;
    re += value * Math.cos((2 * Math.PI * n) / period);
    im += value * Math.sin((2 * Math.PI * n) / period);
  }
  return (2 / count) * Math.hypot(re, im);
}

function correlation(values: Float64Array, lag: number): number {
  let [cross, a, b] = [0, 0, 0];
  for (let n = 0; n + lag < values.length; n++) {
    cross += values[n]! * values[n + lag]!;
    a += values[n]! ** 2;
    b += values[n + lag]! ** 2;
  }
  return cross / Math.sqrt(a * b || 1);
}

/** At least two whole swings: a single glide is none. */
function swingsBothWays(rest: Float64Array, hz: Hz): boolean {
  let [crossings, sign] = [0, 0];
  for (const value of rest) {
    if (Math.abs(value) < VIBRATO.leastSwing * 0.5) continue;
    if (sign !== 0 && Math.sign(value) !== sign) crossings++;
    sign = Math.sign(value);
  }
  return crossings >= 4 && crossings >= 0.5 * 2 * hz * Math.min(0.6, rest.length * FRAME_SECONDS);
}
