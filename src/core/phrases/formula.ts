import type { Phrase, Report } from '../analyse';
import { soundingAt, type Harmony, type Timeline } from '../chart';
import { toneByRole, type Chord, type ToneRole } from '../music';
import { elementAt, modulo, type Beats, type Midi, type PitchClass, type Semitones } from '../shared';

/** A note so much before a chord belongs to it. */
export const NEAR: Beats = 0.2;

/**
 * A note of a phrase by its place over its chord: the degree (1 to 7), how far it lies from that degree of its
 * own chord or chord-scale, and in which octave over the root that is nearest below the first note.
 */
export type FormulaNote = {
  readonly degree: number;
  readonly alter: Semitones;
  readonly octave: number;
  /** Semitones over the root. An altered degree is this far over any root: a ♭9 stays one over every chord. */
  readonly above?: Semitones;
};

/** A form with its harmony, as formulas are read and written over it. */
export type FormScene = { readonly timeline: Timeline; readonly harmony: Harmony };

const CHORD_DEGREES: Readonly<Record<number, readonly ToneRole[]>> = {
  3: ['third', 'sus'],
  5: ['fifth'],
  7: ['seventh', 'sixth'],
};
/** Where a scale has no seven notes: the second, fourth and sixth of a major scale. */
const MAJOR: Readonly<Record<number, Semitones>> = { 1: 0, 2: 2, 3: 4, 4: 5, 5: 7, 6: 9, 7: 11 };

/** The degrees of a chord, in semitones over its root: its own tones, and its scale's between them. */
export function degreesOf(chord: Chord, scale: readonly PitchClass[]): Semitones[] {
  const root = elementAt(chord.tones, 0).pc;
  const above = scale.map((pc) => modulo(pc - root, 12)).sort((a, b) => a - b);
  return [1, 2, 3, 4, 5, 6, 7].map((degree) => {
    const tone = toneByRole(chord, ...(CHORD_DEGREES[degree] ?? []));
    if (tone) return modulo(tone.pc - root, 12);
    return above.length === 7 && degree > 1 ? elementAt(above, degree - 1) : (MAJOR[degree] ?? 0);
  });
}

function degreesAt(
  scene: FormScene,
  beat: number,
): { readonly root: PitchClass; readonly degrees: Semitones[] } | null {
  const { span } = soundingAt(scene.timeline, beat);
  if (!span.chord) return null;
  const scale = scene.harmony.readings[span.index]?.scale.pcs ?? [];
  return { root: elementAt(span.chord.tones, 0).pc, degrees: degreesOf(span.chord, scale) };
}

/** The highest pitch of a class that is not above another pitch. */
const below = (pc: PitchClass, pitch: Midi): Midi => pitch - modulo(pitch - pc, 12);

/** The line notes of a phrase by degree over the chords they were played over; null where one had no chord. */
export function formulaOf(
  report: Report,
  { noteIndices }: Phrase,
  scene: FormScene,
): readonly FormulaNote[] | null {
  const line = noteIndices
    .map((index) => elementAt(report.notes, index))
    .filter(({ top, function: role }) => top && role !== 'grace');
  return formulaOfNotes(line, scene);
}

/** Notes by degree over the chords they are played over; null where there are none, or one has no chord. */
export function formulaOfNotes(
  line: readonly { readonly onsetBeat: Beats; readonly midi: Midi }[],
  scene: FormScene,
): readonly FormulaNote[] | null {
  const first = line[0];
  if (!first) return null;
  const found: FormulaNote[] = [];
  for (const { onsetBeat, midi } of line) {
    const at = degreesAt(scene, onsetBeat + NEAR);
    if (!at) return null;
    found.push(degreeOf(Math.round(midi), at.root, at.degrees, Math.round(first.midi)));
  }
  return found;
}

/** The degree a pitch is, or lies nearest to: itself first, then a half step below one, then above. */
function degreeOf(midi: Midi, root: PitchClass, degrees: readonly Semitones[], first: Midi): FormulaNote {
  const base = below(root, first);
  const octave = Math.floor((midi - base) / 12);
  const above = modulo(midi - root, 12);
  for (const alter of [0, -1, 1, -2, 2]) {
    const degree = degrees.indexOf(above - alter);
    if (degree >= 0) return { degree: degree + 1, alter, octave, above };
  }
  return { degree: 1, alter: above, octave, above };
}

/** The pitch of a degree over the chord that sounds at a beat; null where none does. */
export function pitchOf(
  { degree, alter, octave, above }: FormulaNote,
  scene: FormScene,
  beat: number,
  root: Midi,
): Midi | null {
  const at = degreesAt(scene, beat);
  if (!at) return null;
  const own = alter !== 0 && above !== undefined ? above : elementAt(at.degrees, degree - 1) + alter;
  return below(at.root, root + 6) + own + 12 * octave;
}

/** Do two notes say the same over their chords: the same degree of each, or the same altered tone? */
export const isSameDegree = (a: FormulaNote, b: FormulaNote): boolean =>
  a.alter !== 0 && a.above !== undefined && b.above !== undefined
    ? a.above === b.above
    : a.degree === b.degree && a.alter === b.alter;

/** The root that sounds at a beat, as near as can be to a pitch; null without a chord. */
export function rootNear(scene: FormScene, beat: number, pitch: Midi): Midi | null {
  const at = degreesAt(scene, beat);
  return at && below(at.root, pitch + 6);
}

/** `1 5 1 3`, with the ninth for the second of the upper octave. */
export const formulaWords = (formula: readonly FormulaNote[]): string =>
  formula
    .map(({ degree, alter, octave }) => {
      const sign = alter < 0 ? '♭'.repeat(-alter) : '♯'.repeat(alter);
      const name = octave > 0 && degree % 2 === 0 ? degree + 7 : degree;
      return `${sign}${name}`;
    })
    .join(' ');
