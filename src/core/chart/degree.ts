import { modulo } from '../shared';
import { isDominant, isMinorish, pitchClass, rootPc, toneByRole, type Chord, type Key } from '../music';
import type { HarmonicReadingContext } from './context';

const NUMERALS = ['I', 'bII', 'II', 'bIII', 'III', 'IV', 'bV', 'V', 'bVI', 'VI', 'bVII', 'VII'];

/** Semitones of a chord's root above the tonic. */
export const stepInKey = (chord: Chord, key: Key): number =>
  modulo(rootPc(chord) - pitchClass(key.tonic), 12);

/** Roman numeral by root and third alone, counted from the major scale of the tonic, in minor too. */
export function numeral(chord: Chord, key: Key): string {
  const lower = isMinorish(chord);
  const step = stepInKey(chord, key);
  const name = step === 6 && lower ? '#IV' : (NUMERALS[step] ?? 'I');
  return lower ? name.toLowerCase().replace(/^b(?=[iv])/, 'b') : name;
}

/** The next chord with another root lies a fourth up. */
export const fallsAFifth = ({ chord, next }: HarmonicReadingContext): boolean =>
  modulo(rootPc(next) - rootPc(chord), 12) === 5;

/** A bare major triad: it may serve as a dominant. */
export const isBareMajor = (chord: Chord): boolean =>
  chord.quality === 'major' && !toneByRole(chord, 'sixth', 'seventh');

/**
 * The function of a chord as a Roman numeral without quality.
 * Rules T2.5 and T3.4: the degree is read before the resolution, so V stays V; then secondary dominants,
 * tritone substitutes and leading-tone diminished chords by what follows.
 */
export function degreeOf(context: HarmonicReadingContext): string {
  const { chord, key } = context;
  if (isDominant(chord)) return dominantDegree(context);
  if (isBareMajor(chord) && actsAsSecondary(context)) return secondary('V', context);
  if (chord.quality === 'diminished-seventh' || chord.quality === 'diminished')
    return diminishedDegree(context);
  return numeral(chord, key);
}

function dominantDegree(context: HarmonicReadingContext): string {
  const { chord, key, character } = context;
  const step = stepInKey(chord, key);
  if (step === 7 || character.vamp) return numeral(chord, key);
  if (restsInBlues(context)) return numeral(chord, key);
  if (step === 10) return numeral(chord, key);
  if (fallsAFifth(context)) return secondary('V', context);
  if (slipsHome(context) && chord.quality === 'dominant' && step !== 0 && step !== 5)
    return secondary('subV', context);
  return numeral(chord, key);
}

/**
 * The I7 and IV7 of a blues, which rest; in a minor blues the tonic is minor, and a dominant on it leads on to
 * iv.
 */
export const restsInBlues = ({ chord, key, character }: HarmonicReadingContext): boolean => {
  const step = stepInKey(chord, key);
  return character.blues && isDominant(chord) && (step === 5 || (step === 0 && !key.minor));
};

/**
 * The next chord with another root lies a half step down and is of the key: what slips elsewhere substitutes
 * for nothing.
 */
function slipsHome({ chord, next, key }: HarmonicReadingContext): boolean {
  const own = key.minor ? [0, 2, 3, 5, 7, 8, 10] : [0, 2, 4, 5, 7, 9, 11];
  return modulo(rootPc(next) - rootPc(chord), 12) === 11 && own.includes(stepInKey(next, key));
}

/** A major triad that is foreign to the key's own I, IV, V (and ♭III, ♭VI, ♭VII in minor) and falls a fifth. */
function actsAsSecondary(context: HarmonicReadingContext): boolean {
  const step = stepInKey(context.chord, context.key);
  const own = context.key.minor ? [0, 3, 5, 7, 8, 10] : [0, 5, 7, 1, 3, 8, 10];
  return !own.includes(step) && fallsAFifth(context);
}

/** `V` of the tonic is plain; of any other chord it names that chord. */
function secondary(of: 'V' | 'subV', { next, key }: HarmonicReadingContext): string {
  return stepInKey(next, key) === 0 ? of : `${of}/${numeral(next, key)}`;
}

function diminishedDegree(context: HarmonicReadingContext): string {
  const { chord, next, key } = context;
  const leads = modulo(rootPc(next) - rootPc(chord), 12) === 1;
  if (!leads) return numeral(chord, key);
  return stepInKey(next, key) === 0 ? 'vii' : `vii/${numeral(next, key)}`;
}
