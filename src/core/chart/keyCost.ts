import { modulo } from '../shared';
import { hasTone, isDominant, isMinorish, pitchClass, rootPc, type Chord, type Key } from '../music';

/** A chord of the walk with its neighbours of another root; the form is a loop. */
export type KeyStep = {
  readonly chord: Chord;
  readonly bars: number;
  readonly before: Chord;
  readonly next: Chord;
  readonly beforeThat: Chord;
  readonly afterNext: Chord;
};

/**
 * What a chord sounds like to someone looking for the key: finer than major and minor, coarser than its
 * symbol.
 */
type Kind = 'major' | 'minor' | 'dominant' | 'diminished';

function kindOf(chord: Chord): Kind {
  if (isDominant(chord)) return 'dominant';
  if (['half-diminished', 'diminished', 'diminished-seventh'].includes(chord.quality)) return 'diminished';
  return isMinorish(chord) ? 'minor' : 'major';
}

type Costs = Readonly<Record<number, Readonly<Partial<Record<Kind, number>>>>>;

/**
 * How strange each chord is in a key: 0 at home, about a third for what is often borrowed. Our own weights,
 * settled on the forms of the tests.
 */
const IN_MAJOR: Costs = {
  0: { major: 0, dominant: 0.45 },
  1: { major: 0.45 },
  2: { minor: 0, diminished: 0.4 },
  3: { major: 0.4 },
  4: { minor: 0.1 },
  5: { major: 0, minor: 0.35, dominant: 0.4 },
  7: { dominant: 0, major: 0, minor: 0.45 },
  8: { major: 0.4 },
  9: { minor: 0 },
  10: { dominant: 0.35, major: 0.35 },
  11: { diminished: 0.15 },
};
const IN_MINOR: Costs = {
  0: { minor: 0 },
  1: { major: 0.4 },
  2: { diminished: 0, minor: 0.35 },
  3: { major: 0.1 },
  5: { minor: 0, major: 0.3, dominant: 0.3 },
  7: { dominant: 0, major: 0.05, minor: 0.2 },
  8: { major: 0.1, dominant: 0.3 },
  10: { major: 0.1, dominant: 0.15 },
  11: { diminished: 0.05 },
};
const FOREIGN = 1.1;
const PASSING = 0.35;

const stepOf = (chord: Chord, key: Key): number => modulo(rootPc(chord) - pitchClass(key.tonic), 12);
const risesTo = (from: Chord, to: Chord): number => modulo(rootPc(to) - rootPc(from), 12);

const tabled = (chord: Chord, key: Key): number =>
  (key.minor ? IN_MINOR : IN_MAJOR)[stepOf(chord, key)]?.[kindOf(chord)] ?? FOREIGN;

/** Can this chord be home? A dominant can where the key is a blues. */
export function isHome(chord: Chord, key: Key, blues: boolean): boolean {
  if (stepOf(chord, key) !== 0) return false;
  if (key.minor) return isMinorish(chord) && kindOf(chord) === 'minor';
  return hasTone(chord, modulo(pitchClass(key.tonic) + 4, 12)) && (blues || kindOf(chord) === 'major');
}

/**
 * What it costs to hear a chord in a key; a cadence that comes home is a gain.
 * @param blues the key's I and IV are dominant throughout the form
 */
export function costIn(step: KeyStep, key: Key, blues: boolean): number {
  const { chord, next, bars } = step;
  const bluesy = blues && kindOf(chord) === 'dominant' && [0, 5].includes(stepOf(chord, key));
  let cost = bluesy ? 0 : tabled(chord, key);
  if (kindOf(chord) === 'dominant' && risesTo(chord, next) === 5)
    cost = Math.min(cost, tabled(next, key) <= 0.2 ? 0.3 : 0.45);
  if (kindOf(chord) === 'dominant' && risesTo(chord, next) === 11) cost = Math.min(cost, PASSING);
  if (kindOf(chord) === 'diminished' && risesTo(chord, next) === 1) cost = Math.min(cost, PASSING);
  if (
    ['minor', 'diminished'].includes(kindOf(chord)) &&
    kindOf(next) === 'dominant' &&
    risesTo(chord, next) === 5
  )
    cost = Math.min(cost, tabled(step.afterNext, key) <= 0.2 ? PASSING : 0.5);
  return cost * bars - gain(step, key, blues);
}

function gain({ chord, before, beforeThat, next, bars }: KeyStep, key: Key, blues: boolean): number {
  // a m7 on its way to a dominant is a ii, wherever it came from
  if (isHome(chord, key, blues) && !prepares(chord, next)) {
    const dominant = kindOf(before) === 'dominant' && risesTo(before, chord) === 5;
    let cadence: 0.9 | 0.6 | 0.3 | 0;
    if (dominant) {
      if (prepares(beforeThat, before)) cadence = 0.9;
      else cadence = 0.6;
    } else if (kindOf(before) === 'major' && risesTo(before, chord) === 5) cadence = 0.3;
    else cadence = 0;
    return cadence + 0.3 * Math.min(1, bars);
  }
  return stepOf(chord, key) === 7 && kindOf(chord) === 'dominant' && prepares(before, chord) ? 0.25 : 0;
}

const prepares = (two: Chord, five: Chord): boolean =>
  kindOf(five) === 'dominant' && ['minor', 'diminished'].includes(kindOf(two)) && risesTo(two, five) === 5;

/** The form's first and last chords speak for their own keys. */
export const edgeGain = (chord: Chord, key: Key, blues: boolean): number =>
  isHome(chord, key, blues) ? 0.4 : 0;

/** I and IV both occur and are dominant sevenths wherever they stand (T3.1). */
export function isBluesKey(chords: readonly Chord[], key: Key): boolean {
  const on = (step: number) => chords.filter((chord) => stepOf(chord, key) === step);
  return (
    !key.minor &&
    [0, 5].every((step) => on(step).length > 0 && on(step).every((chord) => chord.quality === 'dominant'))
  );
}
