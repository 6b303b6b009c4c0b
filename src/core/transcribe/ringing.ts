import { magnitudeNear, SpectrumReader, type SignalStore } from '../sound';
import { hzToMidi, midiToHz, type Decibels, type Midi, type Samples, type Seconds } from '../shared';
import { FRAME_SECONDS, HOP, RATE } from './frames';

/** A note whose end is asked for. */
export type RingingSpectrum = { readonly frame: number; readonly midi: Midi };

const SPAN: Samples = Math.round(0.07 * RATE);
const CLEAR: Samples = Math.round(0.012 * RATE);
const HARMONICS = 7;
const SHARED: Midi = 0.6;
/** A string that is stopped loses more than this at once; one that rings on does not. */
const STOPPED: Decibels = 8;
const GONE: Decibels = 26;
const STEP = Math.round(0.046 / FRAME_SECONDS);
const LONGEST: Seconds = 12;

/** What is asked of ringing strings; frames of the take, or of a part of it. */
export interface Ringing {
  ringsPast(note: RingingSpectrum, noteOnset: number, struck: readonly Midi[]): boolean;
  endWithin(note: RingingSpectrum, from: number, to: number, others: readonly Midi[]): number;
}

/**
 * Tells whether a string rings on under what was struck after it: by those of its harmonics that nothing
 * else shares (as harmonics are
 * given to sounds in Klapuri, IEEE TSAP 2003; the levels are common practice, no source).
 */
export class RingingReader implements Ringing {
  private readonly reader = new SpectrumReader(2048, RATE);
  private readonly samples = new Float64Array(SPAN);

  constructor(private readonly store: SignalStore) {}

  /** The same for a part of the take that begins at a frame. */
  from(offset: number): Ringing {
    const moved = (note: RingingSpectrum): RingingSpectrum => ({
      frame: note.frame + offset,
      midi: note.midi,
    });
    return {
      ringsPast: (note, noteOnset, struck) => this.ringsPast(moved(note), noteOnset + offset, struck),
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
   * Level of a pitch over 70 ms from a sample on, in dB, leaving out harmonics that lie on those of `others`.
   */
  private level(midi: Midi, from: Samples, others: readonly Midi[]): Decibels {
    // what is not all there yet is measured, but not remembered
    if (from + SPAN > this.store.length) return this.measured(midi, from, others);
    const key = `${midi} ${others.join(' ')}`;
    const here = this.known.get(from) ?? new Map<string, Decibels>();
    this.known.set(from, here);
    let level = here.get(key);
    if (level === undefined) here.set(key, (level = this.measured(midi, from, others)));
    return level;
  }

  private measured(midi: Midi, from: Samples, others: readonly Midi[]): Decibels {
    this.store.read(from, this.samples);
    const spectrum = this.reader.read(this.samples);
    let power = 0;
    for (let harmonic = 1; harmonic <= HARMONICS; harmonic++) {
      const at = midi + 12 * Math.log2(harmonic);
      if (others.some((other) => isShared(at, other))) continue;
      power += magnitudeNear(spectrum, midiToHz(at)) ** 2;
    }
    return 10 * Math.log10(power + 1e-14);
  }

  /** Does a note ring on past a strike? */
  ringsPast(note: RingingSpectrum, noteOnset: number, struck: readonly Midi[]): boolean {
    const at = noteOnset * HOP;
    if (struck.some((midi) => Math.abs(midi - note.midi) < 0.8)) return false;
    const before = this.level(note.midi, Math.max(note.frame * HOP, at - CLEAR / 2 - SPAN), struck);
    const after = this.level(note.midi, at + CLEAR, struck);
    return before > -75 && before - after < STOPPED;
  }

  /** The frame where a note has died away or was stopped: asked every 46 ms from `from` to `to`. */
  endWithin(note: RingingSpectrum, from: number, to: number, others: readonly Midi[]): number {
    let [loudest, last] = [-200, 0];
    for (let frame = from; frame < Math.min(to, from + LONGEST / FRAME_SECONDS); frame += STEP) {
      const level = this.level(note.midi, frame * HOP, others);
      if (level < loudest - GONE || level < last - STOPPED * 1.6) return frame;
      last = level;
      loudest = Math.max(loudest, level);
    }
    return to;
  }
}

/** Does a partial lie on a harmonic of another pitch? */
function isShared(partial: Midi, other: Midi): boolean {
  const ratio = midiToHz(partial) / midiToHz(other);
  const whole = Math.max(1, Math.round(ratio));
  return Math.abs(partial - hzToMidi(midiToHz(other) * whole)) < SHARED;
}
