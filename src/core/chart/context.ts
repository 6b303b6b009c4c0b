import { modulo } from '../shared';
import { hasTone, pitchClass, rootPc, toneByRole, type Chord, type Key } from '../music';

/** What the whole form is: decides home scales and the blues rows of the chord-scale table. */
export type FormCharacter = {
  /** `feel: blues`, or a major key whose I and IV are dominant sevenths throughout (T3.1). */
  readonly blues: boolean;
  /** A blues in a minor key. */
  readonly minorBlues: boolean;
  /** One root, dominant: a vamp. */
  readonly dominantVamp: boolean;
  /** One root of whatever kind. */
  readonly vamp: boolean;
};

/** What a rule may look at when it reads one chord. */
export type HarmonicReadingContext = {
  readonly chord: Chord;
  readonly key: Key;
  /** The next chord with another root; N.C. skipped, the form a loop. The chord itself in a vamp. */
  readonly next: Chord;
  readonly character: FormCharacter;
  /** All chords of the same key region. */
  readonly region: readonly Chord[];
  /** The chord before this one with another root; the form is a loop. */
  readonly before: Chord;
  /** A plan, a reading or the home scale hears the region's tonic as Lydian (T3.10). */
  readonly isLydian: boolean;
  /** The player's word on what a secondary dominant resolves to, before what follows. */
  readonly resolvesToMinor?: boolean;
};

/** One root throughout the region: a bare vamp. */
export const isBareVamp = ({ region }: HarmonicReadingContext): boolean =>
  new Set(region.map(rootPc)).size === 1;

/** Does the region hold a major chord on its fourth degree? It makes the tonic minor Dorian. */
export const hasMajorFour = ({ region, key }: HarmonicReadingContext): boolean =>
  region.some(
    (chord) =>
      rootPc(chord) === modulo(pitchClass(key.tonic) + 5, 12) && toneByRole(chord, 'third')?.semitones === 4,
  );

/** Does the region hold a major triad on its lowered seventh? It makes the tonic Mixolydian (T3.11). */
export const hasFlatSevenTriad = ({ region, key }: HarmonicReadingContext): boolean =>
  region.some(
    (chord) =>
      chord.quality === 'major' &&
      !toneByRole(chord, 'seventh') &&
      rootPc(chord) === modulo(pitchClass(key.tonic) + 10, 12),
  );

/** Is this chord reached by its own dominant? Its key for a moment is its own, whatever the key line says. */
export const isReachedByOwnDominant = ({ chord, before }: HarmonicReadingContext): boolean =>
  before.quality === 'dominant' && modulo(rootPc(chord) - rootPc(before), 12) === 5;

export const holdsFlatTwo = ({ region, key }: HarmonicReadingContext): boolean =>
  region.some((chord) => hasTone(chord, modulo(pitchClass(key.tonic) + 1, 12)));
