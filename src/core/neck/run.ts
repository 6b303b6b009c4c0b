import { elementAt, present, type Midi } from '../shared';
import type { Tuning } from './fretboard';

/** A note of a run under the hand: string 1 is the highest, finger 1 the index. */
export type RunTouch = {
  readonly string: number;
  readonly fret: number;
  readonly finger: number;
  readonly midi: Midi;
  /** The fret where the index lies unless it reaches back. */
  readonly hand: number;
};

export type Run = {
  readonly touches: readonly RunTouch[];
  /** Indices of the notes before which the hand moves. */
  readonly shifts: readonly number[];
  /** Notes that the index or the little finger reaches out for. */
  readonly reaches: number;
};

export type RunOptions = {
  readonly tuning: Tuning;
  /** Where the first note lies. */
  readonly string: number;
  readonly finger?: number;
  /** Exactly so many notes on each string, the last one aside. */
  readonly perString?: number;
  /** No string above this one (by number: not below it); 1 where nothing is said. */
  readonly highestString?: number;
  /** False: four frets a hand, which moves rather than reach. */
  readonly reach?: boolean;
  /** False: the hand stays where it begins. */
  readonly shift?: boolean;
  /** The lowest and the highest fret that may be used; any where nothing is said. */
  readonly within?: readonly [lowest: number, highest: number];
};

/** How far from the index each finger plays: first without reaching, then reaching. */
const FINGERS: readonly { readonly from: number; readonly finger: number; readonly reach: number }[] = [
  { from: 0, finger: 1, reach: 0 },
  { from: 1, finger: 2, reach: 0 },
  { from: 2, finger: 3, reach: 0 },
  { from: 3, finger: 4, reach: 0 },
  // the index reaches back a little more easily than the little finger reaches up
  { from: -1, finger: 1, reach: 0.9 },
  { from: 4, finger: 4, reach: 1 },
];

/**
 * Our own weights: a move is dearer than two reaches, a skipped string than one; a hand moves between strings
 * rather than along one, and there with the index.
 */
const COST = { shift: 2.5, shiftPerFret: 0.2, alongString: 1.5, notIndex: 0.5, skip: 1.5 };

type State = {
  readonly touch: RunTouch;
  readonly reaches: number;
  readonly count: number;
  readonly cost: number;
  readonly from: State | null;
};

/**
 * A run upwards as a hand plays it (T15.4): no open string, no string twice once it is left, no finger on two
 * frets in a row; the index at the lowest fret of the hand. Frets may be below 1: a run is a pattern, which is
 * moved to where it fits (`moved`). Dynamic programming over strings, hands and fingers.
 * @param pitches from the lowest up
 * @returns null where no hand plays it under these conditions
 */
export function layRun(pitches: readonly Midi[], options: RunOptions): Run | null {
  let states: readonly State[] = [];
  for (const [index, midi] of pitches.entries()) {
    states = index === 0 ? startsOf(midi, options) : cheapest(statesAfter(states, midi, options));
    if (states.length === 0) return null;
  }
  const best = states.reduce<State | null>(
    (least, one) => (least === null || one.cost < least.cost ? one : least),
    null,
  );
  if (!best) return null;
  const path: State[] = [];
  for (let state: State | null = best; state; state = state.from) path.unshift(state);
  const touches = path.map(({ touch }) => touch);
  return {
    touches,
    shifts: touches.flatMap(({ hand }, index) =>
      index > 0 && hand !== elementAt(touches, index - 1).hand ? [index] : [],
    ),
    reaches: best.reaches,
  };
}

/** The ways to play a pitch on a string: a finger for each place of the hand. */
function touchesOn(midi: Midi, string: number, { tuning, within, reach = true }: RunOptions) {
  const fret = midi - elementAt(tuning, string - 1);
  if (within && (fret < within[0] || fret > within[1])) return [];
  return FINGERS.filter((one) => reach || one.reach === 0).map((one) => ({
    touch: { string, fret, finger: one.finger, midi, hand: fret - one.from },
    reaching: one.reach,
  }));
}

const startsOf = (midi: Midi, options: RunOptions): State[] =>
  touchesOn(midi, options.string, options)
    .filter(({ touch, reaching }) => reaching === 0 && (options.finger ?? touch.finger) === touch.finger)
    .map(({ touch }) => ({ touch, reaches: 0, count: 1, cost: 0.01 * touch.finger, from: null }));

function statesAfter(states: readonly State[], midi: Midi, options: RunOptions): State[] {
  const { perString, highestString = 1 } = options;
  const after: State[] = [];
  for (let string = options.string; string >= highestString; string--)
    for (const { touch, reaching } of touchesOn(midi, string, options))
      for (const from of states) {
        if (!canFollow(from, touch, options)) continue;
        const crossed = from.touch.string - string;
        const moves = touch.hand - from.touch.hand;
        after.push({
          touch,
          reaches: from.reaches + (reaching > 0 ? 1 : 0),
          count: perString !== undefined && crossed === 0 ? from.count + 1 : 1,
          cost:
            from.cost +
            reaching +
            (moves === 0 ? 0 : shiftCost(moves, crossed === 0, touch.finger)) +
            COST.skip * Math.max(0, crossed - 1),
          from,
        });
      }
  return after;
}

/** No way back to a string, no more notes on one than asked, no finger on another fret unless it is its turn. */
function canFollow(from: State, touch: RunTouch, { perString, shift = true }: RunOptions): boolean {
  const crossed = from.touch.string - touch.string;
  if (crossed < 0 || (perString !== undefined && !keepsCount(from, crossed, perString))) return false;
  if (touch.hand !== from.touch.hand && !shift) return false;
  return touch.finger !== from.touch.finger || touch.fret === from.touch.fret;
}

const shiftCost = (frets: number, isAlong: boolean, finger: number): number =>
  COST.shift +
  COST.shiftPerFret * Math.abs(frets) +
  (isAlong ? COST.alongString + COST.notIndex * (finger - 1) : 0);

const keepsCount = ({ count }: State, crossed: number, perString: number): boolean =>
  count < perString ? crossed === 0 : crossed === 1;

/** Of states that cannot be told apart by what follows, the cheapest. */
function cheapest(states: readonly State[]): State[] {
  const best = new Map<string, State>();
  for (const state of states) {
    const { string, hand, finger } = state.touch;
    const key = `${string} ${hand} ${finger} ${state.count}`;
    const known = best.get(key);
    if (!known || state.cost < known.cost) best.set(key, state);
  }
  return [...best.values()];
}

/** The same pattern so many frets up: strings and fingers stay. */
export const moved = (run: Run, frets: number): Run => ({
  ...run,
  touches: run.touches.map((touch) => ({
    ...touch,
    fret: touch.fret + frets,
    hand: touch.hand + frets,
    midi: touch.midi + frets,
  })),
});

/** Lowest and highest fret of a run. */
export function fretsOf({ touches }: Run): readonly [number, number] {
  const frets = touches.map(({ fret }) => fret);
  return [present(frets.reduce((a, b) => Math.min(a, b))), frets.reduce((a, b) => Math.max(a, b))];
}
