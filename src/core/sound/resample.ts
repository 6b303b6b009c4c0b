import type { Hz } from '../shared';
import { RealTransform } from './realTransform';

const ZERO_CROSSINGS = 16;
const TABLE_STEPS = 256;
/** Whole ratios, as from 44.1 to 22.05 kHz, are filtered by blocks of this many samples. */
const BLOCK = 512;

/**
 * Streaming sample-rate conversion by a windowed sinc (Smith, "Digital Audio Resampling", CCRMA; Kaiser
 * window).
 * Output sample n lies at time n / to, whatever the block sizes were: fed whole or in pieces it gives the
 * same samples.
 */
export class Resampler {
  private readonly step: number;
  private readonly cutoff: number;
  private readonly reach: number;
  private readonly kernel: Float64Array;
  private readonly phases: number;
  private readonly taps: Float64Array[] = [];
  /** For a whole ratio, where all outputs have the same taps: their spectrum, and outputs in a block. */
  private readonly filter: { readonly spectrum: Float32Array; readonly outputs: number } | null = null;
  private held = new Float32Array(0);
  /** Input position of held[0]; starts before 0 so that the first outputs have silence to their left. */
  private heldFrom: number;
  private next = 0;
  private received = 0;

  constructor(
    readonly from: Hz,
    readonly to: Hz,
  ) {
    this.step = from / to;
    this.cutoff = Math.min(1, to / from) * 0.96;
    this.reach = Math.ceil(ZERO_CROSSINGS / this.cutoff);
    this.kernel = kaiserSinc();
    this.phases =
      Number.isInteger(from) && Number.isInteger(to) ? to / greatestCommonDivisor(from, to) : Infinity;
    this.heldFrom = -this.reach;
    this.held = new Float32Array(this.reach);
    if (this.phases === 1 && this.step > 1 && 4 * this.reach < BLOCK)
      this.filter = {
        spectrum: RealTransform.of(BLOCK).patternOf(this.tapsAt(0, 0)),
        outputs: Math.floor((BLOCK - 2 * this.reach) / this.step) + 1,
      };
  }

  /** Takes a block, returns what can be computed so far. */
  push(block: Float32Array): Float32Array {
    this.received += block.length;
    return this.from === this.to ? block.slice() : this.convert(block);
  }

  /** The last samples; the signal is taken to be silent after its end. */
  finish(): Float32Array {
    if (this.from === this.to) return new Float32Array(0);
    const wanted = Math.round(this.received / this.step);
    const tail = this.convert(new Float32Array(this.reach + 1 + (this.filter ? BLOCK : 0)));
    const surplus = Math.max(0, this.next - wanted);
    return tail.subarray(0, Math.max(0, tail.length - surplus));
  }

  private convert(block: Float32Array): Float32Array {
    const joined = new Float32Array(this.held.length + block.length);
    joined.set(this.held);
    joined.set(block, this.held.length);
    const last = this.heldFrom + joined.length - 1 - this.reach;
    const ready = Math.max(0, Math.floor(last / this.step) - this.next + 1);
    // whole blocks only, so that how the input was cut changes no bit of the output
    const count = this.filter ? ready - (ready % this.filter.outputs) : ready;
    const out = new Float32Array(count);
    if (this.filter) this.filterInto(out, joined);
    else for (let n = 0; n < count; n++) out[n] = this.at(this.next + n, joined);
    this.next += count;
    const keepFrom = Math.max(
      0,
      Math.min(joined.length, Math.floor(this.next * this.step) - this.reach - this.heldFrom),
    );
    this.held = joined.slice(keepFrom);
    this.heldFrom += keepFrom;
    return out;
  }

  /** Whole blocks by their spectra (overlap-save: Oppenheim and Schafer, Discrete-Time Signal Processing). */
  private filterInto(out: Float32Array, samples: Float32Array): void {
    const { spectrum, outputs } = this.filter!;
    const transform = RealTransform.of(BLOCK);
    const taps = 2 * this.reach;
    for (let done = 0; done < out.length; done += outputs) {
      const from = (this.next + done) * this.step - this.reach + 1 - this.heldFrom;
      const correlation = transform.correlateWith(spectrum, taps, samples, from);
      for (let n = 0; n < outputs; n++) out[done + n] = correlation[n * this.step]!;
    }
  }

  /** One output sample: the taps of its phase against the samples around its place. */
  private at(output: number, samples: Float32Array): number {
    const position = output * this.step;
    const centre = Math.floor(position + 1e-9);
    const taps = this.tapsAt(output, position - centre);
    // as an integer: places that may be fractions make every access several times as slow
    const first = (centre - this.reach + 1 - this.heldFrom) | 0;
    // two sums by turns, so that one addition need not wait for the other; the number of taps is even
    let even = 0;
    let odd = 0;
    for (let tap = 0; tap < taps.length; tap += 2) {
      even += taps[tap]! * samples[first + tap]!;
      odd += taps[tap + 1]! * samples[first + tap + 1]!;
    }
    return even + odd;
  }

  /** Rates stand in small ratios, so the same few phases come round: each is worked out once. */
  private tapsAt(output: number, fraction: number): Float64Array {
    const phase = output % this.phases;
    const known = this.taps[phase];
    if (known) return known;
    const taps = Float64Array.from({ length: 2 * this.reach }, (_, tap) =>
      this.weight(Math.abs(fraction - (tap - this.reach + 1))),
    );
    if (this.phases <= MOST_PHASES) this.taps[phase] = taps;
    return taps;
  }

  private weight(distance: number): number {
    const place = distance * this.cutoff * TABLE_STEPS;
    const whole = Math.floor(place);
    if (whole >= this.kernel.length - 1) return 0;
    return (
      this.cutoff * (this.kernel[whole]! + (this.kernel[whole + 1]! - this.kernel[whole]!) * (place - whole))
    );
  }
}

const MOST_PHASES = 2048;

function greatestCommonDivisor(a: number, b: number): number {
  return b === 0 ? a : greatestCommonDivisor(b, a % b);
}

function kaiserSinc(): Float64Array {
  const table = new Float64Array(ZERO_CROSSINGS * TABLE_STEPS + 1);
  const beta = 9;
  for (let index = 0; index < table.length; index++) {
    const x = index / TABLE_STEPS;
    const sinc = x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
    table[index] =
      sinc * (bessel0(beta * Math.sqrt(Math.max(0, 1 - (x / ZERO_CROSSINGS) ** 2))) / bessel0(beta));
  }
  return table;
}

/** Modified Bessel function of the first kind, order 0, by its power series (Abramowitz and Stegun 9.6.12). */
function bessel0(x: number): number {
  let [sum, term] = [1, 1];
  for (let k = 1; term > 1e-12 * sum; k++) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}

/** A whole signal at another rate. */
export function resample(samples: Float32Array, from: Hz, to: Hz): Float32Array {
  const resampler = new Resampler(from, to);
  return concat([resampler.push(samples), resampler.finish()]);
}

export function concat(blocks: readonly Float32Array[]): Float32Array {
  const joined = new Float32Array(blocks.reduce((length, block) => length + block.length, 0));
  let at = 0;
  for (const block of blocks) {
    joined.set(block, at);
    at += block.length;
  }
  return joined;
}
