import { toneByRole, type Chord, type ChordTone, type ToneRole } from '../music';
import { elementAt, type PitchClass } from '../shared';

/** A tone of the chord that a drill aims at. */
export type Aim = 'root' | 'third' | 'fifth' | 'seventh' | 'sixth' | 'ninth' | 'fourth' | 'chord';

/** As they are said in a rule. */
export const AIM_NAMES: Readonly<Record<Aim, string>> = {
  root: 'the root',
  third: 'the third',
  fifth: 'the fifth',
  seventh: 'the seventh',
  sixth: 'the sixth',
  ninth: 'the ninth',
  fourth: 'the fourth',
  chord: 'a chord tone',
};

/** Tones that most chords do not hold, in semitones over the root: the sixth, the ninth and the fourth of the scale. */
const ADDED: Readonly<Partial<Record<Aim, number>>> = { sixth: 9, ninth: 2, fourth: 5 };

const ROLES: Readonly<Partial<Record<Aim, readonly ToneRole[]>>> = {
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
        return toneByRole(chord, ...(ROLES[aim] ?? [])) ?? [];
      }),
    ),
  ];
}
/** Their pitch classes, the added tones among them. */
export const tonesOf = (chord: Chord, aims: readonly Aim[]): PitchClass[] => [
  ...new Set([
    ...tonesOver(chord, aims).map(({ pc }) => pc),
    ...aims.flatMap((aim) => {
      const above = ADDED[aim];
      return above === undefined ? [] : [(elementAt(chord.tones, 0).pc + above) % 12];
    }),
  ]),
];
