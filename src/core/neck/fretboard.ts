import type { HandHabits } from './handHabits';
import { pitchClassOf, type Midi, type PitchClass } from '../shared';

/** Open strings from the highest to the lowest, as string 1 is the highest. */
export type Tuning = readonly Midi[];
/** E4 B3 G3 D3 A2 E2 (T15.3). */
export const STANDARD_TUNING: Tuning = [64, 59, 55, 50, 45, 40];
/** Frets that a neck is taken to have where nothing else is said. */
export const STANDARD_FRETS = 22;
/** No guitar has more. */
export const MOST_FRETS = 36;

/** A guitar as the hand finds it: open strings and the frets above them. */
export type Instrument = {
  readonly tuning: Tuning;
  readonly frets: number;
  /** What the hand on it likes; the usual hand where it is not said. */
  readonly habits?: HandHabits;
};
export const STANDARD_INSTRUMENT: Instrument = { tuning: STANDARD_TUNING, frets: STANDARD_FRETS };

/** With a capo its fret is the nut: frets count from it. */
export const withCapo = ({ tuning, frets, ...rest }: Instrument, capo: number): Instrument => ({
  ...rest,
  tuning: tuning.map((open) => open + capo),
  frets: frets - capo,
});

/** A place on the neck: string 1 is the highest, fret 0 the open string. */
export type FretPosition = { readonly string: number; readonly fret: number; readonly midi: Midi };

/** Every place from one fret to another, inclusive, that sounds one of some pitch classes. */
export function placesOf(
  pcs: readonly PitchClass[],
  from: number,
  to: number,
  tuning: Tuning = STANDARD_TUNING,
): FretPosition[] {
  return tuning.flatMap((open, index) =>
    Array.from({ length: to - from + 1 }, (_, step) => ({
      string: index + 1,
      fret: from + step,
      midi: open + from + step,
    })).filter(({ midi }) => pcs.includes(pitchClassOf(midi))),
  );
}

/** Every place that sounds a pitch, the lowest fret first. */
export function placesSounding(midi: Midi, { tuning, frets }: Instrument): FretPosition[] {
  return tuning
    .map((open, index) => ({ string: index + 1, fret: midi - open, midi }))
    .filter(({ fret }) => fret >= 0 && fret <= frets)
    .sort((a, b) => a.fret - b.fret);
}

/**
 * Distance of a fret from the nut as a share of the string: fret n leaves 2^(−n/12) of it (common practice, no
 * source).
 */
export const fretDistance = (fret: number): number => 1 - 2 ** (-fret / 12);
