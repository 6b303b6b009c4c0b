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
  if (slots.length === 0) return [];
  const random = seededRandom(seed * 7919 + 17);
  const centre = pitches.reduce((sum, midi) => sum + midi, 0) / Math.max(1, pitches.length);
  let costs: ReadonlyMap<Midi, number> | null = null;
  const back: ReadonlyMap<Midi, Midi>[] = [];
  for (const slot of slots) {
    const own = new Map(
      pitches
        .filter((midi) => isOpen(slot, midi))
        .map((midi) => [midi, pitchCost(slot, midi, centre) + random() * 0.9]),
    );
    const reached: Reached =
      costs === null ? { costs: own, from: new Map<Midi, Midi>() } : reach(slot, own, costs);
    if (reached.costs.size === 0) return null;
    back.push(reached.from);
    costs = reached.costs;
  }
  return costs && lineBack(slots, costs, back);
}

const pcOf = (midi: Midi): number => ((midi % 12) + 12) % 12;

const isOpen = ({ pcs, between }: Slot, midi: Midi): boolean =>
  pcs.includes(pcOf(midi)) && (!between || (midi >= between[0] && midi <= between[1]));

const pitchCost = ({ liked }: Slot, midi: Midi, centre: number): number =>
  Math.abs(midi - centre) * COST.centre + (liked && !liked.includes(pcOf(midi)) ? COST.unliked : 0);

/** What it costs to reach each pitch, and from where. */
type Reached = { readonly costs: Map<Midi, number>; readonly from: Map<Midi, Midi> };

/** The cheapest way to each pitch of a slot from those of the slot before it. */
function reach({ steps }: Slot, own: ReadonlyMap<Midi, number>, before: ReadonlyMap<Midi, number>): Reached {
  const costs = new Map<Midi, number>();
  const from = new Map<Midi, Midi>();
  for (const [midi, price] of own)
    for (const [last, cost] of before) {
      if (steps && !steps.includes(midi - last)) continue;
      const total = cost + price + moveCost(Math.abs(midi - last));
      if (total >= (costs.get(midi) ?? Infinity)) continue;
      costs.set(midi, total);
      from.set(midi, last);
    }
  return { costs, from };
}

/** The cheapest line, read from its end. */
function lineBack(
  slots: readonly Slot[],
  costs: ReadonlyMap<Midi, number>,
  back: readonly ReadonlyMap<Midi, Midi>[],
): PlayedNote[] {
  let [midi] = [...costs].reduce((best, one) => (one[1] < best[1] ? one : best));
  const line: PlayedNote[] = [];
  for (let index = slots.length - 1; index >= 0; index--) {
    const { beat, duration } = elementAt(slots, index);
    line.unshift({ onsetBeat: beat, durationBeats: duration, midi });
    midi = elementAt(back, index).get(midi) ?? midi;
  }
  return line;
}

const moveCost = (size: number): number => {
  if (size === 0) return COST.repeat;
  if (size <= 2) return 0;
  return (size - 2) * COST.beyondStep + (size >= LEAP ? COST.leap : 0);
};
