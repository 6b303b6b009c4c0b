import {
  beside,
  chorus,
  compressor,
  delay,
  lead,
  narrowPhone,
  noise,
  sweep,
  talk,
  taps,
  tremolo,
} from './bedroom';
import { ownBand } from './band';
import { distortion, drive, leak } from './effects';
import type { GuitarSample } from './guitarSamples';
import type { LabelledTake } from './line';
import { writeLine, type LineKind } from './lines';
import { renderRecorded } from './recordedSet';

/** What stands between a dry take and the file; level and length are kept. */
type Way = (samples: Float32Array, rate: number, seed: number) => Float32Array;

/** A line of some kind through what a bedroom adds to it. */
export type BedroomCondition = { readonly name: string; readonly kind: LineKind; readonly way: Way };

const dry: Way = (samples) => samples;
const secondsOf = (samples: Float32Array, rate: number): number => samples.length / rate;
const heardBeside =
  (other: (seconds: number, rate: number, seed: number) => Float32Array, decibels: number): Way =>
  (samples, rate, seed) =>
    beside(samples, other(secondsOf(samples, rate), rate, seed), decibels);
const band =
  (decibels: number): Way =>
  (samples, rate, seed) =>
    leak(samples, ownBand(secondsOf(samples, rate), seed), rate, seed, decibels);

/** Settings the fit has not met together with these samples, lines and seeds. */
export const BEDROOM: readonly BedroomCondition[] = [
  { name: 'delay 350 ms, −12 dB', kind: 'plucked', way: delay(0.35, -12) },
  { name: 'delay 500 ms, −9 dB', kind: 'bends', way: delay(0.5, -9) },
  { name: 'delay 250 ms, −20 dB', kind: 'plucked', way: delay(0.25, -20) },
  { name: 'lead', kind: 'bends', way: lead },
  { name: 'chorus', kind: 'plucked', way: chorus },
  { name: 'tremolo effect', kind: 'plucked', way: tremolo },
  { name: 'compressor', kind: 'swing', way: compressor },
  { name: 'sweep', kind: 'plucked', way: sweep },
  { name: 'narrow telephone', kind: 'low', way: narrowPhone },
  { name: 'a voice at −20 dB', kind: 'plucked', way: heardBeside(talk, -20) },
  { name: 'a foot at −14 dB', kind: 'plucked', way: heardBeside(taps, -14) },
  { name: 'noise at −20 dB', kind: 'plucked', way: heardBeside(noise, -20) },
  { name: 'band at −12 dB', kind: 'plucked', way: band(-12) },
  { name: 'band at −6 dB', kind: 'plucked', way: band(-6) },
  { name: 'fast strokes', kind: 'tremolo', way: dry },
  { name: 'pairs', kind: 'pairs', way: dry },
  { name: 'rakes', kind: 'rakes', way: dry },
  { name: 'driven thirds and sixths', kind: 'doubles', way: drive },
  { name: 'driven fifths', kind: 'power', way: drive },
  { name: 'distorted fifths', kind: 'power', way: distortion },
];

export function bedroomTake(
  { kind, way }: BedroomCondition,
  guitar: readonly GuitarSample[],
  seed: number,
): LabelledTake {
  const pitches = guitar.map(({ midi }) => midi);
  const line = writeLine(kind, seed, {
    lowest: Math.max(40, Math.min(...pitches) - 1),
    highest: Math.min(81, Math.max(...pitches) + 3),
  });
  const { samples, rate } = renderRecorded(line, guitar, seed);
  return { ...line, samples: way(samples, rate, seed), rate };
}
