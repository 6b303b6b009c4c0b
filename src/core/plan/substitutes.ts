import { modulo } from '../shared';
import {
  isDominant,
  isMinorish,
  noteAtDegree,
  noteName,
  plainNote,
  readDegree,
  rootPc,
  toneByRole,
  type Chord,
} from '../music';
import type { Harmony } from '../chart';

/** Why a chord may be laid over another: data, worded where it is shown. */
export type SubstituteKind =
  | 'tritone'
  | 'side-slip-up'
  | 'side-slip-down'
  | 'related-two'
  | 'two-five-inserted'
  | 'relative'
  | 'third-related'
  | 'flat-three-triad'
  | 'four-triad'
  | 'flat-seven-triad'
  | 'sharp-eleven-triad'
  | 'minor-on-five'
  | 'altered-minor'
  | 'diminished'
  | 'back-door';

/** Chords to lay over one written chord, in order; the last one stands to its end. */
export type Substitute = { readonly kind: SubstituteKind; readonly chords: readonly string[] };

type Context = { readonly chord: Chord; readonly next: Chord };
type Rule = (context: Context) => readonly Substitute[];

/** Roots as players write them. */
const EASY: Readonly<Partial<Record<string, string>>> = { Cb: 'B', Fb: 'E', 'E#': 'F', 'B#': 'C' };

/** A chord symbol so many degrees above a root, its name without double accidentals. */
const on = (chord: Chord, degree: string, quality: string): string => {
  const read = readDegree(degree);
  const root = noteName(plainNote(noteAtDegree(chord.root, read ?? { number: 1, alter: 0 })));
  return `${EASY[root] ?? root}${quality}`;
};

const isMinorSeventh = (chord: Chord): boolean =>
  chord.quality === 'minor' && toneByRole(chord, 'seventh') !== undefined;

/** The standard substitutes. Common practice, no source. */
const RULES: readonly Rule[] = [
  ({ chord }) =>
    isDominant(chord) && chord.quality === 'dominant'
      ? [
          { kind: 'tritone', chords: [on(chord, 'b5', '7')] },
          { kind: 'related-two', chords: [on(chord, '5', 'm7'), chord.symbol] },
          { kind: 'minor-on-five', chords: [on(chord, '5', 'm7')] },
          { kind: 'altered-minor', chords: [on(chord, 'b2', 'mMaj7')] },
          { kind: 'diminished', chords: [on(chord, '3', 'dim7')] },
          { kind: 'sharp-eleven-triad', chords: [on(chord, '2', '')] },
          { kind: 'flat-seven-triad', chords: [on(chord, 'b7', '')] },
        ]
      : [],
  ({ chord }) =>
    chord.quality === 'major'
      ? [
          { kind: 'relative', chords: [on(chord, '6', 'm7')] },
          { kind: 'third-related', chords: [on(chord, '3', 'm7')] },
          { kind: 'sharp-eleven-triad', chords: [on(chord, '2', '')] },
          { kind: 'two-five-inserted', chords: [on(chord, '2', 'm7'), on(chord, '5', '7'), chord.symbol] },
          { kind: 'back-door', chords: [on(chord, '4', 'm7'), on(chord, 'b7', '7'), chord.symbol] },
        ]
      : [],
  ({ chord }) =>
    isMinorSeventh(chord)
      ? [
          { kind: 'relative', chords: [on(chord, 'b3', 'maj7')] },
          { kind: 'flat-three-triad', chords: [on(chord, 'b3', '')] },
          { kind: 'four-triad', chords: [on(chord, '4', '')] },
          { kind: 'flat-seven-triad', chords: [on(chord, 'b7', '')] },
          { kind: 'two-five-inserted', chords: [on(chord, '2', 'm7b5'), on(chord, '5', '7'), chord.symbol] },
        ]
      : [],
  ({ chord }) => [
    { kind: 'side-slip-up', chords: [on(chord, 'b2', ownQuality(chord)), chord.symbol] },
    { kind: 'side-slip-down', chords: [on(chord, '7', ownQuality(chord)), chord.symbol] },
  ],
];

/** The chord's symbol without its root, a foreign bass left aside. */
const ownQuality = (chord: Chord): string =>
  chord.symbol.replace(/^[A-G](?:bb?|##?)?/, '').replace(/\/.*$/, '');

/**
 * What may be laid over a chord of the form, the most common first. A tritone substitute is offered only where the
 * dominant falls a fifth: elsewhere it leads nowhere.
 * @param index the chord's place among the form's chords
 */
export function substitutesFor(harmony: Harmony, index: number): readonly Substitute[] {
  const reading = harmony.readings[index];
  if (!reading) return [];
  const { chord } = reading;
  const next = nextChord(harmony, index) ?? chord;
  const falls = modulo(rootPc(next) - rootPc(chord), 12) === 5;
  return RULES.flatMap((rule) => rule({ chord, next })).filter(
    ({ kind }) =>
      (kind !== 'tritone' && kind !== 'altered-minor' && kind !== 'diminished') ||
      falls ||
      (kind === 'altered-minor' && isMinorish(next)),
  );
}

function nextChord(harmony: Harmony, index: number): Chord | null {
  const own = harmony.readings[index]?.chord;
  for (let step = 1; own && step < harmony.readings.length; step++) {
    const other = harmony.readings[(index + step) % harmony.readings.length]?.chord;
    if (other && rootPc(other) !== rootPc(own)) return other;
  }
  return null;
}
