import { modulo, type PitchClass } from '../shared';

/** A note as written: a letter and how far it is raised. C♯ and D♭ differ here and sound alike. */
export type SpelledNote = { readonly letter: Letter; readonly alter: number };
export type Letter = 'C' | 'D' | 'E' | 'F' | 'G' | 'A' | 'B';

export const LETTERS: readonly Letter[] = ['C', 'D', 'E', 'F', 'G', 'A', 'B'];
/** Semitones of the letters above C, and so of the major scale's degrees above its root. */
export const NATURAL: readonly number[] = [0, 2, 4, 5, 7, 9, 11];

export const letterIndex = (note: SpelledNote): number => LETTERS.indexOf(note.letter);

export const pitchClass = (note: SpelledNote): PitchClass =>
  modulo((NATURAL[letterIndex(note)] ?? 0) + note.alter, 12);

/** One plain name a pitch class, in flats: for notes without a chord or key to be spelled by. */
export const FLAT_NAMES: readonly string[] = [
  'C',
  'Db',
  'D',
  'Eb',
  'E',
  'F',
  'Gb',
  'G',
  'Ab',
  'A',
  'Bb',
  'B',
];

/** Roots and major tonics as they are usually written: fewest accidentals, flats before sharps. Common practice, no source. */
export const USUAL_ROOTS: readonly string[] = FLAT_NAMES.map((name) => (name === 'Gb' ? 'F#' : name));

/** The same in sharps. */
export const SHARP_NAMES: readonly string[] = [
  'C',
  'C#',
  'D',
  'D#',
  'E',
  'F',
  'F#',
  'G',
  'G#',
  'A',
  'A#',
  'B',
];

/**
 * Plain text with ASCII accidentals, as charts are typed: `Bb`, `F##`.
 * @example
 * noteName(unwrap(readChord('Bb7')).root) // 'Bb'
 */
export const noteName = (note: SpelledNote): string =>
  note.letter + (note.alter < 0 ? 'b'.repeat(-note.alter) : '#'.repeat(note.alter));

/**
 * Reads `♭ ♯ 𝄫 𝄪` as the `b # bb ##` they mean, `△ ∆` as `Δ`, `º` as `°`. Lengths may change: for matching,
 * not for places.
 */
export const plainAccidentals = (text: string): string =>
  text.replaceAll('♭', 'b').replaceAll('♯', '#').replaceAll('𝄫', 'bb').replaceAll('𝄪', '##');

/** Reads a note name at the start of a text: a letter A–G and at most two like accidentals. */
export function readNote(text: string): { note: SpelledNote; length: number } | null {
  const found = /^([A-G])((?:b|♭){1,2}|(?:#|♯){1,2}|𝄫|𝄪)?/u.exec(text);
  if (!found) return null;
  const marks = plainAccidentals(found[2] ?? '');
  const alter = marks.startsWith('b') ? -marks.length : marks.length;
  return { note: { letter: found[1] as Letter, alter }, length: found[0].length };
}

/** The note a written distance above another: `steps` letters up, `semitones` in sound. */
export function above(note: SpelledNote, steps: number, semitones: number): SpelledNote {
  const index = letterIndex(note) + steps;
  const letter = LETTERS[modulo(index, 7)] ?? 'C';
  const natural = (NATURAL[modulo(index, 7)] ?? 0) + 12 * Math.floor(index / 7);
  const wanted = (NATURAL[letterIndex(note)] ?? 0) + note.alter + semitones;
  // whole octaves do not change a name: bring the alteration near zero
  const alter = modulo(wanted - natural + 6, 12) - 6;
  return { letter, alter };
}
