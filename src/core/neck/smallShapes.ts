import { guideTones, toneByRole, type Chord } from '../music';
import { chordShapes, type ChordShape } from './chordShapes';
import { fingersOf } from './fingers';
import { STANDARD_INSTRUMENT, type Instrument } from './fretboard';
import { pitchClassOf, type PitchClass, elementAt } from '../shared';
import { intervalOver } from '../music';

/** Small shapes on one set of neighbouring strings, up the neck. */
export type StringSet = { readonly strings: readonly number[]; readonly shapes: readonly ChordShape[] };

/** The triad's three tones (root, third or sus, fifth) once each, or third and seventh alone. */
export type SmallKind = 'triad' | 'guide tones';

/**
 * Triads on every set of three neighbouring strings, or guide-tone pairs on every set of two: each
 * inversion where it lies.
 * @returns sets from the highest strings down
 */
export function smallShapes(
  chord: Chord,
  kind: SmallKind,
  instrument: Instrument = STANDARD_INSTRUMENT,
): StringSet[] {
  const pcs =
    kind === 'triad'
      ? triadOf(chord)
      : guideTones(chord)
          .slice(0, 2)
          .map((tone) => tone.pc);
  const width = pcs.length;
  if (width < 2) return [];
  return Array.from({ length: instrument.tuning.length - width + 1 }, (_, index) => {
    const strings = Array.from({ length: width }, (_, step) => index + 1 + step);
    return { strings, shapes: onSet(chord, pcs, strings, instrument) };
  });
}

const triadOf = (chord: Chord): PitchClass[] => {
  const tones = [toneByRole(chord, 'root'), toneByRole(chord, 'third', 'sus'), toneByRole(chord, 'fifth')];
  return tones.flatMap((tone) => (tone ? [tone.pc] : []));
};

/** Every order of the tones over the strings whose frets lie together. */
function onSet(
  chord: Chord,
  pcs: readonly PitchClass[],
  strings: readonly number[],
  { tuning, frets }: Instrument,
): ChordShape[] {
  const shapes: { low: number; shape: ChordShape }[] = [];
  for (const order of permutations(pcs)) {
    const first = order.map(
      (pc, index) => (((pc - elementAt(tuning, elementAt(strings, index) - 1)) % 12) + 12) % 12,
    );
    for (const lift of combinations(first)) {
      const low = Math.min(...lift);
      if (
        Math.max(...lift) - low > 4 ||
        Math.max(...lift) > Math.min(frets, 16) ||
        lift.some(
          (fret, index) =>
            index > 0 &&
            elementAt(tuning, elementAt(strings, index) - 1) + fret >=
              elementAt(tuning, elementAt(strings, index - 1) - 1) + elementAt(lift, index - 1),
        )
      )
        continue;
      const all: (number | null)[] = tuning.map(() => null);
      lift.forEach((fret, index) => {
        all[tuning.length - elementAt(strings, index)] = fret;
      });
      const fingers = fingersOf(all);
      const open = [...tuning].reverse();
      if (fingers)
        shapes.push({
          low,
          shape: {
            frets: all,
            fingers,
            tones: all.map((fret, string) =>
              fret === null ? null : intervalOver(chord, pitchClassOf(elementAt(open, string) + fret)),
            ),
          },
        });
    }
  }
  return shapes.sort((a, b) => a.low - b.low).map(({ shape }) => shape);
}

const permutations = <T>(all: readonly T[]): T[][] =>
  all.length <= 1
    ? [[...all]]
    : all.flatMap((one, index) =>
        permutations([...all.slice(0, index), ...all.slice(index + 1)]).map((rest) => [one, ...rest]),
      );

/** Each fret as it is or an octave up. */
const combinations = (frets: readonly number[]): number[][] =>
  frets.reduce<number[][]>(
    (all, fret) =>
      all.flatMap((one) => [
        [...one, fret],
        [...one, fret + 12],
      ]),
    [[]],
  );

/** The movable grips of a chord on each set of so many neighbouring strings. */
export function formsByStringSet(
  chord: Chord,
  width: number,
  instrument: Instrument = STANDARD_INSTRUMENT,
): StringSet[] {
  return Array.from({ length: instrument.tuning.length - width + 1 }, (_, index) => {
    const strings = Array.from({ length: width }, (_, step) => index + 1 + step);
    const shapes = chordShapes(chord, { instrument, strings, most: 12 }).filter(
      (shape) => shape.frets.filter((fret) => fret !== null).length === width && !shape.frets.includes(0),
    );
    return { strings, shapes };
  });
}
