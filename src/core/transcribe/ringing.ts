import { magnitudeNear, SpectrumReader, type Magnitudes, type SignalStore } from '../sound';
import { midiToHz, type Decibels, type Hz, type Midi, type Samples, type Seconds } from '../shared';
import { framesOf, HOP, RATE } from './frames';

/** A note whose end is asked for. */
export type RingingSpectrum = { readonly frame: number; readonly midi: Midi };

/** Windows as long as there is room for: the longer, the nearer may partials lie and be told apart. */
const SPANS: readonly Samples[] = [0.14, 0.1, 0.07].map((seconds) => Math.round(seconds * RATE));
const SPAN = SPANS.at(-1)!;
const CLEAR: Samples = Math.round(0.012 * RATE);
const HARMONICS = 7;
/** Over a window’s length in samples: how near two partials may lie, and where a peak’s skirt is looked at, in Hz. */
const RESOLVED = 2.4 * RATE;
const BESIDE = 2.1 * RATE;
const STANDS_OUT = 2.5;
/** A string that is stopped loses more than this at once; one that rings on does not. */
const DAMPED: Decibels = 12;
const RINGS: Decibels = 5;
const GONE: Decibels = 20;
const STEP = framesOf(0.046);
const LONGEST: Seconds = 12;

/** What is asked of ringing strings; frames of the take, or of a part of it. */
export interface Ringing {
  ringsPast(note: RingingSpectrum, noteOnset: number, next: number, struck: readonly Midi[]): boolean;
  endWithin(note: RingingSpectrum, from: number, to: number, others: readonly Midi[]): number;
}

/**
 * Tells whether a string rings on under what was struck after it: by those of its harmonics that nothing
 * else shares (as harmonics are
 * given to sounds in Klapuri, IEEE TSAP 2003; the levels are common practice, no source).
 */
export class RingingReader implements Ringing {
  private readonly reader = new SpectrumReader(4096, RATE);
  private readonly samples = new Map(SPANS.map((span) => [span, new Float64Array(span)]));

  constructor(private readonly store: SignalStore) {}

  /** The same for a part of the take that begins at a frame. */
  from(offset: number): Ringing {
    const moved = (note: RingingSpectrum): RingingSpectrum => ({
      frame: note.frame + offset,
      midi: note.midi,
    });
    return {
      ringsPast: (note, noteOnset, next, struck) =>
        this.ringsPast(moved(note), noteOnset + offset, next + offset, struck),
      endWithin: (note, from, to, others) =>
        this.endWithin(moved(note), from + offset, to + offset, others) - offset,
    };
  }

  /** Levels asked for before: most are first asked while a take is still being played. */
  private readonly known = new Map<Samples, Map<string, Decibels>>();

  /** Nothing before this frame is asked for any more. */
  forget(before: number): void {
    for (const from of this.known.keys()) if (from < before * HOP) this.known.delete(from);
  }

  /**
   * Level of a pitch over a span from a sample on, in dB, leaving out harmonics that lie on those of `others`.
   */
  private level(midi: Midi, from: Samples, span: Samples, others: readonly Midi[]): Decibels {
    // what is not all there yet is measured, but not remembered
    if (from + span > this.store.length) return this.measured(midi, from, span, others);
    const key = `${midi} ${span} ${others.join(' ')}`;
    const here = this.known.get(from) ?? new Map<string, Decibels>();
    this.known.set(from, here);
    let level = here.get(key);
    if (level === undefined) here.set(key, (level = this.measured(midi, from, span, others)));
    return level;
  }

  private measured(midi: Midi, from: Samples, span: Samples, others: readonly Midi[]): Decibels {
    const samples = this.samples.get(span)!;
    this.store.read(from, samples);
    const spectrum = this.reader.read(samples);
    let [power, asked] = [0, 0];
    for (let harmonic = 1; harmonic <= HARMONICS; harmonic++) {
      const hz = midiToHz(midi) * harmonic;
      if (others.some((other) => isShared(hz, midiToHz(other), RESOLVED / span))) continue;
      asked++;
      const level = magnitudeNear(spectrum, hz);
      // a partial stands out of what lies beside it; what does not is the skirt of another
      const top = peakOf(spectrum, hz);
      if ([-1, 1].every((side) => level > STANDS_OUT * valueAt(spectrum, top + (side * BESIDE) / span)))
        power += level ** 2;
    }
    return asked ? 10 * Math.log10(power + 1e-14) : NaN;
  }

  /** Does a note ring on past a strike, as far as the next one tells? */
  ringsPast(note: RingingSpectrum, noteOnset: number, next: number, struck: readonly Midi[]): boolean {
    const at = noteOnset * HOP;
    if (struck.some((midi) => Math.abs(midi - note.midi) < 0.8)) return false;
    const room = Math.min((next - noteOnset) * HOP - CLEAR, at - note.frame * HOP) - CLEAR;
    const span = SPANS.find((length) => length <= room) ?? SPAN;
    const before = this.level(note.midi, Math.max(note.frame * HOP, at - CLEAR / 2 - span), span, struck);
    const after = this.level(note.midi, at + CLEAR, span, struck);
    return before > -75 && before - after < RINGS;
  }

  /** The frame where a note has died away or was stopped: asked every 46 ms from `from` to `to`. */
  endWithin(note: RingingSpectrum, from: number, to: number, others: readonly Midi[]): number {
    // one length of window for all: what they tell apart differs
    const room = (Math.min(to, from + framesOf(LONGEST)) - from) * HOP - CLEAR;
    const span = SPANS.find((length) => length <= room) ?? SPAN;
    let [loudest, last] = [-200, -200];
    for (let frame = from; (frame - from) * HOP + span <= room; frame += STEP) {
      const level = this.level(note.midi, frame * HOP, span, others);
      if (Number.isNaN(level)) continue;
      if (level < loudest - GONE || level < last - DAMPED) return frame;
      last = level;
      loudest = Math.max(loudest, level);
    }
    return to;
  }
}

/** Does a partial lie on a harmonic of another pitch, or too near it for a window of this length? */
function isShared(partial: Hz, other: Hz, resolved: Hz): boolean {
  const whole = Math.max(1, Math.round(partial / other));
  const apart = Math.abs(partial - other * whole);
  return apart < resolved;
}

/** Where near a frequency the spectrum is greatest. */
function peakOf({ values, binHz }: Magnitudes, hz: Hz): Hz {
  let best = Math.round(hz / binHz);
  const reach = Math.max(1, Math.round((hz * 0.012) / binHz));
  for (let k = Math.round(hz / binHz) - reach; k <= Math.round(hz / binHz) + reach; k++)
    if ((values[k] ?? 0) > (values[best] ?? 0)) best = k;
  return best * binHz;
}

const valueAt = ({ values, binHz }: Magnitudes, hz: Hz): number => values[Math.round(hz / binHz)] ?? 0;
