import type { Timeline } from '../chart';
import { fromRoot, type Chord } from '../music';
import { scaleShapes, shapeNear, STANDARD_INSTRUMENT, type Instrument, type ScaleShape } from '../neck';
import { elementAt } from '../shared';
import type { HandAsked } from './handWords';
import { cellAt, type Plan, type PlanCell } from './plan';

/** Where the hand of a player lies who has not been told: the middle of the neck. */
const AT_FIRST = 5;

/**
 * The fret under the index finger over each chord of a chorus; null where the plan leaves the hand free.
 * Rule T15.5: a shape is the one of the plan's material on the chord's root, where it lies nearest to the hand
 * before.
 * @param chorus from 0
 * @returns one for each stretch of the form
 */
export function handsOf(
  plan: Plan,
  timeline: Timeline,
  chorus = 0,
  instrument: Instrument = STANDARD_INSTRUMENT,
): (number | null)[] {
  let before = AT_FIRST;
  return timeline.chordSpans.map(({ chord, index }) => {
    const cell = cellAt(plan, index, chorus);
    const at = cell.hand && chord ? handAt(cell.hand, cell, chord, before, instrument) : null;
    if (at !== null) before = at;
    return at;
  });
}

function handAt(
  hand: HandAsked,
  { material }: PlanCell,
  chord: Chord,
  before: number,
  instrument: Instrument,
): number | null {
  if (hand.kind === 'fret') return hand.fret;
  const shapes = scaleShapes(fromRoot(chord, material), { instrument })
    .filter(({ number }) => hand.kind === 'nearest' || number === hand.number)
    .map((shape) => handUnder(shapeNear(shape, before, instrument)));
  if (shapes.length === 0) return null;
  return shapes.reduce((near, one) => (Math.abs(one - before) < Math.abs(near - before) ? one : near));
}

const handUnder = ({ run }: ScaleShape): number => Math.max(1, elementAt(run.touches, 0).hand);
