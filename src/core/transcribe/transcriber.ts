
import { SILENCE } from '../sound';
import type { Decibels, Hz, Seconds } from '../vocabulary';
import { FRAME_SECONDS, FrameReader, type Frame } from './frames';
import { notesOf, playingLevel, type HeardNote } from './notes';
import { onsetsOf } from './onsets';
import { pathOf, type PitchTrack } from './path';
import { segmentsOf } from './segments';
import { tuningOf } from './tuning';

export type Transcription = {
  readonly schema: 'idle-wander/notes@1';
  readonly notes: readonly HeardNote[];
  readonly tuning: { readonly a4: Hz };
  readonly durationSec: Seconds;
  /** Level the take is played at, in dBFS; −120 for silence. */
  readonly playingLevel: Decibels;
};

export type TranscribeOptions = { readonly tuning?: 'auto' | Hz };

/** Below this a frame has no pitch: far under the playing level, or near the noise of any input. */
const GATE_UNDER_PLAYING: Decibels = 42;
const LOWEST_GATE: Decibels = -72;

/**
 * Hears a single guitar line: audio in blocks, notes at the end. What is expensive is done block by block; `finish` only follows
 * the path and cuts it, so a three-minute take is ready in well under a second after its last block.
 *
 * The method: two-window YIN candidates weighted as in pYIN, one best path, attacks from spectral flux, cuts at attacks and steps.
 */
export class Transcriber {
  private readonly reader: FrameReader;
  private readonly frames: Frame[] = [];
  private samples = 0;

  constructor(private readonly rate: Hz, private readonly options: TranscribeOptions = {}) {
    if (!(rate >= 4_000 && rate <= 768_000)) throw new RangeError(`sample rate ${rate} Hz is not one that audio comes in`);
    this.reader = new FrameReader(rate);
  }

  /** @param block mono samples, −1 to 1 */
  push(block: Float32Array): void {
    this.samples += block.length;
    for (const frame of this.reader.push(block)) this.frames.push(frame);
  }

  finish(): Transcription {
    for (const frame of this.reader.finish()) this.frames.push(frame);
    return this.conclude().transcription;
  }

  /** The pitch track beside the notes, for the command line and for tests. */
  finishWithTrack(): { transcription: Transcription; track: PitchTrack; frameSeconds: Seconds } {
    for (const frame of this.reader.finish()) this.frames.push(frame);
    return { ...this.conclude(), frameSeconds: FRAME_SECONDS };
  }

  private conclude(): { transcription: Transcription; track: PitchTrack } {
    const { frames } = this;
    const playing = playingLevel(frames);
    const onsets = onsetsOf(frames);
    const track = pathOf(frames, onsets, Math.max(LOWEST_GATE, playing - GATE_UNDER_PLAYING));
    const a4 = this.options.tuning === undefined || this.options.tuning === 'auto' ? tuningOf(track) : this.options.tuning;
    const notes = playing <= LOWEST_GATE ? [] : notesOf(segmentsOf(track, frames, onsets), track, frames, a4);
    const transcription: Transcription = {
      schema: 'idle-wander/notes@1', notes, tuning: { a4: Math.round(a4 * 100) / 100 }, durationSec: this.samples / this.rate,
      playingLevel: Math.max(SILENCE, Math.round(playing * 10) / 10),
    };
    return { transcription, track };
  }
}

/** A whole take at once; the same result as in blocks. */
export function transcribe(samples: Float32Array, rate: Hz, options: TranscribeOptions = {}): Transcription {
  const transcriber = new Transcriber(rate, options);
  transcriber.push(samples);
  return transcriber.finish();
}

