import {
  elementAt,
  pitchClassOf,
  seededRandom,
  type Beats,
  type Midi,
  type PitchClass,
  type Random,
  type Semitones,
} from '../shared';
import type { RhythmNote } from './request';

/** A note of a rhythm that is to get its pitch: which pitches it may have, and which it likes. */
export type PitchSlot = RhythmNote & {
  /** Pitch classes it may have. */
  readonly pcs: readonly PitchClass[];
  /** The ones of them that say the chord: liked on strong beats and at the end of a phrase. */
  readonly tones: readonly PitchClass[];
  /** On a beat where the ear expects the chord. */
  readonly isStrong: boolean;
  /** Its distance from the note before it, in semitones up; free where it is not said. */
  readonly steps?: readonly Semitones[] | undefined;
  /** The lowest and the highest pitch it may have. */
  readonly between?: readonly [Midi, Midi];
};

type State = {
  readonly midi: Midi;
  readonly before: Midi | null;
  readonly second: Midi | null;
  /** Moves one way in a row, with its sign. */
  readonly run: number;
  readonly cost: number;
  readonly back: State | null;
};

/**
 * What a move costs by its size in semitones. The order is that of published corpora of improvised lines
 * (steps about half of all moves, thirds a fifth to a quarter, repeats and wider moves a tenth each; from
 * memory), the numbers are tuned by ear and by `lineFaults`.
 */
const MOVE = [2.6, 0.25, 0, 0.35, 0.5, 1.2, 2.4, 1.8, 2.8, 3.2, 3.6, 4.5, 3] as const;
const WIDER = 9;
const BEAM = 40;
const LEAP: Semitones = 5;

/**
 * A line through slots: the cheapest of many that were kept side by side (beam search), by size and direction
 * of its moves, by the chord on strong beats, and by a contour that each phrase has of its own.
 * @param pitches that may be used, from low to high
 * @param seed decides the contours and breaks ties
 * @returns one pitch for each slot; null where no line fits
 */
export function pitchesThrough(
  slots: readonly PitchSlot[],
  pitches: readonly Midi[],
  seed: number,
): Midi[] | null {
  const random = seededRandom(seed * 7919 + 17);
  const goals = contoursOf(slots, pitches, random);
  let beam: State[] = [];
  for (const [index, slot] of slots.entries()) {
    const open = pitches.filter((midi) => isOpen(slot, midi));
    const own = open.map(
      (midi) => [midi, pitchCost(slot, midi, elementAt(goals, index)) + random() * 0.8] as const,
    );
    const next = index === 0 ? begun(own) : extend(beam, slot, own);
    // where no note lies that far from any before it, the line goes on without that step
    const reached = next.length > 0 ? next : extend(beam, { ...slot, steps: undefined }, own);
    if (reached.length === 0) return null;
    beam = reached;
  }
  let state: State | null = beam[0] ?? null;
  const line: Midi[] = [];
  for (; state; state = state.back) line.unshift(state.midi);
  return slots.length === 0 ? [] : line;
}

/** A line of one note for each pitch it may begin with. */
function begun(own: readonly (readonly [Midi, number])[]): State[] {
  const kept = new Cheapest();
  for (const [midi, cost] of own)
    if (kept.takes(cost)) kept.add({ midi, before: null, second: null, run: 0, cost, back: null });
  return kept.states;
}

const isOpen = ({ pcs, between }: PitchSlot, midi: Midi): boolean =>
  pcs.includes(pitchClassOf(midi)) && (!between || (midi >= between[0] && midi <= between[1]));

function pitchCost({ tones, isStrong, place }: PitchSlot, midi: Midi, goal: Midi): number {
  const pc = pitchClassOf(midi);
  const away = Math.max(0, Math.abs(midi - goal) - 1) * 0.16;
  if (tones.includes(pc)) return away;
  return away + (isStrong ? 1.1 : 0.12) + (place === 'last' ? 3 : 0);
}

/** All ways on from the lines so far, the cheapest of them kept. */
function extend(beam: readonly State[], slot: PitchSlot, own: readonly (readonly [Midi, number])[]): State[] {
  const kept = new Cheapest();
  for (const state of beam) {
    const way = Math.sign(state.run);
    for (const [midi, ownCost] of own) {
      if (slot.steps && !slot.steps.includes(midi - state.midi)) continue;
      const cost = state.cost + ownCost + moveCost(state, midi, slot);
      if (!kept.takes(cost)) continue;
      const turn = Math.sign(midi - state.midi);
      kept.add({
        midi,
        before: state.midi,
        second: state.before,
        run: turn !== 0 && turn === way ? state.run + turn : turn,
        cost,
        back: state,
      });
    }
  }
  return kept.states;
}

/** What it costs to go on from a line to a pitch. */
function moveCost(state: State, to: Midi, slot: PitchSlot): number {
  const size = Math.abs(to - state.midi);
  const isBound = slot.steps !== undefined;
  const fresh = slot.place === 'first' ? 0.35 : 1;
  return (
    (MOVE[size] ?? WIDER) * fresh + swingCost(state, to, isBound) + (isBound ? 0 : turnCost(state, to, size))
  );
}

/** To and fro between two notes says nothing, nor does one note three times. */
function swingCost({ midi: from, before, second }: State, to: Midi, isBound: boolean): number {
  if (to !== before) return 0;
  if (to === from) return 8;
  return (isBound ? 0.6 : 1.5) + (from === second ? 12 : 0);
}

/** Few turns in a row, no endless runs, and a leap is made good by a step back. */
function turnCost({ midi: from, before, run }: State, to: Midi, size: Semitones): number {
  if (before === null) return 0;
  const turns = Math.sign(to - from) * Math.sign(run) < 0;
  const turning = turns && Math.abs(run) === 1 ? 0.75 : 0;
  const running = turns ? 0 : 0.35 * Math.max(0, Math.abs(run) - 4);
  return turning + running + (Math.abs(from - before) >= LEAP ? afterLeap(turns, size) : 0);
}

function afterLeap(turns: boolean, size: Semitones): number {
  if (turns && size <= 2) return -0.4;
  return size >= 3 ? 1.4 : 0.5;
}

/** The cheapest states in order, each three last notes once; of equal ones the first that came. */
class Cheapest {
  readonly states: State[] = [];

  /** Would a line of this cost be among them? */
  takes(cost: number): boolean {
    const dearest = this.states.length === BEAM ? this.states[BEAM - 1] : undefined;
    return cost < (dearest?.cost ?? Infinity);
  }

  add(state: State): void {
    const { states } = this;
    const alike = states.findIndex(
      ({ midi, before, second }) => midi === state.midi && before === state.before && second === state.second,
    );
    if (alike >= 0) {
      if (elementAt(states, alike).cost <= state.cost) return;
      states.splice(alike, 1);
    }
    let place = states.length;
    while (place > 0 && elementAt(states, place - 1).cost > state.cost) place--;
    states.splice(place, 0, state);
    if (states.length > BEAM) states.pop();
  }
}

type Contour = (along: number) => number;
/** From 0 below to 1 above, along a phrase: one highest point each. */
const CONTOURS: readonly Contour[] = [
  (along) => Math.sin(Math.PI * Math.min(1, along * 1.05)),
  (along) => 1 - along,
  (along) => (along < 0.3 ? 0.45 + along * 1.8 : 1 - (along - 0.3) * 1.2),
  (along) => (along < 0.7 ? along * 1.4 : 1 - (along - 0.7) * 1.6),
  (along) => 0.5 + 0.5 * Math.sin(2 * Math.PI * along + 0.4),
];
/** Half a phrase's range, in semitones. */
const HALF_RANGE: Semitones = 5.5;

/** The pitch each slot is drawn to: a contour for each phrase, around a centre that wanders over the line. */
function contoursOf(slots: readonly PitchSlot[], pitches: readonly Midi[], random: Random): Midi[] {
  const low = elementAt(pitches, 0);
  const high = elementAt(pitches, pitches.length - 1);
  const phrases = [...new Set(slots.map(({ phrase }) => phrase))].map((phrase) =>
    slots.filter((slot) => slot.phrase === phrase),
  );
  const goals: Midi[] = [];
  let previous = -1;
  for (const [number, notes] of phrases.entries()) {
    const first = elementAt(notes, 0).beat;
    const length = Math.max(1, elementAt(notes, notes.length - 1).beat - first);
    const chosen = Math.floor(random() * CONTOURS.length);
    const index = chosen === previous ? (chosen + 1) % CONTOURS.length : chosen;
    previous = index;
    const contour = elementAt(CONTOURS, index);
    // the whole line rises to its highest phrase two thirds of the way along
    const along = phrases.length < 2 ? 0.5 : number / (phrases.length - 1);
    const lift = (along < 0.66 ? along / 0.66 : 1 - (along - 0.66)) - 0.5;
    const half = Math.min(HALF_RANGE, (high - low) / 2);
    const centre = clamp((low + high) / 2 + lift * 5 + (random() - 0.5) * 4, low + half, high - half);
    for (const { beat, between } of notes) {
      const goal = centre + half * (2 * contour((beat - first) / length) - 1);
      goals.push(between ? clamp(goal, between[0] + 1, between[1] - 1) : goal);
    }
  }
  return goals;
}

const clamp = (value: number, low: number, high: number): number =>
  Math.min(Math.max(value, low), Math.max(low, high));

/** Where the ear expects the chord: on beats 1 and 3 of a bar of four, on 1 elsewhere. */
export const isStrongBeat = (beat: Beats, bar: Beats): boolean => {
  const inBar = ((beat % bar) + bar) % bar;
  return inBar < 1e-6 || (bar === 4 && Math.abs(inBar - 2) < 1e-6);
};
