import { modulo, type PitchClass, defined } from '../shared';
import {
  guideTones,
  hasTone,
  isDominant,
  isMinorish,
  noteAtDegree,
  pitchClass,
  rootPc,
  scaleOn,
  toneByRole,
  type Chord,
  type Scale,
} from '../music';
import { tellTaleTones, type ChordReading } from '../chart';
import {
  borrowedShapesFor,
  degreesFor,
  parallelModeFor,
  pentatonicFor,
  shapeAndNeighbours,
  sixthDiminishedFor,
  type BorrowedShape,
} from './material';
import type { PlanCell } from './plan';
import type { PlanId, Rung } from './schools';
import type { PlanSettings } from './settings';

/** What a school is asked: its settings, the home scale, the chord as it is read and the one after it. */
type Ask = {
  readonly settings: PlanSettings;
  readonly home: Scale;
  readonly reading: ChordReading;
  readonly next: ChordReading;
};
export type Answer = Omit<PlanCell, 'id' | 'height'>;

export const tonesOf = (chord: Chord): PitchClass[] => chord.tones.map((tone) => tone.pc);
export const guidesOf = (chord: Chord): PitchClass[] => guideTones(chord).map((tone) => tone.pc);
export const union = (...sets: (readonly PitchClass[])[]): PitchClass[] => [...new Set(sets.flat())];
/** Those of some pitch classes that are tones of a chord. */
export const tonesShared = (pcs: readonly PitchClass[], chord: Chord): PitchClass[] =>
  pcs.filter((pc) => hasTone(chord, pc));
const scaleShape = ({ name, pcs }: Scale): BorrowedShape => ({ name, pcs });
export const over = (shapes: readonly BorrowedShape[], targets: readonly PitchClass[]): Answer => ({
  material: union(...shapes.map((shape) => shape.pcs)),
  targets,
  shapes,
});

/** Each school in the words of T14.2. */
export const SCHOOLS: Record<PlanId, (ask: Ask) => Answer> = {
  outline: ({ reading: { chord } }) => over([{ name: chord.symbol, pcs: tonesOf(chord) }], guidesOf(chord)),
  'single-target': ({ settings, reading }) => {
    const one = singleTarget(reading, settings.target ?? 'third');
    return over([{ name: settings.target ?? 'third', pcs: [one] }], [one]);
  },
  'home-scale': ({ home, reading: { chord } }) => over([scaleShape(home)], tonesShared(home.pcs, chord)),
  'home-tell-tale': ({ home, reading: { chord } }) => {
    const telling = tellTaleTones(chord, home).map((tone) => tone.pc);
    return {
      material: union(home.pcs, telling),
      targets: telling.length > 0 ? telling : guidesOf(chord),
      shapes: [scaleShape(home)],
    };
  },
  'scale-per-chord': ({ reading: { chord, scale } }) => over([scaleShape(scale)], guidesOf(chord)),
  'pentatonic-per-chord': ({ reading }) => {
    const shape = pentatonicFor(reading);
    return over([shape], tonesShared(shape.pcs, reading.chord));
  },
  'sixth-diminished': ({ reading, next }) => {
    const shape = sixthDiminishedFor(reading, next.chord);
    return over([shape], sixthTargets(reading.chord, shape));
  },
  'major-minor-blend': ({ reading: { chord, key } }) => {
    const third = toneByRole(chord, 'third', 'sus');
    return over(
      [
        scaleShape(scaleOn(key.tonic, 'minor pentatonic')),
        scaleShape(scaleOn(key.tonic, 'major pentatonic')),
      ],
      [third?.pc ?? rootPc(chord)],
    );
  },
  'borrowed-shapes': ({ reading }) => {
    const shapes = borrowedShapesFor(reading);
    return over(shapes, tonesShared(union(...shapes.map((shape) => shape.pcs)), reading.chord));
  },
  'minor-dominant': minorDominant,
  'step-out': ({ reading: { chord, scale } }) => ({
    material: scaleOn(chord.root, 'chromatic').pcs,
    targets: tonesOf(chord),
    shapes: [scaleShape(scale)],
  }),
  'shape-neighbours': ({ reading: { chord } }) => ({
    material: shapeAndNeighbours(chord),
    targets: tonesOf(chord),
    shapes: [{ name: chord.symbol, pcs: tonesOf(chord) }],
  }),
  'parallel-mode': ({ settings, reading: { chord } }) =>
    over([parallelModeFor(chord, settings.mode)], guidesOf(chord)),
  'by-degrees': ({ settings, reading }) =>
    over([degreesFor(reading, settings.degrees)], guidesOf(reading.chord)),
  superimposed: ({ reading: { chord, scale } }) => over([scaleShape(scale)], guidesOf(chord)),
  free: ({ reading: { chord, scale } }) => ({
    material: scaleOn(chord.root, 'chromatic').pcs,
    targets: tonesOf(chord),
    shapes: [scaleShape(scale)],
  }),
};

/**
 * 1 3 5 6 of the sixth chord that is played here; over a dominant or a diminished chord what its own tones
 * share with the scale.
 */
function sixthTargets(chord: Chord, shape: BorrowedShape): PitchClass[] {
  const tension = isDominant(chord) || chord.quality.startsWith('diminished');
  return tension
    ? tonesOf(chord).filter((pc) => shape.pcs.includes(pc))
    : [0, 2, 4, 6].map((place) => defined(shape.pcs[place]));
}

/**
 * Natural minor, and harmonic minor of the chord aimed at where a dominant of a minor chord (or its ii
 * half-diminished) sounds; the raised
 * seventh is the target there. Elsewhere, and in a major key, the home scale and the guide tones.
 */
function minorDominant({ settings, home, reading, next }: Ask): Answer {
  const { chord, key } = reading;
  const plain = settings.home ?? (key.minor ? scaleOn(key.tonic, 'natural minor') : home);
  const dominant = dominantOf(reading, next);
  if (!dominant) return over([scaleShape(plain)], guidesOf(chord));
  const tonic = noteAtDegree(dominant.root, { number: 4, alter: 0 });
  const raised = modulo(pitchClass(tonic) - 1, 12);
  return over(
    [scaleShape(scaleOn(tonic, 'harmonic minor'))],
    hasTone(chord, raised) ? [raised] : guidesOf(chord),
  );
}

/** The dominant of a minor chord that sounds here or that this half-diminished chord prepares. */
function dominantOf({ chord, key, degree }: ChordReading, next: ChordReading): Chord | null {
  const toMinor = (five: Chord, goal: Chord, own: boolean) =>
    (own && key.minor) || (modulo(rootPc(goal) - rootPc(five), 12) === 5 && isMinorish(goal));
  const dominantSound = (one: Chord) =>
    isDominant(one) || (one.quality === 'major' && !toneByRole(one, 'seventh', 'sixth'));
  if (
    dominantSound(chord) &&
    (degree === 'V' || degree.startsWith('V/')) &&
    toMinor(chord, next.chord, degree === 'V')
  )
    return chord;
  const prepares =
    chord.quality === 'half-diminished' &&
    dominantSound(next.chord) &&
    modulo(rootPc(next.chord) - rootPc(chord), 12) === 5;
  return prepares && (next.degree.startsWith('V/') || (next.degree === 'V' && key.minor)) ? next.chord : null;
}

/** The chosen tone, or the root where the chord has none of it (a power chord has no third). */
function singleTarget({ chord }: ChordReading, target: Rung): PitchClass {
  const tone = {
    root: toneByRole(chord, 'root'),
    third: toneByRole(chord, 'third', 'sus'),
    fifth: toneByRole(chord, 'fifth'),
    seventh: toneByRole(chord, 'seventh', 'sixth'),
  }[target];
  return (tone ?? defined(chord.tones[0])).pc;
}
