import type { Decibels, Hz, Seconds } from '../shared';
import { Biquad, type BiquadCoefficients } from './biquad';
import { peakOf } from './level';

/** Loudness units relative to full scale. */
export type Lufs = number;

/**
 * The two filters of the K-weighting at any rate: a shelf for the head, and a high-pass. Their analogue prototypes
 * are those of Brecht De Man, "Evaluation of Implementations of the EBU R128 Loudness Measurement" (AES 145, 2018);
 * at 48 kHz they give the coefficients of ITU-R BS.1770-4, annex 1.
 */
export function kWeighting(rate: Hz): readonly [shelf: BiquadCoefficients, highPass: BiquadCoefficients] {
  return [shelf(rate), highPass(rate)];
}

function shelf(rate: Hz): BiquadCoefficients {
  const [hz, q, decibels] = [1681.974450955533, 0.7071752369554196, 3.999843853973347];
  const k = Math.tan((Math.PI * hz) / rate);
  const high = 10 ** (decibels / 20);
  const band = high ** 0.4996667741545416;
  const a0 = 1 + k / q + k * k;
  return {
    b: [
      (high + (band * k) / q + k * k) / a0,
      (2 * (k * k - high)) / a0,
      (high - (band * k) / q + k * k) / a0,
    ],
    a: [(2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0],
  };
}

function highPass(rate: Hz): BiquadCoefficients {
  const [hz, q] = [38.13547087602444, 0.5003270373238773];
  const k = Math.tan((Math.PI * hz) / rate);
  const a0 = 1 + k / q + k * k;
  return { b: [1, -2, 1], a: [(2 * (k * k - 1)) / a0, (1 - k / q + k * k) / a0] };
}

const BLOCK: Seconds = 0.4;
const STEP: Seconds = 0.1;
const ABSOLUTE_GATE: Lufs = -70;
const RELATIVE_GATE = -10;

const lufsOf = (power: number): Lufs => -0.691 + 10 * Math.log10(power);

/**
 * Integrated loudness (ITU-R BS.1770-4): blocks of 400 ms every 100, those under −70 LUFS and those 10 below the rest
 * left out.
 * @param channels left and right, or one alone
 * @returns −Infinity of silence, and of what is shorter than a block
 */
export function loudnessOf(channels: readonly Float32Array[], rate: Hz): Lufs {
  const [shelved, passed] = kWeighting(rate);
  const powers = summed(
    channels.map((samples) =>
      stepPowers(new Biquad(passed).process(new Biquad(shelved).process(samples)), rate),
    ),
  );
  const inBlock = Math.round(BLOCK / STEP);
  const blocks: number[] = [];
  for (let at = 0; at + inBlock <= powers.length; at++) blocks.push(mean(powers.slice(at, at + inBlock)));
  const loud = blocks.filter((power) => power > 0 && lufsOf(power) > ABSOLUTE_GATE);
  if (loud.length === 0) return -Infinity;
  const gate = lufsOf(mean(loud)) + RELATIVE_GATE;
  return lufsOf(mean(loud.filter((power) => lufsOf(power) > gate)));
}

/** Mean square of each whole step. */
function stepPowers(samples: Float32Array, rate: Hz): number[] {
  const step = Math.round(STEP * rate);
  return Array.from({ length: Math.floor(samples.length / step) }, (_, index) => {
    let sum = 0;
    for (let n = index * step; n < (index + 1) * step; n++) sum += samples[n]! ** 2;
    return sum / step;
  });
}

const summed = (channels: readonly (readonly number[])[]): number[] =>
  (channels[0] ?? []).map((_, index) => channels.reduce((sum, powers) => sum + (powers[index] ?? 0), 0));

const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;

/** What the take, the band and examples are heard at (EBU R 128); plucked strings have room for their peaks. */
export const TARGET_LOUDNESS: Lufs = -23;
/** What is softer than this below the target is not raised farther: its noise would be heard. */
const MOST_RAISED: Decibels = 24;
/** No peak is raised over this. */
const HIGHEST_PEAK: Decibels = -1;

const [PIECES, PIECE_SECONDS] = [10, 3];

/** Ten pieces of three seconds from all over: a take of any length is measured while its first bar is awaited. */
function excerpt(samples: Float32Array, rate: Hz): Float32Array {
  const piece = Math.round(PIECE_SECONDS * rate);
  if (samples.length <= PIECES * piece) return samples;
  const out = new Float32Array(PIECES * piece);
  for (let index = 0; index < PIECES; index++) {
    const from = Math.floor((index * (samples.length - piece)) / (PIECES - 1));
    out.set(samples.subarray(from, from + piece), index * piece);
  }
  return out;
}

/**
 * One channel made as loud as everything else that is played, as far as its peaks allow.
 * @returns the samples themselves where nothing is to change
 */
export function levelled(samples: Float32Array, rate: Hz): Float32Array {
  const loudness = loudnessOf([excerpt(samples, rate)], rate);
  if (loudness === -Infinity) return samples;
  const raise = Math.min(TARGET_LOUDNESS - loudness, MOST_RAISED, HIGHEST_PEAK - peakOf(samples));
  const gain = 10 ** (raise / 20);
  return Math.abs(gain - 1) < 0.01 ? samples : samples.map((value) => value * gain);
}
