import { alignmentOf, concat, LeakRemover, resample, Resampler } from '../sound';
import type { Hz, Samples, Seconds } from '../vocabulary';
import { RATE } from './frames';

/** What the app played while the player was recorded. Where it begins in the recording is found from the two. */
export type Backing = { readonly samples: Float32Array; readonly rate: Hz };

/** So much is gathered before the band is looked for in the recording. */
const GATHERED: Seconds = 14;
/** A correlation that stands out less than this is no band: the player wore headphones. */
const PROMINENT = 15;
/** The filters begin a little before the first arrival. */
const LEAD: Samples = 256;

/** Takes a known band out of a recording on its way to the frames: blocks at the recording's rate in, blocks at RATE out. */
export class BandRemoval {
  private readonly resampler: Resampler;
  private readonly backing: Float32Array;
  private gathered: Float32Array[] | null = [];
  private count = 0;
  private remover: LeakRemover | null = null;
  private place = 0;
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
    const { delay, prominence } = alignmentOf(start, this.backing.subarray(0, start.length), RATE);
    if (prominence < PROMINENT) return start;
    this.remover = new LeakRemover(RATE);
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
