import {
  alignmentOf,
  concat,
  LeakRemover,
  levelOf,
  resample,
  Resampler,
  SignalStore,
  SpectralFlux,
} from '../sound';
import type { Hz, Samples, Seconds } from '../shared';
import { framesOf, HOP, RATE, type AnalysisFrame } from './frames';
import { onsetsOf } from './onsets';

/**
 * What the app played while the player was recorded. Where it begins in the recording is found from the two.
 */
export type Backing = { readonly samples: Float32Array; readonly rate: Hz };
/** The same, given piece by piece while it is played: `pushBacking` must keep ahead of the recording. */
export type BackingStream = { readonly rate: Hz };

/** So much is gathered before the band is looked for in the recording. */
const GATHERED: Seconds = 14;
/** A correlation that stands out less than this is no band: the player wore headphones. */
const PROMINENT = 15;
/** The filters begin a little before the first arrival. */
const LEAD: Samples = 256;
const FLUX_SIZE = 512;
/** A strike of the band is heard this many frames before and after its peak. */
const NEAR = 6;
/** Attacks stand out of what lies around them. */
const AROUND = framesOf(0.25);

/**
 * Takes a known band out of a recording on its way to the frames: blocks at the recording's rate in, blocks at
 * RATE out.
 */
export class BandRemoval {
  private readonly resampler: Resampler;
  private readonly backing = new SignalStore();
  private readonly backingResampler: Resampler;
  private gathered: Float32Array[] | null = [];
  private count = 0;
  private remover: LeakRemover | null = null;
  private place = 0;
  /** Backing sample at the recording's beginning. */
  private shift: Samples = 0;
  private skip: Samples = 0;
  private given: Samples = 0;
  private taken: Samples = 0;

  constructor(rate: Hz, backing: Backing | BackingStream) {
    this.resampler = new Resampler(rate, RATE);
    this.backingResampler = new Resampler(backing.rate, RATE);
    if ('samples' in backing) {
      this.pushBacking(backing.samples);
      this.backing.push(this.backingResampler.finish());
    }
  }

  /** What is played next, mono, at the backing's rate. */
  pushBacking(samples: Float32Array): void {
    if (this.gathered || this.remover) this.backing.push(this.backingResampler.push(samples));
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

  /**
   * Frames of the recording from one to another at which the band strikes, counted from the first of them:
   * what seems to begin there may
   * be what is left of it. Empty where no band was found.
   */
  attacks(from: number, to: number): Set<number> {
    if (!this.remover) return new Set();
    const flux = new SpectralFlux(FLUX_SIZE, 2);
    const frames: AnalysisFrame[] = [];
    const around = new Float32Array(FLUX_SIZE);
    const begin = this.backingFrame(from) - AROUND;
    const last = Math.min(
      this.backingFrame(to) + AROUND,
      Math.floor((Math.min(this.backing.length, this.taken + this.shift) - FLUX_SIZE / 2) / HOP),
    );
    for (let frame = begin; frame < last; frame++) {
      this.backing.read(frame * HOP - FLUX_SIZE / 2, around);
      frames.push({
        candidates: [],
        level: levelOf(around, FLUX_SIZE / 2 - HOP, 2 * HOP),
        flux: flux.next(around, 0),
      });
    }
    const shift = begin - this.backingFrame(from);
    return new Set(
      onsetsOf(frames).flatMap(({ frame }) =>
        Array.from({ length: 2 * NEAR + 1 }, (_, n) => frame + shift - NEAR + n),
      ),
    );
  }

  /** Nothing before this frame of the recording is asked for any more. */
  forget(before: number): void {
    this.backing.forget(this.remover ? (this.backingFrame(before) - 2 * AROUND) * HOP : this.backing.length);
  }

  /** The frame of the backing that was heard at a frame of the recording. */
  private backingFrame(frame: number): number {
    return frame + Math.round(this.shift / HOP);
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
    const played = new Float32Array(Math.min(start.length, this.backing.length));
    this.backing.read(0, played);
    const [coarse, band] = [start, played].map((signal) => resample(signal, RATE, RATE / 2)) as [
      Float32Array,
      Float32Array,
    ];
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
    const part = new Float32Array(length);
    this.backing.read(this.place, part);
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
