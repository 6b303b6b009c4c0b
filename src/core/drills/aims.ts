import { toneByRole, type Chord, type ChordTone, type ToneRole } from '../music';
import { elementAt } from '../shared';

/** A tone of the chord that a drill aims at. */
export type Aim = 'root' | 'third' | 'fifth' | 'seventh' | 'chord';

const ROLES: Record<Exclude<Aim, 'root' | 'chord'>, readonly ToneRole[]> = {
  third: ['third', 'sus'],
  fifth: ['fifth'],
  seventh: ['seventh', 'sixth'],
};

/** The tones an aim names over a chord; none where the chord has no such tone. */
export function tonesOver(chord: Chord, aims: readonly Aim[]): ChordTone[] {
  return [
    ...new Set(
      aims.flatMap((aim) => {
        if (aim === 'chord') return chord.tones;
        if (aim === 'root') return elementAt(chord.tones, 0);
        return toneByRole(chord, ...ROLES[aim]) ?? [];
      }),
    ),
  ];
}
export const tonesOf = (chord: Chord, aims: readonly Aim[]): number[] =>
  tonesOver(chord, aims).map(({ pc }) => pc);
