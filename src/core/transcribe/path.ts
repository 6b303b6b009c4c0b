import type { Decibels, Midi } from '../shared';
import { MOST_CANDIDATES } from './candidates';
import { FRAME_SECONDS, type AnalysisFrame } from './frames';

/** The fundamental frame by frame as a MIDI number; NaN where nothing has a pitch. */
export type PitchTrack = Float64Array;

/**
 * A pitch that is known to begin at a frame and may sound until another: a state of its own, where the period
 * tracker is confused.
 */
export type Known = {
  readonly from: number;
  readonly to: number;
  readonly midi: Midi;
  /** Surely struck at `from`: what sounds right after it is this or nothing. */ readonly struck: boolean;
};

const NEAR_ONSET = Math.round(0.06 / FRAME_SECONDS);
const COST = {
  drift: 0.3,
  glidePerSemitone: 2.2,
  glideMost: 9,
  jumpNearOnset: 1.2,
  voicing: 3,
  voicingNearOnset: 0.8,
  silence: 1.5,
  least: 1e-4,
};
/** Below this belief in any pitch a frame has none. */
const SOME_PITCH = 0.06;
const KNOWN = {
  cost: 2.6,
  later: 3.8,
  silence: 3.1,
  sounding: Math.round(0.25 / FRAME_SECONDS),
  elsewhere: 2.2,
  octaves: 3,
  farthest: 8,
  fresh: Math.round(0.075 / FRAME_SECONDS),
  reach: 0.8,
  most: 4,
};
/** States of a frame: without pitch, its candidates, what is known. */
const WIDTH = 1 + MOST_CANDIDATES + KNOWN.most;

/**
 * One best path through the candidates (Viterbi, as in pYIN's second stage: Mauch and Dixon, ICASSP 2014):
 * pitch may glide, jumps are
 * cheap near an attack and dear elsewhere, and there is an explicit state without pitch.
 * @param attacks frames near which the pitch may jump
 * @param gate frames below this level have no pitch
 * @param known in order of their beginning
 */
export function pathOf(
  frames: readonly AnalysisFrame[],
  attacks: readonly { readonly frame: number }[],
  gate: Decibels,
  known: readonly Known[] = [],
): PitchTrack {
  const { length } = frames;
  const near = nearAttacks(length, attacks);
  const pitches = new Float64Array(length * WIDTH);
  const back = new Int8Array(length * WIDTH);
  const counts = new Uint8Array(length);
  let costs = new Float64Array(WIDTH);
  let next = new Float64Array(WIDTH);
  const own = new Float64Array(WIDTH);
  let [before, beforeAt, first] = [0, 0, 0];
  for (let index = 0; index < length; index++) {
    while (first < known.length && known[first]!.to <= index) first++;
    const at = index * WIDTH;
    const count = layStates(frames[index]!, gate, index, known, first, pitches, at, own);
    counts[index] = count;
    let floor = Infinity;
    for (let to = 0; to < count; to++) {
      let [least, origin] = [index === 0 ? 0 : Infinity, 0];
      for (let from = 0; from < before; from++) {
        const cost = costs[from]! + moveCost(pitches[beforeAt + from]!, pitches[at + to]!, near[index] === 1);
        if (cost < least) [least, origin] = [cost, from];
      }
      next[to] = least + own[to]!;
      back[at + to] = origin;
      if (next[to]! < floor) floor = next[to]!;
    }
    for (let to = 0; to < count; to++) next[to]! -= floor;
    [costs, next] = [next, costs];
    [before, beforeAt] = [count, at];
  }
  return retrace(length, pitches, back, costs.subarray(0, before));
}

/** Writes a frame's states: the pitch of each (NaN for none) and what it costs. State 0 is unvoiced. */
function layStates(
  frame: AnalysisFrame,
  gate: Decibels,
  index: number,
  known: readonly Known[],
  first: number,
  pitches: Float64Array,
  at: number,
  own: Float64Array,
): number {
  pitches[at] = NaN;
  own[0] = 0;
  if (frame.level < gate) return 1;
  const { fresh, begun, end } = knownAt(known, first, index);
  let [voiced, count] = [0, 1];
  for (const { midi, weight } of frame.candidates) {
    voiced += weight;
    const stray = fresh && !isNearFresh(known, first, index, midi);
    const far = isFarFromKnown(known, first, index, midi);
    pitches[at + count] = midi;
    own[count++] =
      -Math.log(Math.max(COST.least, weight)) + (stray ? KNOWN.elsewhere : 0) + (far ? KNOWN.octaves : 0);
  }
  own[0] = silenceCost(begun, voiced);
  for (let one = first; one < end && count < WIDTH; one++) {
    if (known[one]!.to <= index) continue;
    pitches[at + count] = known[one]!.midi;
    own[count++] = index < known[one]!.from + KNOWN.sounding ? KNOWN.cost : KNOWN.later;
  }
  return count;
}

/**
 * What is known of a frame: whether a note is fresh there, whether one has begun and surely sounds, and where
 * the notes that begin later start in `known`.
 */
function knownAt(
  known: readonly Known[],
  first: number,
  index: number,
): { fresh: boolean; begun: boolean; end: number } {
  let [fresh, begun, end] = [false, false, first];
  for (; end < known.length && known[end]!.from <= index; end++) {
    const one = known[end]!;
    fresh ||= isFresh(one, index);
    begun ||= index < one.to && index >= one.from + 2 && index < one.from + KNOWN.sounding;
  }
  return { fresh, begun, end };
}

const isFresh = ({ from, to, struck }: Known, index: number): boolean =>
  struck && index < to && index >= from + 2 && index < from + KNOWN.fresh;

function isNearFresh(known: readonly Known[], first: number, index: number, midi: Midi): boolean {
  for (let one = first; one < known.length && known[one]!.from <= index; one++)
    if (isFresh(known[one]!, index) && Math.abs(known[one]!.midi - midi) < KNOWN.reach) return true;
  return false;
}

/**
 * No hand bends or slides so far from what was struck: a candidate there is a harmonic's, or half the string's
 * own.
 */
function isFarFromKnown(known: readonly Known[], first: number, index: number, midi: Midi): boolean {
  let any = false;
  for (let one = first; one < known.length && known[one]!.from <= index; one++) {
    if (index >= known[one]!.to) continue;
    if (Math.abs(known[one]!.midi - midi) < KNOWN.farthest) return false;
    any = true;
  }
  return any;
}

function moveCost(from: Midi, to: Midi, nearAttack: boolean): number {
  const [voicedFrom, voicedTo] = [from === from, to === to];
  if (!voicedFrom && !voicedTo) return 0;
  if (!voicedFrom || !voicedTo) return nearAttack ? COST.voicingNearOnset : COST.voicing;
  const glide = Math.min(
    COST.glideMost,
    Math.max(0, Math.abs(to - from) - COST.drift) * COST.glidePerSemitone +
      Math.min(Math.abs(to - from), COST.drift) * 0.5,
  );
  return nearAttack ? Math.min(glide, COST.jumpNearOnset) : glide;
}

function nearAttacks(length: number, attacks: readonly { readonly frame: number }[]): Uint8Array {
  const near = new Uint8Array(length);
  for (const { frame } of attacks) near.fill(1, Math.max(0, frame - 2), Math.min(length, frame + NEAR_ONSET));
  return near;
}

function retrace(
  length: number,
  pitches: Float64Array,
  back: Int8Array,
  lastCosts: Float64Array,
): PitchTrack {
  const track = new Float64Array(length).fill(NaN);
  let state = lastCosts.indexOf(Math.min(...lastCosts));
  for (let index = length - 1; index >= 0; index--) {
    track[index] = pitches[index * WIDTH + state]!;
    state = back[index * WIDTH + state]!;
  }
  return track;
}

function silenceCost(begun: boolean, voiced: number) {
  if (begun) return KNOWN.silence;
  if (voiced > SOME_PITCH) return Math.max(COST.silence, -Math.log(Math.max(0.02, 1 - voiced)));
  return 0;
}
