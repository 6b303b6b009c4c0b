import { modulo } from '../shared';
import {
  degreeName,
  degreeSemitones,
  fifthOf,
  hasColour,
  isDominant,
  isMinorish,
  letterIndex,
  pitchClass,
  rootPc,
  SCALE_KINDS,
  scaleFromDegrees,
  scaleNotes,
  scaleOn,
  toneByRole,
  type Chord,
  type Degree,
  type Scale,
  type SpelledNote,
} from '../music';
import { fallsAFifth, isBareMajor, restsInBlues, stepInKey } from './degree';
import { hasMajorFour, holdsFlatTwo, isBareVamp, type HarmonicReadingContext } from './context';

/**
 * The chord-scale by function: T3.4 to T3.6, row by row from the most particular to the fallback.
 * @returns a scale on the chord's root
 */
export function chordScale(context: HarmonicReadingContext, degree: string): Scale {
  const kind =
    byAlteration(context.chord) ??
    bySubstance(context.chord) ??
    (isDominant(context.chord) || servesAsDominant(context, degree) ? dominantRow(context, degree) : null) ??
    (context.chord.quality === 'major' ? majorRow(context) : null) ??
    (context.chord.quality === 'minor' ? minorRow(context) : null);
  return kind ? scaleOn(context.chord.root, kind) : fallback(context);
}

/** A major triad on V or V/x takes the dominant row. */
const servesAsDominant = (context: HarmonicReadingContext, degree: string): boolean =>
  isBareMajor(context.chord) && (degree === 'V' || degree.startsWith('V/'));

const written = (chord: Chord, semitones: number): boolean =>
  hasColour(chord, modulo(rootPc(chord) + semitones, 12));

/** Altered dominants and sus chords, read before their function. */
function byAlteration(chord: Chord): string | null {
  if (chord.quality === 'sus') return written(chord, 1) ? 'phrygian' : 'mixolydian';
  if (chord.quality !== 'dominant') return null;
  const own: Alterations = {
    isAltered: chord.altered,
    flatNine: written(chord, 1),
    sharpNine: written(chord, 3),
    flatThirteen: written(chord, 8),
    sharpFive: fifthOf(chord) === 1,
    sharpEleven: written(chord, 6) || fifthOf(chord) === -1,
  };
  return ALTERED_SCALES.find(([fits]) => fits(own))?.[1] ?? null;
}

/** What is written on a dominant beside its seventh. */
type Alterations = {
  readonly isAltered: boolean;
  readonly flatNine: boolean;
  readonly sharpNine: boolean;
  readonly flatThirteen: boolean;
  readonly sharpFive: boolean;
  readonly sharpEleven: boolean;
};

/** The scale of a dominant by what is written on it: the first that fits. */
const ALTERED_SCALES: readonly (readonly [fits: (own: Alterations) => boolean, scale: string])[] = [
  [({ isAltered }) => isAltered, 'altered'],
  [({ sharpFive, flatNine, sharpNine }) => sharpFive && (flatNine || sharpNine), 'altered'],
  [({ sharpNine, flatThirteen }) => sharpNine && flatThirteen, 'altered'],
  [({ flatNine, flatThirteen }) => flatNine && flatThirteen, 'fifth mode of harmonic minor'],
  [({ sharpFive }) => sharpFive, 'whole tone'],
  [({ flatThirteen }) => flatThirteen, 'mixolydian b6'],
  [({ flatNine, sharpNine }) => flatNine || sharpNine, 'half-whole diminished'],
  [({ sharpEleven }) => sharpEleven, 'lydian dominant'],
];

/** Chords whose own sound decides, wherever they stand. */
function bySubstance(chord: Chord): string | null {
  switch (chord.quality) {
    case 'half-diminished':
    case 'diminished':
      return 'locrian';
    case 'diminished-seventh':
      return 'whole-half diminished';
    case 'augmented':
      return 'whole tone';
    case 'minor-major':
      return 'melodic minor';
    case 'minor':
      return toneByRole(chord, 'sixth') ? 'melodic minor' : null;
    case 'major':
      if (fifthOf(chord) === 1) return 'lydian augmented';
      return written(chord, 6) ? 'lydian' : null;
    default:
      return null;
  }
}

function dominantRow(context: HarmonicReadingContext, degree: string): string {
  const { chord, key, character } = context;
  const step = stepInKey(chord, key);
  if (degree.startsWith('subV')) return 'lydian dominant';
  if (step === 7 && !degree.includes('/'))
    return character.minorBlues || (key.minor && !character.blues) ? toMinor(chord) : 'mixolydian';
  if (character.vamp || restsInBlues(context)) return 'mixolydian';
  return movingDominant(context, step);
}

/** The scale of a dominant that is not the key's own, by where it goes. */
function movingDominant(context: HarmonicReadingContext, step: number): string {
  const { chord, key, next, resolvesToMinor } = context;
  const falls = fallsAFifth(context);
  if (key.minor && step === 5 && !falls) return 'mixolydian';
  if (step === 10) return falls ? 'mixolydian' : 'lydian dominant';
  // V/x by x; the player may have named x
  if (falls || resolvesToMinor !== undefined)
    return (resolvesToMinor ?? isMinorish(next)) ? toMinor(chord) : 'mixolydian';
  return step === 0 ? 'mixolydian' : 'lydian dominant';
}

/** A dominant of a minor chord, by what its symbol already names. */
function toMinor(chord: Chord): string {
  if (written(chord, 9)) return 'mixolydian';
  return written(chord, 2) ? 'mixolydian b6' : 'fifth mode of harmonic minor';
}

function majorRow(context: HarmonicReadingContext): string | null {
  const step = stepInKey(context.chord, context.key);
  if (step === 0 || (step === 3 && context.key.minor)) return 'major';
  return [1, 3, 5, 8].includes(step) ? 'lydian' : null;
}

function minorRow(context: HarmonicReadingContext): string | null {
  const { chord, key, character, next } = context;
  const step = stepInKey(chord, key);
  if (character.minorBlues) return 'dorian';
  const relatedTwo = toneByRole(chord, 'seventh') !== undefined && isDominant(next) && fallsAFifth(context);
  if (step === 0) return minorTonic(context, relatedTwo);
  if (step === 2 || step === 5 || relatedTwo) return 'dorian';
  if (step === 4 || (step === 7 && key.minor)) return 'phrygian';
  return step === 9 ? 'natural minor' : null;
}

function minorTonic(context: HarmonicReadingContext, relatedTwo: boolean): string {
  if (relatedTwo || isBareVamp(context) || hasMajorFour(context)) return 'dorian';
  return holdsFlatTwo(context) ? 'phrygian' : 'natural minor';
}

/**
 * The key's scale with each foreign chord tone in place of the key's tone of the same letter, as a mode
 * from the chord's root
 * where a named scale has those notes, else as root and degrees.
 */
function fallback({ chord, key }: HarmonicReadingContext): Scale {
  const notes = new Map<number, SpelledNote>();
  for (const note of scaleNotes(scaleOn(key.tonic, key.minor ? 'natural minor' : 'major')))
    notes.set(letterIndex(note), note);
  for (const tone of chord.tones) notes.set(letterIndex(tone.note), tone.note);
  const root = letterIndex(chord.root);
  const degrees = [...notes.values()]
    .map((note) => degreeAbove(chord.root, note, modulo(letterIndex(note) - root, 7) + 1))
    .sort((a, b) => a.number - b.number);
  const pcs = degrees.map(degreeSemitones).join(' ');
  const named = SCALE_KINDS.find(
    (kind) => scaleOn(chord.root, kind).degrees.map(degreeSemitones).join(' ') === pcs,
  );
  return named
    ? scaleOn(chord.root, named)
    : scaleFromDegrees(chord.root, degrees.map(degreeName).join(' '), degrees);
}

function degreeAbove(root: SpelledNote, note: SpelledNote, number: number): Degree {
  const plain = degreeSemitones({ number, alter: 0 });
  return { number, alter: modulo(pitchClass(note) - pitchClass(root) - plain + 6, 12) - 6 };
}
