import type { Report } from '../analyse';
import { soundingAt, type Timeline } from '../chart';
import { reachFrom, type Instrument } from '../neck';
import { handsOf, type Plan } from '../plan';
import { elementAt } from '../shared';

/** How a take keeps to the places of the hand its plan names, as far as pitches can tell (T15.5). */
export type HandCheck = {
  /** Notes over chords for which the plan names a place. */
  readonly notes: number;
  /** Of them, those whose place the player has said. */
  readonly said: number;
  /** Those of them that cannot be played there, by their index in the report. */
  readonly outside: readonly number[];
  /** Bars of the form in which they lie, from 1. */
  readonly bars: readonly number[];
};

/**
 * Holds the pitches of a take against the places of the hand in its plan, and what the player says of where they
 * were played. An open string can always be played.
 * @returns null where the plan leaves the hand free
 */
export function handCheck(
  report: Report,
  timeline: Timeline,
  plan: Plan,
  instrument: Instrument,
): HandCheck | null {
  const byChorus = new Map<number, readonly (number | null)[]>();
  const handIn = (chorus: number, index: number): number | null => {
    let hands = byChorus.get(chorus);
    if (!hands) byChorus.set(chorus, (hands = handsOf(plan, timeline, chorus, instrument)));
    return elementAt(hands, index);
  };
  const outside: number[] = [];
  const bars = new Set<number>();
  let [notes, said] = [0, 0];
  for (const { index, onsetBeat, midi, position } of report.notes) {
    if (onsetBeat < 0) continue;
    const { span, chorus } = soundingAt(timeline, onsetBeat);
    const hand = handIn(chorus, span.index);
    if (hand === null) continue;
    notes++;
    if (position !== undefined) said++;
    const isThere = position === undefined || Math.abs(position - hand) <= 1;
    if (isThere && isUnderHand(Math.round(midi), hand, instrument)) continue;
    outside.push(index);
    bars.add(span.bar + 1);
  }
  return notes === 0 ? null : { notes, said, outside, bars: [...bars].sort((a, b) => a - b) };
}

function isUnderHand(midi: number, hand: number, { tuning, frets }: Instrument): boolean {
  const last = Math.min(frets, hand + reachFrom(hand) - 1);
  // the index may reach one fret back
  return tuning.some(
    (open) => midi === open || (midi - open >= Math.max(1, hand - 1) && midi - open <= last),
  );
}
