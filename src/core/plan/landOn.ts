import { modulo, type PitchClass, type Semitones } from '../shared';
import { intervalOver, noteName, spellOver, type Chord, type IntervalName } from '../music';

/** The target to aim for at the next change, and the tone of the present chord it is nearest to. */
export type LandOn = {
  readonly pc: PitchClass;
  readonly name: string;
  readonly interval: IntervalName;
  /** Where it is reached from: a tone sounding now, and how far the target lies above it (negative: below). */
  readonly from: { readonly name: string; readonly semitones: Semitones };
};

/**
 * Of the next chord's targets the one reached by the smallest move from a tone of the present chord; a half
 * step before a common
 * tone, since the move is what makes the change heard. Rule T14.5.
 */
export function landOn(present: Chord, next: Chord, targets: readonly PitchClass[]): LandOn | null {
  let best: (LandOn & { cost: number }) | null = null;
  for (const pc of targets)
    for (const tone of present.tones) {
      const semitones = modulo(pc - tone.pc + 6, 12) - 6;
      const cost = semitones === 0 ? 1.5 : Math.abs(semitones);
      if (best && best.cost <= cost) continue;
      best = {
        pc,
        cost,
        name: noteName(spellOver(next, pc)),
        interval: intervalOver(next, pc),
        from: { name: noteName(tone.note), semitones },
      };
    }
  if (!best) return null;
  const { cost: _cost, ...landing } = best;
  return landing;
}
