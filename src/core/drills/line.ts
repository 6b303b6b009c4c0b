import type { PlayedNote } from '../analyse';
import { seededRandom, type Beats, type Midi, type Semitones, elementAt } from '../shared';

/**
 * A place in a line that is to be filled: which pitches it may have, and how far it may lie from the note
 * before.
 */
export type Slot = {
  readonly beat: Beats;
  readonly duration: Beats;
  /** Pitch classes it may have; the first ones are liked better where `liked` says so. */
  readonly pcs: readonly number[];
  /** Its distance from the note before it, in semitones up; free where it is not said. */
  readonly steps?: readonly Semitones[];
  readonly liked?: readonly number[];
  /** The lowest and the highest pitch it may have. */
  readonly between?: readonly [Midi, Midi];
};

const COST = { repeat: 2.2, beyondStep: 0.55, leap: 1.6, centre: 0.03, unliked: 0.8, turn: 0.12 };
const LEAP = 5;

/**
 * The cheapest line through slots (dynamic programming over pitches, Viterbi 1967): steps before skips,
 * skips before leaps, near the middle
 * of its range. A seed varies it: small random costs break ties another way.
 * @param pitches the line may use, in order
 * @returns null where no line fits
 */
export function lineThrough(
  slots: readonly Slot[],
  pitches: readonly Midi[],
  seed: number,
): PlayedNote[] | null {
  const random = seededRandom(seed * 7919 + 17);
  const centre = pitches.reduce((sum, midi) => sum + midi, 0) / Math.max(1, pitches.length);
  let costs = new Map<Midi, number>();
  const back: Map<Midi, Midi>[] = [];
  for (const [index, slot] of slots.entries()) {
    const next = new Map<Midi, number>();
    const from = new Map<Midi, Midi>();
    for (const midi of pitches) {
      if (
        !slot.pcs.includes(((midi % 12) + 12) % 12) ||
        (slot.between && (midi < slot.between[0] || midi > slot.between[1]))
      )
        continue;
      const own =
        Math.abs(midi - centre) * COST.centre +
        (slot.liked && !slot.liked.includes(((midi % 12) + 12) % 12) ? COST.unliked : 0) +
        random() * 0.9;
      if (index === 0) {
        next.set(midi, own);
        continue;
      }
      for (const [before, cost] of costs) {
        const step = midi - before;
        if (slot.steps && !slot.steps.includes(step)) continue;
        const total = cost + own + moveCost(Math.abs(step));
        if (total < (next.get(midi) ?? Infinity)) {
          next.set(midi, total);
          from.set(midi, before);
        }
      }
    }
    if (next.size === 0) return null;
    back.push(from);
    costs = next;
  }
  if (slots.length === 0) return [];
  let midi = [...costs].reduce((best, one) => (one[1] < best[1] ? one : best))[0];
  const line: PlayedNote[] = [];
  for (let index = slots.length - 1; index >= 0; index--) {
    line.unshift({
      onsetBeat: elementAt(slots, index).beat,
      durationBeats: elementAt(slots, index).duration,
      midi,
    });
    midi = elementAt(back, index).get(midi) ?? midi;
  }
  return line;
}

const moveCost = (size: number): number => {
  if (size === 0) return COST.repeat;
  if (size <= 2) return 0;
  return (size - 2) * COST.beyondStep + (size >= LEAP ? COST.leap : 0);
};
