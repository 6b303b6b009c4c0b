import type { Decibels, Midi } from '../vocabulary';
import { FRAME_SECONDS, type Frame } from './frames';
import type { Onset } from './onsets';

/** The fundamental frame by frame as a MIDI number; NaN where nothing has a pitch. */
export type PitchTrack = Float64Array;

const NEAR_ONSET = Math.round(0.06 / FRAME_SECONDS);
const COST = { glidePerSemitone: 2.2, glideMost: 9, jumpNearOnset: 1.2, voicing: 3, voicingNearOnset: 0.8, least: 1e-4 };

/**
 * One best path through the candidates (Viterbi): pitch may glide, jumps are cheap near an attack and dear elsewhere, and there is
 * an explicit state without pitch.
 * @param gate frames below this level have no pitch
 */
export function pathOf(frames: readonly Frame[], onsets: readonly Onset[], gate: Decibels): PitchTrack {
  const near = nearOnsets(frames.length, onsets);
  const back: Int8Array[] = [];
  let costs: number[] = [0];
  let pitches: (Midi | null)[] = [null];
  for (const [index, frame] of frames.entries()) {
    const states = statesOf(frame, gate);
    const nextCosts = new Array<number>(states.length);
    const from = new Int8Array(states.length);
    states.forEach((state, to) => {
      let [least, origin] = [Infinity, 0];
      for (let before = 0; before < costs.length; before++) {
        const cost = costs[before]! + moveCost(pitches[before]!, state.midi, near[index] === 1);
        if (cost < least) [least, origin] = [cost, before];
      }
      nextCosts[to] = least + state.cost;
      from[to] = origin;
    });
    const floor = Math.min(...nextCosts);
    costs = nextCosts.map((cost) => cost - floor);
    pitches = states.map(({ midi }) => midi);
    back.push(from);
  }
  return retrace(frames, back, costs, gate);
}

type State = { readonly midi: Midi | null; readonly cost: number };

/** State 0 is unvoiced; the others are the frame's candidates. */
function statesOf(frame: Frame, gate: Decibels): State[] {
  if (frame.level < gate) return [{ midi: null, cost: 0 }];
  const voiced = frame.candidates.reduce((sum, { weight }) => sum + weight, 0);
  const states: State[] = [{ midi: null, cost: -Math.log(Math.max(0.02, 1 - voiced)) }];
  for (const { midi, weight } of frame.candidates) states.push({ midi, cost: -Math.log(Math.max(COST.least, weight)) });
  return states;
}

function moveCost(from: Midi | null, to: Midi | null, nearOnset: boolean): number {
  if (from === null && to === null) return 0;
  if (from === null || to === null) return nearOnset ? COST.voicingNearOnset : COST.voicing;
  const distance = Math.abs(to - from);
  const glide = Math.min(COST.glideMost, distance * COST.glidePerSemitone);
  return nearOnset ? Math.min(glide, COST.jumpNearOnset) : glide;
}

function nearOnsets(length: number, onsets: readonly Onset[]): Uint8Array {
  const near = new Uint8Array(length);
  for (const { frame } of onsets) near.fill(1, Math.max(0, frame - 2), Math.min(length, frame + NEAR_ONSET));
  return near;
}

function retrace(frames: readonly Frame[], back: readonly Int8Array[], lastCosts: readonly number[], gate: Decibels): PitchTrack {
  const track = new Float64Array(frames.length).fill(NaN);
  let state = lastCosts.indexOf(Math.min(...lastCosts));
  for (let index = frames.length - 1; index >= 0; index--) {
    track[index] = statesOf(frames[index]!, gate)[state]?.midi ?? NaN;
    state = back[index]![state]!;
  }
  return track;
}
