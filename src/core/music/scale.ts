import { accepted, modulo, nearestOf, refused, type Outcome, type PitchClass, defined } from '../shared';
import { degreeName, degreeSemitones, noteAtDegree, readDegree, type Degree } from './interval';
import { noteName, pitchClass, readNote, type SpelledNote } from './spelling';

/** A scale on a root. `name` reads back through `readScale`. */
export type Scale = {
  readonly name: string;
  readonly kind: string;
  readonly root: SpelledNote;
  readonly degrees: readonly Degree[];
  readonly pcs: readonly PitchClass[];
};

/**
 * Degrees of each named scale. Common practice, no source; checked against a general-purpose library in the
 * tests.
 */
const SCALES: Record<string, string> = {
  major: '1 2 3 4 5 6 7',
  dorian: '1 2 b3 4 5 6 b7',
  phrygian: '1 b2 b3 4 5 b6 b7',
  lydian: '1 2 3 #4 5 6 7',
  mixolydian: '1 2 3 4 5 6 b7',
  'natural minor': '1 2 b3 4 5 b6 b7',
  locrian: '1 b2 b3 4 b5 b6 b7',
  'locrian natural 2': '1 2 b3 4 b5 b6 b7',
  'harmonic minor': '1 2 b3 4 5 b6 7',
  'melodic minor': '1 2 b3 4 5 6 7',
  'harmonic major': '1 2 3 4 5 b6 7',
  'lydian augmented': '1 2 3 #4 #5 6 7',
  'lydian dominant': '1 2 3 #4 5 6 b7',
  'mixolydian b6': '1 2 3 4 5 b6 b7',
  'fifth mode of harmonic minor': '1 b2 3 4 5 b6 b7',
  'dorian b2': '1 b2 b3 4 5 6 b7',
  'dorian #4': '1 2 b3 #4 5 6 b7',
  'locrian natural 6': '1 b2 b3 4 b5 6 b7',
  'major #5': '1 2 3 4 #5 6 7',
  'lydian #2': '1 #2 3 #4 5 6 7',
  altered: '1 b2 #2 3 #4 b6 b7',
  'whole tone': '1 2 3 #4 #5 b7',
  'half-whole diminished': '1 b2 #2 3 #4 5 6 b7',
  'whole-half diminished': '1 2 b3 4 b5 b6 6 7',
  'major pentatonic': '1 2 3 5 6',
  'minor pentatonic': '1 b3 4 5 b7',
  blues: '1 b3 4 b5 5 b7',
  'major blues': '1 2 b3 3 5 6',
  'major sixth-diminished': '1 2 3 4 5 b6 6 7',
  'minor sixth-diminished': '1 2 b3 4 5 b6 6 7',
  chromatic: '1 b2 2 b3 3 4 #4 5 b6 6 b7 7',
};

/** Other names the trade uses for the same notes. */
const ALIASES: Record<string, string> = {
  ionian: 'major',
  minor: 'natural minor',
  aeolian: 'natural minor',
  'phrygian dominant': 'fifth mode of harmonic minor',
  'locrian #2': 'locrian natural 2',
  'locrian ♮2': 'locrian natural 2',
  'super locrian': 'altered',
  superlocrian: 'altered',
  'minor blues': 'blues',
  pentatonic: 'major pentatonic',
  'mixolydian flat 6': 'mixolydian b6',
  'lydian b7': 'lydian dominant',
  'jazz minor': 'melodic minor',
  'half-whole': 'half-whole diminished',
  'whole-half': 'whole-half diminished',
  'half whole diminished': 'half-whole diminished',
  'whole half diminished': 'whole-half diminished',
  'dominant diminished': 'half-whole diminished',
  diminished: 'whole-half diminished',
  'sixth-diminished': 'major sixth-diminished',
  'major sixth diminished': 'major sixth-diminished',
  'minor sixth diminished': 'minor sixth-diminished',
  'sixth diminished': 'major sixth-diminished',
  'whole-tone': 'whole tone',
  wholetone: 'whole tone',
  maj: 'major',
  m: 'natural minor',
  min: 'natural minor',
  'lydian #5': 'lydian augmented',
};

export const SCALE_KINDS = Object.keys(SCALES);

/** Builds a named scale on a root; throws on a name that is not in the table. */
export function scaleOn(root: SpelledNote, kind: string): Scale {
  const degrees = SCALES[kind];
  if (!degrees) throw new Error(`no scale named ${kind}`);
  return scaleFromDegrees(root, kind, degrees.split(' ').map(certainDegree));
}

/** A scale given as degrees, in the order given. */
export function scaleFromDegrees(root: SpelledNote, kind: string, degrees: readonly Degree[]): Scale {
  const pcs = degrees.map((degree) => modulo(pitchClass(root) + degreeSemitones(degree), 12));
  return { name: `${noteName(root)} ${kind}`, kind, root, degrees, pcs };
}

const certainDegree = (text: string): Degree => {
  const degree = readDegree(text);
  if (!degree) throw new Error(`not a degree: ${text}`);
  return degree;
};

export const scaleNotes = (scale: Scale): SpelledNote[] =>
  scale.degrees.map((degree) => noteAtDegree(scale.root, degree));

/** Is the scale written with sharps? Then notes of neither chord nor scale are named in sharps too (T3.13). */
export const leansSharp = (scale: Scale): boolean => scaleNotes(scale).some(({ alter }) => alter > 0);

export const inScale = (scale: Scale, pc: PitchClass): boolean => scale.pcs.includes(pc);

/** The scale's tones that lie next to a tone, up and down; null where the tone is not in the scale. */
export function isAdjacentIn(scale: Scale, a: PitchClass, b: PitchClass): boolean {
  const { places, size } = ladderOf(scale);
  const from = defined(places[a]);
  const to = defined(places[b]);
  if (a === b || from < 0 || to < 0) return false;
  const apart = Math.abs(from - to);
  return apart === 1 || apart === size - 1;
}

const ladders = new WeakMap<Scale, { readonly places: readonly number[]; readonly size: number }>();

/** The place of each pitch class on a scale's ladder from C up, −1 where it has none. */
export function ladderOf(scale: Scale): { readonly places: readonly number[]; readonly size: number } {
  const known = ladders.get(scale);
  if (known) return known;
  const sorted = [...new Set(scale.pcs)].sort((a, b) => a - b);
  const made = { places: Array.from({ length: 12 }, (_, pc) => sorted.indexOf(pc)), size: sorted.length };
  ladders.set(scale, made);
  return made;
}

/**
 * Reads `F melodic minor`, `Bb blues scale`, `fifth mode of C harmonic minor`, `A 1 b3 4 5 6`.
 * @returns the scale on its sounding root, or a problem with the nearest name
 * @example
 * unwrap(readScale('E minor pentatonic')).pcs // [4, 7, 9, 11, 2]
 * unwrap(readScale('A 1 b3 4 5 6')).pcs // [9, 0, 2, 4, 6]
 */
export function readScale(text: string): Outcome<Scale> {
  const trimmed = text.trim();
  const mode = /^(?:the )?fifth mode of (?:the )?([A-G]\S*) harmonic minor(?: scale)?$/iu.exec(trimmed);
  if (mode?.[1]) {
    const tonic = readNote(mode[1]);
    if (tonic)
      return accepted(
        scaleOn(noteAtDegree(tonic.note, { number: 5, alter: 0 }), 'fifth mode of harmonic minor'),
      );
  }
  const root = readNote(trimmed.charAt(0).toUpperCase() + trimmed.slice(1));
  if (!root)
    return refused({
      code: 'scale.root',
      message: `“${text}” does not start with a note name A to G.`,
      column: 1,
      suggestion: 'C major',
    });
  const rest = trimmed.slice(root.length).trim();
  if (/^[b♭#♯]*\d/u.test(rest)) return byDegrees(root.note, rest, text.indexOf(rest));
  const word = rest
    .toLowerCase()
    .replaceAll('♭', 'b')
    .replaceAll('♯', '#')
    .replace(/\s+scale$/, '')
    .replace(/\s+/g, ' ');
  const kind = SCALES[word] ? word : ALIASES[word];
  if (!kind) {
    const nearest = nearestOf(word, [...SCALE_KINDS, ...Object.keys(ALIASES)]) ?? 'major';
    return refused({
      code: 'scale.unknown',
      message: rest === '' ? `“${text}” names a root and no scale.` : `No scale is named “${rest}”.`,
      column: trimmed.length - rest.length + 1,
      suggestion: `${noteName(root.note)} ${rest === '' ? 'major' : nearest}`,
    });
  }
  return accepted(scaleOn(root.note, kind));
}

function byDegrees(root: SpelledNote, text: string, offset: number): Outcome<Scale> {
  const degrees: Degree[] = [];
  for (const found of text.matchAll(/\S+/g)) {
    const degree = readDegree(found[0]);
    if (!degree)
      return refused({
        code: 'scale.degree',
        message: `“${found[0]}” is not a degree from 1 to 13.`,
        column: offset + found.index + 1,
        suggestion: 'C 1 b3 4 5 6',
      });
    degrees.push(degree);
  }
  return accepted(scaleFromDegrees(root, degrees.map(degreeName).join(' '), degrees));
}
