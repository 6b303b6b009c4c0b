import { modulo, type Semitones } from '../shared';
import { above, NATURAL, type SpelledNote } from './spelling';

/**
 * A degree above a root as chords and scales write it: number 1–7 (9, 11, 13 fold to 2, 4, 6) and its
 * alteration.
 * `b3` is {number 3, alter −1}.
 */
export type Degree = { readonly number: number; readonly alter: number };

/** Interval as reports print it, one name a semitone (T9.2). */
export type IntervalName = string;

/** Reads `1`, `b3`, `#11`, `♭13`, `bb7`. */
export function readDegree(text: string): Degree | null {
  const found = /^([b♭]{0,2}|[#♯]{0,2})(1[0-3]|[1-9])$/u.exec(text.trim());
  if (!found) return null;
  const marks = found[1] ?? '';
  const number = Number(found[2]);
  return {
    number: number > 7 ? number - 7 : number,
    alter: /[b♭]/u.test(marks) ? -marks.length : marks.length,
  };
}

export const degreeSemitones = (degree: Degree): Semitones =>
  modulo((NATURAL[degree.number - 1] ?? 0) + degree.alter, 12);

export const degreeName = (degree: Degree): string =>
  (degree.alter < 0 ? 'b'.repeat(-degree.alter) : '#'.repeat(degree.alter)) + degree.number;

export const noteAtDegree = (root: SpelledNote, degree: Degree): SpelledNote =>
  above(root, degree.number - 1, (NATURAL[degree.number - 1] ?? 0) + degree.alter);

const PRINTED: readonly IntervalName[] = ['1', 'b9', '9', 'b3', '3', '4', '#11', '5', 'b13', '6', 'b7', '7'];

/** What the printing of an interval needs to know of the chord it stands over. */
export type IntervalContext = {
  readonly majorThird: boolean;
  readonly flatFive: boolean;
  readonly sharpFive: boolean;
};

/**
 * The printed name of a semitone over a chord.
 * Rule T9.2: `#9` where the chord has a major third; `b5` where the chord has it, else `#11`;
 * `#5` where the chord has it, else `b13`; a diminished seventh prints `6`.
 */
export function intervalName(semitones: Semitones, over: IntervalContext): IntervalName {
  const step = modulo(semitones, 12);
  if (step === 3 && over.majorThird) return '#9';
  if (step === 6 && over.flatFive) return 'b5';
  if (step === 8 && over.sharpFive) return '#5';
  return PRINTED[step] ?? '1';
}
