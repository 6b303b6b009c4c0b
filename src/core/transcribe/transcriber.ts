
import { SILENCE } from '../sound';
import type { Decibels, Hz, Seconds } from '../vocabulary';
import { EvidenceReader, type Claim } from './evidence';
import { judge, unpack } from './judge';
import { FITTED } from './judgeWeights';
import { FRAME_SECONDS, FrameReader, type Frame } from './frames';
import { momentsOf, type Moment } from './moments';
import { notesOf, playingLevel, type HeardNote } from './notes';
import { onsetsOf } from './onsets';
import { pathOf, type PitchTrack } from './path';
import { RingingReader } from './ringing';
import { strikesOf, type Judged } from './strikes';
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

const NETWORK = unpack(FITTED);

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

  /** What the judge is asked at every moment: for learning and for tests. */
  finishWithClaims(): { moment: Moment; claims: readonly Claim[] }[] {
    for (const frame of this.reader.finish()) this.frames.push(frame);
    return this.claims();
  }

  private claims(): Judged[] {
    const { frames } = this;
    const track = pathOf(frames, onsetsOf(frames), this.gate());
    const moments = momentsOf(frames, track);
    const evidence = new EvidenceReader(this.reader.signal, frames, track, playingLevel(frames));
    return moments.map((moment, index) => ({
      moment,
      claims: evidence.claimsAt(moment, moments[index - 1]?.frame ?? 0, moments[index + 1]?.frame ?? frames.length).map((claim) => ({ ...claim, belief: judge(NETWORK, claim.features) })),
    }));
  }

  private gate(): Decibels {
    return Math.max(LOWEST_GATE, playingLevel(this.frames) - GATE_UNDER_PLAYING);
  }

  private conclude(): { transcription: Transcription; track: PitchTrack } {
    const { frames } = this;
    const playing = playingLevel(frames);
    const strikes = playing <= LOWEST_GATE ? [] : strikesOf(this.claims());
    const known = strikes.flatMap(({ starts }, index) => starts.map(({ frame, midi }) => ({ from: frame, to: strikes[index + 1]?.frame ?? frames.length, midi })));
    const track = pathOf(frames, strikes, this.gate(), known);
    const a4 = this.options.tuning === undefined || this.options.tuning === 'auto' ? tuningOf(track) : this.options.tuning;
    const notes = notesOf(strikes, track, frames, new RingingReader(this.reader.signal), a4);
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

