import { alignmentOf, concat, LeakRemover, levelOf, resample, Resampler, SpectralFlux } from '../sound';
import type { Hz, Samples, Seconds } from '../vocabulary';
import { HOP, RATE, type Frame } from './frames';
import { onsetsOf } from './onsets';

/** What the app played while the player was recorded. Where it begins in the recording is found from the two. */
export type Backing = { readonly samples: Float32Array; readonly rate: Hz };

/** So much is gathered before the band is looked for in the recording. */
const GATHERED: Seconds = 14;
/** A correlation that stands out less than this is no band: the player wore headphones. */
const PROMINENT = 15;
/** The filters begin a little before the first arrival. */
const LEAD: Samples = 256;
const FLUX_SIZE = 512;
/** A strike of the band is heard this many frames before and after its peak. */
const NEAR = 6;

/** Takes a known band out of a recording on its way to the frames: blocks at the recording's rate in, blocks at RATE out. */
export class BandRemoval {
  private readonly resampler: Resampler;
  private readonly backing: Float32Array;
  private gathered: Float32Array[] | null = [];
  private count = 0;
  private remover: LeakRemover | null = null;
  private place = 0;
  /** Backing sample at the recording's beginning. */
  private shift: Samples = 0;
  private skip: Samples = 0;
  private given: Samples = 0;
  private taken: Samples = 0;

  constructor(rate: Hz, backing: Backing) {
    this.resampler = new Resampler(rate, RATE);
    this.backing = resample(backing.samples, backing.rate, RATE);
  }

  push(block: Float32Array): Float32Array {
    return this.follow(this.resampler.push(block));
  }

  finish(): Float32Array {
    const last = this.follow(this.resampler.finish());
    const rest = this.gathered ? this.begin() : new Float32Array(0);
    const left = this.remover ? this.trimmed(this.remover.finish()) : new Float32Array(0);
    // the remover works in whole frames: what it adds at the end is cut
    const all = concat([last, rest, left]);
    return this.remover ? all.subarray(0, Math.max(0, all.length - (this.given - this.taken))) : all;
  }

  /** Frames of the recording at which the band strikes: what seems to begin there may be what is left of it. Empty where none was found. */
  attacks(): Set<number> {
    if (!this.remover) return new Set();
    const flux = new SpectralFlux(FLUX_SIZE, 2);
    const frames: Frame[] = [];
    for (let centre = FLUX_SIZE / 2; centre + FLUX_SIZE / 2 < Math.min(this.backing.length, this.taken + this.shift); centre += HOP)
      frames.push({ candidates: [], level: levelOf(this.backing, centre - HOP, 2 * HOP), flux: flux.next(this.backing, centre - FLUX_SIZE / 2) });
    const shift = Math.round((FLUX_SIZE / 2 - this.shift) / HOP);
    return new Set(onsetsOf(frames).flatMap(({ frame }) => Array.from({ length: 2 * NEAR + 1 }, (_, n) => frame + shift - NEAR + n)));
  }

  private follow(samples: Float32Array): Float32Array {
    this.taken += samples.length;
    if (this.gathered) {
      this.gathered.push(samples);
      this.count += samples.length;
      return this.count >= GATHERED * RATE ? this.begin() : new Float32Array(0);
    }
    return this.remover ? this.trimmed(this.remover.push(samples, this.backingFor(samples.length))) : samples;
  }

  private begin(): Float32Array {
    const start = concat(this.gathered!);
    this.gathered = null;
    const [coarse, band] = [start, this.backing.subarray(0, start.length)].map((signal) => resample(signal, RATE, RATE / 2)) as [Float32Array, Float32Array];
    const { delay: half, prominence } = alignmentOf(coarse, band, RATE / 2);
    const delay = 2 * half;
    if (prominence < PROMINENT) return start;
    this.remover = new LeakRemover(RATE);
    this.shift = -delay;
    this.place = LEAD - delay;
    this.skip = LeakRemover.lag;
    return this.trimmed(this.remover.push(start, this.backingFor(start.length)));
  }

  private backingFor(length: Samples): Float32Array {
    const part = Float32Array.from({ length }, (_, n) => this.backing[this.place + n] ?? 0);
    this.place += length;
    return part;
  }

  private trimmed(samples: Float32Array): Float32Array {
    const cut = Math.min(this.skip, samples.length);
    this.skip -= cut;
    this.given += samples.length - cut;
    return samples.subarray(cut);
  }
}
