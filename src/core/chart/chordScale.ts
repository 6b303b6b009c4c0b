import { modulo, unwrap } from '../shared';
import {
  degreeName,
  degreeSemitones,
  fifthOf,
  hasColour,
  isDominant,
  isMinorish,
  keyScaleKind,
  letterIndex,
  noteName,
  pitchClass,
  readScale,
  rootPc,
  SCALE_KINDS,
  scaleFromDegrees,
  scaleNotes,
  scaleOn,
  toneByRole,
  type Chord,
  type Degree,
  type Key,
  type Scale,
  type SpelledNote,
} from '../music';
import { fallsAFifth, isBareMajor, restsInBlues, stepInKey } from './degree';
import {
  hasFlatSevenTriad,
  hasMajorFour,
  holdsFlatTwo,
  isBareVamp,
  isReachedByOwnDominant,
  type HarmonicReadingContext,
} from './context';

/**
 * The chord-scale by function: T3.4 to T3.6, row by row from the most particular to the fallback.
 * @returns a scale on the chord's root
 */
export function chordScale(context: HarmonicReadingContext, degree: string): Scale {
  const altered = byMinorGoal(context, degree);
  if (altered) return altered;
  const kind =
    byAlteration(context.chord) ??
    bySubstance(context) ??
    temporaryTonic(context) ??
    byMode(context) ??
    (isDominant(context.chord) || servesAsDominant(context, degree) ? dominantRow(context, degree) : null) ??
    (context.chord.quality === 'major' || isSusTwo(context.chord) ? plainRow(context) : null) ??
    (context.chord.quality === 'minor' ? minorRow(context) : null);
  return kind ? scaleOn(context.chord.root, kind) : fallback(context);
}

/** A major triad on V or V/x takes the dominant row. */
const servesAsDominant = (context: HarmonicReadingContext, degree: string): boolean =>
  isBareMajor(context.chord) && (degree === 'V' || degree.startsWith('V/'));

/** A triad with its second in place of the third. */
const isSusTwo = (chord: Chord): boolean =>
  chord.quality === 'sus' &&
  toneByRole(chord, 'sus')?.semitones === 2 &&
  toneByRole(chord, 'seventh') === undefined;

/** A major chord by its place in the key; a sus2 as the triad that its place would have (T3.10). */
function plainRow(context: HarmonicReadingContext): string | null {
  const { chord, key } = context;
  if (chord.quality === 'major' || !isMinorPlace(stepInKey(chord, key), key)) return majorRow(context);
  return minorRow(context);
}

/** Places of the key whose triad is minor. */
const isMinorPlace = (step: number, key: Key): boolean => (key.minor ? [0, 5, 7] : [2, 4, 9]).includes(step);

const written = (chord: Chord, semitones: number): boolean =>
  hasColour(chord, modulo(rootPc(chord) + semitones, 12));

/** Altered dominants and sus chords, read before their function. */
function byAlteration(chord: Chord): string | null {
  if (chord.quality === 'sus' && isSusTwo(chord)) return null;
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

/**
 * A written ♭9 or ♯9 on a dominant that goes to minor: the fifth mode of harmonic minor, with that ♯9 (T3.9).
 */
function byMinorGoal(context: HarmonicReadingContext, degree: string): Scale | null {
  const { chord } = context;
  if (chord.quality !== 'dominant' || chord.altered || !goesToMinor(context, degree)) return null;
  const plain = fifthOf(chord) === 0 && !written(chord, 6) && !written(chord, 8) && !written(chord, 9);
  if (!plain || !(written(chord, 1) || written(chord, 3))) return null;
  if (!written(chord, 3)) return scaleOn(chord.root, 'fifth mode of harmonic minor');
  return unwrap(readScale(`${noteName(chord.root)} 1 b2 #2 3 4 5 b6 b7`));
}

/** A dominant that falls a fifth to a minor chord, or the V of a minor key. */
export function goesToMinor(context: HarmonicReadingContext, degree: string): boolean {
  const { key, next, resolvesToMinor } = context;
  if (resolvesToMinor !== undefined) return resolvesToMinor;
  if (fallsAFifth(context)) return isMinorish(next) && !isDominant(next);
  return degree === 'V' && key.minor;
}

/**
 * A tonic for a moment: a chord foreign to the written key that its own dominant reaches reads as I or i there
 * (T3.8).
 */
function temporaryTonic(context: HarmonicReadingContext): string | null {
  const { chord, key, next } = context;
  const own = scaleOn(key.tonic, keyScaleKind(key));
  const isDiatonic = chord.tones.every(({ pc }) => own.pcs.includes(pc));
  const isTwo = isDominant(next) && fallsAFifth(context) && toneByRole(chord, 'seventh') !== undefined;
  if (isDiatonic || !isReachedByOwnDominant(context) || isTwo) return null;
  if (chord.quality === 'major') return 'major';
  return chord.quality === 'minor' ? 'natural minor' : null;
}

/** In a modal key a chord of the mode takes the mode's own notes (T3.12). */
function byMode({ chord, key }: HarmonicReadingContext): string | null {
  if (key.mode === undefined) return null;
  const own = scaleOn(key.tonic, key.mode);
  if (!chord.tones.every(({ pc }) => own.pcs.includes(pc))) return null;
  const pcs = new Set(own.pcs);
  return (
    SCALE_KINDS.slice(0, 7).find((kind) => scaleOn(chord.root, kind).pcs.every((pc) => pcs.has(pc))) ?? null
  );
}

/** Chords whose own sound decides, wherever they stand. */
function bySubstance({ chord, isLydian, key }: HarmonicReadingContext): string | null {
  if (isLydian && chord.quality === 'major' && stepInKey(chord, key) === 0 && fifthOf(chord) === 0)
    return 'lydian';
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
  const { chord, key } = context;
  const step = stepInKey(chord, key);
  if (step === 0 && !toneByRole(chord, 'seventh') && hasFlatSevenTriad(context)) return 'mixolydian';
  if (step === 0 || (step === 3 && key.minor)) return 'major';
  if (step === 5 && key.minor) return 'mixolydian';
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
  for (const note of scaleNotes(scaleOn(key.tonic, keyScaleKind(key)))) notes.set(letterIndex(note), note);
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
