import {
  concat,
  HighPass,
  levelOf,
  NormalisedDifference,
  Resampler,
  SignalStore,
  SpectralFlux,
} from '../sound';
import type { Decibels, Hz, Midi, Samples, Seconds } from '../shared';
import { candidatesOf, joinCandidates, type PeriodCandidate } from './candidates';

/** Everything is measured at this rate and hop: 5.8 ms a frame. */
export const RATE: Hz = 22_050;
export const HOP: Samples = 128;
export const FRAME_SECONDS: Seconds = HOP / RATE;
/** A stretch of time in frames, at least one. */
export const framesOf = (seconds: Seconds): number => Math.max(1, Math.round(seconds / FRAME_SECONDS));

/** What one frame holds. Frame i is centred on i · HOP / RATE seconds. */
export type AnalysisFrame = {
  readonly candidates: readonly PeriodCandidate[];
  readonly level: Decibels;
  readonly flux: number;
};

/** Long window for low strings (61 Hz up), short one for quick changes (110 Hz up). */
const LONG = { window: 620, maxLag: 362 };
const SHORT = { window: 305, maxLag: 202 };
/** Highest fundamental tracked: just over E6. */
const HIGHEST: Hz = 1400;
const SHORT_SHARE = 0.5;
const UNSURE = 0.4;
/** MIDI number under which the short window is not asked: 110 Hz and a little. */
const LOWEST_SHORT: Midi = 46;
const FLUX = { size: 512, lag: 2 };
const LEVEL_SPAN: Samples = 384;
const REACH: Samples = 512;
const BRIGHT: Hz = 240;
/** Quieter than the last bits of 16: nothing to look for. */
const QUIETEST = -95;

/**
 * Audio in blocks to frames in order. Fed whole or in pieces it gives the same frames: that is what makes a
 * review ready as the
 * last note fades.
 */
export class FrameReader {
  private readonly resampler: Resampler;
  private readonly highPass = new HighPass(45, RATE);
  private readonly long = new NormalisedDifference(LONG.window, LONG.maxLag);
  private readonly short = new NormalisedDifference(SHORT.window, SHORT.maxLag);
  private readonly flux = new SpectralFlux(FLUX.size, FLUX.lag);
  /**
   * The body's thump under an attack hides the note's own period for up to 100 ms: the short window hears what
   * lies above it.
   */
  private readonly bright = new HighPass(BRIGHT, RATE);
  /** The signal the frames were read from, at RATE; sample i · HOP is the centre of frame i. */
  readonly signal = new SignalStore();
  private held = new Float32Array(REACH);
  private heldBright = new Float32Array(REACH);

  /**
   * @param keep whether the signal is kept for later questions; without it under 20 kB are held, whatever the
   * length of the take
   */
  constructor(
    rate: Hz,
    private readonly keep = true,
  ) {
    this.resampler = new Resampler(rate, RATE);
  }

  push(block: Float32Array): AnalysisFrame[] {
    return this.read(this.highPass.process(this.resampler.push(block)));
  }

  finish(): AnalysisFrame[] {
    const last = this.highPass.process(concat([this.resampler.finish(), new Float32Array(REACH)]));
    return this.read(last);
  }

  /** `held` begins REACH samples before the centre of the next frame. */
  private read(samples: Float32Array): AnalysisFrame[] {
    if (this.keep) this.signal.push(samples);
    const all = concat([this.held, samples]);
    const bright = concat([this.heldBright, this.bright.process(samples)]);
    const frames: AnalysisFrame[] = [];
    let from = 0;
    for (; from + 2 * REACH <= all.length; from += HOP) frames.push(this.frame(all, bright, from + REACH));
    this.held = all.slice(from);
    this.heldBright = bright.slice(from);
    return frames;
  }

  /**
   * The short window holds no whole period of the lowest notes: there the long one decides alone. Where the
   * long one finds nothing, as
   * in a quick glide, the short one does.
   */
  private shortShare(long: readonly PeriodCandidate[]): number {
    let [total, best] = [0, null as PeriodCandidate | null];
    for (const candidate of long) {
      total += candidate.weight;
      if (!best || candidate.weight > best.weight) best = candidate;
    }
    if (best && best.midi < LOWEST_SHORT && best.weight > 0.3) return 0;
    return total < UNSURE ? SHORT_SHARE + (1 - SHORT_SHARE) * (1 - total / UNSURE) : SHORT_SHARE;
  }

  private frame(samples: Float32Array, bright: Float32Array, centre: Samples): AnalysisFrame {
    const level = levelOf(samples, centre - LEVEL_SPAN / 2, LEVEL_SPAN);
    const flux = this.flux.next(samples, centre - FLUX.size / 2);
    if (level < QUIETEST) return { candidates: [], level, flux };
    const long = candidatesOf(
      this.long.compute(samples, centre - (this.long.span >> 1)),
      RATE / HIGHEST,
      RATE,
    );
    const short = candidatesOf(
      this.short.compute(bright, centre - (this.short.span >> 1)),
      RATE / HIGHEST,
      RATE,
    );
    return { candidates: joinCandidates(long, short, this.shortShare(long)), level, flux };
  }
}
