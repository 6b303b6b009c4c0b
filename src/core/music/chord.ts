import { modulo, type PitchClass, type Semitones } from '../shared';
import {
  degreeName,
  degreeSemitones,
  intervalName,
  noteAtDegree,
  type Degree,
  type IntervalName,
} from './interval';
import { noteName, pitchClass, type SpelledNote } from './spelling';

/** The family a chord belongs to; the chord-scale table (T3.4, T3.5) has a row for each. */
export type Quality =
  | 'major'
  | 'minor'
  | 'dominant'
  | 'sus'
  | 'half-diminished'
  | 'diminished-seventh'
  | 'diminished'
  | 'augmented'
  | 'minor-major'
  | 'power';

/** The part a tone plays in its chord. */
export type ToneRole = 'root' | 'third' | 'sus' | 'fifth' | 'sixth' | 'seventh' | 'bass' | 'tension';

/** One tone of a chord: where it stands above the root and how it is spelled. */
export type ChordTone = {
  readonly role: ToneRole;
  readonly semitones: Semitones;
  /** As reports print it, but a diminished seventh keeps `bb7`. */
  readonly interval: IntervalName;
  readonly pc: PitchClass;
  readonly note: SpelledNote;
};

/** A chord as it is to be heard: after the readings of T2.2 (`11` as 9sus, m7 over its fourth as 9sus). */
export type Chord = {
  /** As the chart writes it. */
  readonly symbol: string;
  readonly quality: Quality;
  readonly root: SpelledNote;
  readonly bass: SpelledNote;
  /** Chord tones: 1, 3 or sus, 5, and 6 or 7 where written, and a foreign bass. */
  readonly tones: readonly ChordTone[];
  /** Tensions the symbol names. */
  readonly colours: readonly ChordTone[];
  /** `alt` was written. */
  readonly altered: boolean;
};

export function chordTone(root: SpelledNote, role: ToneRole, degree: Degree): ChordTone {
  const semitones = degreeSemitones(degree);
  const note = noteAtDegree(root, degree);
  return { role, semitones, interval: printed(role, degree), pc: pitchClass(note), note };
}

/**
 * Chord tones and tensions print by the report's names, spelled as written: `b3` of a minor chord, `#9` of an
 * altered one.
 */
function printed(role: ToneRole, degree: Degree): IntervalName {
  const name = degreeName(degree);
  if (name === 'bb7') return name;
  if (role === 'tension' && degree.number === 2 && degree.alter > 0) return '#9';
  return intervalName(degreeSemitones(degree), {
    majorThird: false,
    flatFive: degree.number === 5,
    sharpFive: degree.number === 5,
  });
}

export const rootPc = (chord: Chord): PitchClass => pitchClass(chord.root);

export const toneByRole = (chord: Chord, ...roles: ToneRole[]): ChordTone | undefined =>
  chord.tones.find((tone) => roles.includes(tone.role));

export const hasTone = (chord: Chord, pc: PitchClass): boolean => chord.tones.some((tone) => tone.pc === pc);

export const hasColour = (chord: Chord, pc: PitchClass): boolean =>
  chord.colours.some((tone) => tone.pc === pc);

/** The fifth as the symbol alters it: `-1`, `0` or `1` against the perfect fifth; null without one. */
export function fifthOf(chord: Chord): number | null {
  const fifth = toneByRole(chord, 'fifth');
  return fifth ? fifth.semitones - 7 : null;
}

/**
 * The printed name of a pitch class over a chord (T9.2).
 * @example
 * intervalOver(unwrap(readChord('G7')), 11) // '3'
 * intervalOver(unwrap(readChord('G7')), 8) // 'b9'
 */
export function intervalOver(chord: Chord, pc: PitchClass): IntervalName {
  const has = (role: ToneRole, semitones: number) =>
    chord.tones.some((t) => t.role === role && t.semitones === semitones);
  return intervalName(pc - rootPc(chord), {
    majorThird: has('third', 4),
    flatFive: has('fifth', 6),
    sharpFive: has('fifth', 8),
  });
}

/**
 * How a pitch class is spelled over a chord: the chord's own tone where it is one, else by the printed
 * interval.
 */
export function spellOver(chord: Chord, pc: PitchClass): SpelledNote {
  const own = [...chord.tones, ...chord.colours].find((tone) => tone.pc === pc);
  if (own) return own.note;
  const BY_NAME: Record<string, Degree> = {
    '1': { number: 1, alter: 0 },
    b9: { number: 2, alter: -1 },
    '9': { number: 2, alter: 0 },
    '#9': { number: 2, alter: 1 },
    b3: { number: 3, alter: -1 },
    '3': { number: 3, alter: 0 },
    '4': { number: 4, alter: 0 },
    '#11': { number: 4, alter: 1 },
    b5: { number: 5, alter: -1 },
    '5': { number: 5, alter: 0 },
    '#5': { number: 5, alter: 1 },
    b13: { number: 6, alter: -1 },
    '6': { number: 6, alter: 0 },
    b7: { number: 7, alter: -1 },
    '7': { number: 7, alter: 0 },
  };
  return noteAtDegree(chord.root, BY_NAME[intervalOver(chord, pc)] ?? { number: 1, alter: 0 });
}

/**
 * The guide tones: what tells the ear which chord it is.
 * Rule T2.3: third and seventh; third and sixth on sixth chords; third on triads; sus note and seventh on
 * sus; third, ♭5 and seventh on half-diminished; root and fifth on power chords.
 */
export function guideTones(chord: Chord): readonly ChordTone[] {
  const of = (...roles: ToneRole[]) => chord.tones.filter((tone) => roles.includes(tone.role));
  if (chord.quality === 'power') return of('root', 'fifth');
  if (chord.quality === 'half-diminished') return of('third', 'fifth', 'seventh');
  return of('third', 'sus', 'sixth', 'seventh');
}

/** Sounds a dominant: a major third or sus note under a minor seventh. */
export const isDominant = (chord: Chord): boolean =>
  chord.quality === 'dominant' || (chord.quality === 'sus' && toneByRole(chord, 'seventh') !== undefined);

/** Has a minor third: written lower case as a degree. */
export const isMinorish = (chord: Chord): boolean => toneByRole(chord, 'third')?.semitones === 3;

/**
 * Roots and tones compared after the readings; a foreign bass is left aside (T2.7: it is no change but a thin
 * mark).
 */
export function isChange(from: Chord, to: Chord): boolean {
  if (rootPc(from) !== rootPc(to)) return true;
  const tones = (chord: Chord) =>
    new Set(chord.tones.filter((tone) => tone.role !== 'bass').map((tone) => tone.pc));
  const [a, b] = [tones(from), tones(to)];
  const inside = (x: Set<number>, y: Set<number>) => [...x].every((pc) => y.has(pc));
  return !inside(a, b) && !inside(b, a);
}

/** For tests and messages: the chord's tones as names. */
export const toneNames = (chord: Chord): string[] => chord.tones.map((tone) => noteName(tone.note));

export const semitonesAboveRoot = (chord: Chord, pc: PitchClass): Semitones => modulo(pc - rootPc(chord), 12);

/** Pitch classes once each, from the chord's root up. */
export const fromRoot = (chord: Chord, pcs: Iterable<PitchClass>): PitchClass[] => {
  const root = rootPc(chord);
  return [...new Set(pcs)].sort((a, b) => modulo(a - root, 12) - modulo(b - root, 12));
};
