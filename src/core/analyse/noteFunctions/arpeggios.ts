import { modulo, type PitchClass, defined } from '../../shared';
import type { Chord } from '../../music';
import { isLinked } from '../notes/voice';
import type { Walk } from './figures';

/** A stretch of the line in skips that spells a chord; places in the line, inclusive. */
export type Arpeggio = {
  readonly first: number;
  readonly last: number;
  readonly root: PitchClass;
  readonly name: string;
};

const bitOf = (pc: number): number => 1 << modulo(pc, 12);

/**
 * What an arpeggio may spell, as semitones above the root, as players name it: triads, sixths, sevenths, and what is
 * stacked on these in thirds up to the thirteenth (T7.14; common practice, no source). A richer one is tried first.
 */
const SPELLED: readonly (readonly [string, readonly number[]])[] = [
  ['major-thirteenth', [0, 4, 7, 11, 2, 9]],
  ['thirteenth', [0, 4, 7, 10, 2, 9]],
  ['minor-thirteenth', [0, 3, 7, 10, 2, 9]],
  ['minor-eleventh', [0, 3, 7, 10, 2, 5]],
  ['eleventh', [0, 4, 7, 10, 2, 5]],
  ['sharp-eleventh', [0, 4, 7, 10, 2, 6]],
  ['major-sharp-eleventh', [0, 4, 7, 11, 2, 6]],
  ['major-ninth', [0, 4, 7, 11, 2]],
  ['ninth', [0, 4, 7, 10, 2]],
  ['minor-ninth', [0, 3, 7, 10, 2]],
  ['seven-flat-nine', [0, 4, 7, 10, 1]],
  ['seven-sharp-nine', [0, 4, 7, 10, 3]],
  ['major-seventh', [0, 4, 7, 11]],
  ['dominant-seventh', [0, 4, 7, 10]],
  ['minor-seventh', [0, 3, 7, 10]],
  ['half-diminished', [0, 3, 6, 10]],
  ['diminished-seventh', [0, 3, 6, 9]],
  ['minor-major-seventh', [0, 3, 7, 11]],
  ['augmented-major-seventh', [0, 4, 8, 11]],
  ['major', [0, 4, 7]],
  ['minor', [0, 3, 7]],
  ['diminished', [0, 3, 6]],
  ['augmented', [0, 4, 8]],
];
/** The same tones as a seventh chord on another root: so named where the line begins on this root. */
const SIXTHS: readonly (readonly [string, readonly number[]])[] = [
  ['sixth', [0, 4, 7, 9]],
  ['minor-sixth', [0, 3, 7, 9]],
];

type Spelling = {
  readonly name: string;
  readonly root: PitchClass;
  readonly bits: number;
  readonly size: number;
};

/** Chords of more tones than a seventh are heard as such only where their thirds are stacked. */
const SEVENTH = 4;
/** A third, or a tone said again an octave away. */
const isThird = (step: number): boolean => [0, 3, 4].includes(Math.abs(step) % 12);

/** All twelve roots of every chord, as a bit per pitch class. */
const onAllRoots = (chords: readonly (readonly [string, readonly number[]])[]): Spelling[] =>
  chords.flatMap(([name, steps]) =>
    Array.from({ length: 12 }, (_, root) => ({
      name,
      root,
      size: steps.length,
      bits: steps.reduce((bits, step) => bits | bitOf(root + step), 0),
    })),
  );
const CHORDS = onAllRoots(SPELLED);
const SIXTH_CHORDS = onAllRoots(SIXTHS);
/** By set of pitch classes: is it part of some chord? */
const FITS = new Uint8Array(4096);
for (const { bits } of CHORDS) for (let part = bits; part > 0; part = (part - 1) & bits) FITS[part] = 1;

/**
 * Every arpeggio of the line: the longest from each start.
 * Rules T7.8 and T7.14: ≥ 3 linked notes in skips that spell a chord up to the thirteenth, octave repeats included;
 * cut at the change of chord.
 */
export function arpeggiosOf(walk: Walk): Arpeggio[] {
  const { line } = walk.scene;
  const found: Arpeggio[] = [];
  for (let first = 0; first < line.length - 2;) {
    const longest = longestFrom(walk, first);
    if (longest) found.push({ first, ...longest });
    first = longest ? longest.last : first + 1;
  }
  return found;
}

function longestFrom(walk: Walk, first: number): Omit<Arpeggio, 'first'> | null {
  const { line } = walk.scene;
  const { chord } = defined(walk.assignments[first]);
  let best: Omit<Arpeggio, 'first'> | null = null;
  let bits = bitOf(defined(line[first]).pc);
  let stacked = true;
  for (
    let last = first + 1;
    isLinked(line[last - 1], line[last]) && Math.abs(walk.step(last - 1, last)) >= 3;
    last++
  ) {
    if (defined(walk.assignments[last]).chord?.symbol !== chord?.symbol) break;
    bits |= bitOf(defined(line[last]).pc);
    if (!FITS[bits]) break;
    stacked &&= isThird(walk.step(last - 1, last));
    const spelling = last - first >= 2 ? spelled(bits, defined(line[first]).pc, chord) : null;
    if (spelling && (stacked || spelling.size <= SEVENTH))
      best = { last, root: spelling.root, name: spelling.name };
  }
  return best;
}

/**
 * The chord a set of tones spells whole. Where several do, the one that begins on the first note; then, of chords
 * that are their own rotations (diminished sevenths, augmented triads), the one on a tone of the chord sounding.
 */
function spelled(bits: number, first: PitchClass, over: Chord | null): Spelling | null {
  const all = CHORDS.filter((chord) => chord.bits === bits);
  const sixth = SIXTH_CHORDS.find((chord) => chord.bits === bits && chord.root === first);
  return (
    all.find(({ root }) => root === first) ??
    sixth ??
    all.find(({ root }) => over?.tones[0]?.pc === root) ??
    all[0] ??
    null
  );
}
