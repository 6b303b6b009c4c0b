import type { Decibels, Hz, Samples, Seconds } from '../shared';
import { SILENCE, finite } from '../sound';
import {
  SILENT_TAKE,
  transcribeWindow,
  type AnalysisWindow,
  type SpectralCache,
  type TranscriptionSegment,
} from './analysisWindow';
import { AlignedSpectra } from './alignedSpectra';
import { BandRemoval, type Backing, type BackingStream } from './bandRemoval';
import { Certainty } from './certainty';
import { EchoRemoval } from './echoes';
import { SpectrumCache } from './features';
import { FRAME_SECONDS, FrameReader, framesOf, HOP, RATE, type AnalysisFrame } from './frames';
import { PlayingLevel } from './level';
import type { ClassifierListener, Steps } from './looks';
import { LiveLine, type ProvisionalNote } from './live';
import { noteOf, type HeardNote, type HeardSound } from './notes';
import type { PitchTrack } from './path';
import { Resampler } from '../sound';
import { RingingReader } from './ringing';
import { SEAM, seamNear } from './seam';
import { StringTraces } from './stringTrace';
import { OwnTuning } from './tuning';

export type Transcription = {
  readonly schema: 'idle-wander/notes@1';
  readonly notes: readonly HeardNote[];
  readonly tuning: { readonly a4: Hz };
  readonly durationSec: Seconds;
  /** Level the take is played at, in dBFS; −120 for silence. */
  readonly playingLevel: Decibels;
  /** How surely this is a played line, 0 to 1: under a half it may as well be a voice or a drum. */
  readonly certainty: number;
};

export type TranscribeOptions = {
  readonly tuning?: 'auto' | Hz;
  /** What the app played meanwhile, mono: its leak is taken out first. Needs not begin with the recording. */
  readonly backing?: Backing | BackingStream;
  /** Whether `push` is to say what seems to sound; false by default: whoever reads a file need not know. */
  readonly live?: boolean;
  /** Told what the judge is asked at every moment, in frames of the take: for learning. */
  readonly onClassify?: ClassifierListener;
};

/**
 * Moments are looked at every two seconds, once half a second more is known, with six seconds before them to
 * find the pitch by.
 */
const LOOK_EVERY = framesOf(2);
const LOOK_BEHIND = framesOf(0.5);
const CONTEXT = framesOf(6);
/**
 * Once a minute is known, so that the level it is played at is, a take is concluded piece by piece: this much
 * at a time …
 */
const ENOUGH = framesOf(60);
const PIECE = framesOf(8);
/** … and only what so much is known after: longer than any string rings that is asked after. */
const AFTER = framesOf(13);
/** A player who waits longer than this before the first note is waited for no more. */
const PATIENCE = framesOf(150);
const LONGEST_LOOK: Samples = RATE;

/**
 * Hears a guitar: audio in blocks, notes at the end; while it goes on, a live line. Frames are measured
 * block by block. What lies
 * thirty seconds and more back is concluded while the take goes on and its sound forgotten, so that the end
 * of a take of any length
 * waits for the last half minute alone, and half an hour takes no more memory than a minute but for its notes.
 *
 * The method (docs/decisions/0007-ears.md, 0015-piece-by-piece.md): two-window YIN candidates weighted as
 * in pYIN, moments from
 * spectral flux and steps, claims from harmonic sums judged by a small network, one best path, glides and
 * gestures read from it.
 */
export class Transcriber {
  private readonly reader: FrameReader;
  private readonly removal: BandRemoval | null;
  private readonly resampler: Resampler;
  private readonly echoes = new EchoRemoval();
  /** Frames not yet forgotten; the first of them is frame `first` of the take. */
  private frames: AnalysisFrame[] = [];
  private first = 0;
  private readonly live = new LiveLine();
  /** While band and repeats are being taken out the notes come late: the live line listens to the recording as it is. */
  private readonly liveReader: FrameReader | null;
  private samples = 0;
  private readonly cache: SpectralCache;
  private readonly level = new PlayingLevel();
  private readonly tuning = new OwnTuning();
  private readonly certainty = new Certainty();
  /** Moments before this frame of the take have been looked at. */
  private looked = 0;
  /** What begins before this frame of the take has been heard for good. */
  private concluded = 0;
  /** Begun, and not yet at its end. */
  private looking: Steps<void> | null = null;
  private concluding: Steps<void> | null = null;
  private readonly sounds: HeardSound[] = [];
  private readonly tracks: Float32Array[] = [];

  constructor(
    private readonly rate: Hz,
    private readonly options: TranscribeOptions = {},
  ) {
    if (!(rate >= 4_000 && rate <= 768_000))
      throw new RangeError(`sample rate ${rate} Hz is not one that audio comes in`);
    this.reader = new FrameReader(RATE);
    this.removal = options.backing ? new BandRemoval(rate, options.backing) : null;
    this.resampler = new Resampler(rate, RATE);
    this.cache = {
      spectra: new SpectrumCache(this.reader.signal, (frame) => this.frames[frame - this.first]),
      aligned: new AlignedSpectra(this.reader.signal),
      ringing: new RingingReader(this.reader.signal),
      traces: new StringTraces(this.reader.signal),
    };
    this.liveReader = options.live ? new FrameReader(rate, false) : null;
  }

  /**
   * @param block mono samples, −1 to 1; what is no number counts as silence
   * @returns notes as they seem now, for the live line: those that began or grew
   */
  push(block: Float32Array): ProvisionalNote[] {
    this.samples += block.length;
    const sound = finite(block);
    const alone = this.removal ? this.removal.push(sound) : this.resampler.push(sound);
    for (const frame of this.reader.push(this.echoes.push(alone))) {
      this.add(frame);
      if (this.known % LOOK_EVERY === 0) this.plan();
      if (this.looking?.next().done) this.looking = null;
      if (this.concluding?.next().done) this.concluding = null;
    }
    return this.liveReader ? this.live.push(this.liveReader.push(sound)) : [];
  }

  /** More of a backing that is given while it is played. */
  pushBacking(samples: Float32Array): void {
    this.removal?.pushBacking(samples);
  }

  finish(): Transcription {
    const last = (this.removal ?? this.resampler).finish();
    for (const rest of [this.echoes.push(last), this.echoes.finish()])
      for (const frame of this.reader.push(rest)) this.add(frame);
    for (const frame of this.reader.finish()) this.add(frame);
    if (this.concluding) toTheEnd(this.concluding);
    toTheEnd(this.conclude(this.known));
    const onClassify =
      this.options.tuning === undefined || this.options.tuning === 'auto' ? null : this.options.tuning;
    const a4 = onClassify ?? this.tuning.a4;
    return {
      schema: 'idle-wander/notes@1',
      notes: this.sounds
        .map((sound) => noteOf(sound, a4))
        .sort((a, b) => a.onsetSec - b.onsetSec || a.midi - b.midi),
      tuning: { a4: Math.round(a4 * 100) / 100 },
      durationSec: this.samples / this.rate,
      playingLevel: Math.max(SILENCE, Math.round(this.level.value * 10) / 10),
      certainty: this.certainty.value,
    };
  }

  /** The pitch track beside the notes, for the command line and for tests. */
  finishWithTrack(): { transcription: Transcription; track: PitchTrack; frameSeconds: Seconds } {
    const transcription = this.finish();
    return {
      transcription,
      track: Float64Array.from(this.tracks.flatMap((part) => [...part])),
      frameSeconds: FRAME_SECONDS,
    };
  }

  /** How much of the take is still held, to be heard for good. */
  get heldSec(): Seconds {
    return this.frames.length * FRAME_SECONDS;
  }

  /** Frames of the take that are known. */
  private get known(): number {
    return this.first + this.frames.length;
  }

  private add(frame: AnalysisFrame): void {
    this.frames.push(frame);
    this.level.add(frame);
  }

  private window(from: number, to: number): AnalysisWindow {
    return {
      from,
      frames: this.frames.slice(from - this.first, to - this.first),
      playing: this.level.value,
      ...(this.removal ? { bandOnsets: this.removal.attacks(from, to) } : {}),
    };
  }

  /**
   * What is done while the take goes on is done in bits, one with every frame: the live line need not wait
   * for it. How far it has come
   * depends on the frames alone, not on the clock, so that the same take gives the same notes on any machine.
   */
  private plan(): void {
    // who reads a file waits for the whole of it: there is no end of playing to be ready for
    if (this.options.live) this.looking ??= this.lookAhead(this.known);
    if (this.mayConclude())
      this.concluding ??= this.conclude(this.known - LOOK_BEHIND, this.concluded + PIECE);
  }

  /**
   * Hears the last seconds already as the conclusion will hear them, so that what is looked at and measured
   * there need not be again:
   * sights and ringing levels depend on the sound alone, and are remembered. Nothing here decides anything.
   */
  private *lookAhead(known: number): Steps<void> {
    const window = this.window(Math.max(this.first, this.looked - CONTEXT), known);
    yield* transcribeWindow(window, this.cache, window.frames.length - LOOK_BEHIND);
    this.looked = known - LOOK_BEHIND;
  }

  private mayConclude(): boolean {
    const held = this.known - LOOK_BEHIND - this.concluded;
    return (
      this.known >= ENOUGH &&
      held >= PIECE + SEAM + AFTER &&
      (this.level.value > SILENT_TAKE || held >= PATIENCE)
    );
  }

  /**
   * Hears for good what begins before a seam near `target`, or all there is; frames of the take.
   * @param known nothing after this frame is asked
   */
  private *conclude(known: number, target?: number): Steps<void> {
    const window = this.window(Math.max(this.first, this.concluded - CONTEXT), known);
    const from = this.concluded - window.from;
    const { onClassify: asked } = this.options;
    const told: Parameters<ClassifierListener>[] = [];
    const heard = yield* transcribeWindow(
      window,
      this.cache,
      window.frames.length,
      asked && ((...at) => told.push(at)),
    );
    const to = target === undefined ? window.frames.length : seamNear(target - window.from, heard.noteOnsets);
    this.keep(heard, window, from, to);
    for (const [moment, ...looks] of told)
      if (moment.frame >= from && moment.frame < to)
        asked!({ ...moment, frame: moment.frame + window.from }, ...looks);
    this.concluded = window.from + to;
    this.forget(this.concluded - CONTEXT);
  }

  private keep(
    { sounds, leftOut, track }: TranscriptionSegment,
    { frames, playing, from: offset }: AnalysisWindow,
    from: number,
    to: number,
  ): void {
    for (const sound of sounds) {
      if (sound.start.frame < from || sound.start.frame >= to) continue;
      this.sounds.push({
        ...sound,
        start: { ...sound.start, frame: sound.start.frame + offset },
        began: sound.began + offset,
        end: sound.end + offset,
      });
    }
    this.tuning.add(track.subarray(from, to));
    this.certainty.add({ sounds, leftOut, track }, frames, playing, from, to);
    this.tracks.push(Float32Array.from(track.subarray(from, to)));
  }

  /** Nothing before this frame of the take is asked any more. */
  private forget(before: number): void {
    if (before <= this.first) return;
    this.frames = this.frames.slice(before - this.first);
    this.first = before;
    this.reader.signal.forget(before * HOP - LONGEST_LOOK);
    this.cache.spectra.forget(before);
    this.cache.aligned.forget(before);
    this.cache.ringing.forget(before);
    this.removal?.forget(before);
  }
}

function toTheEnd(work: Steps<void>): void {
  while (!work.next().done);
}

/** A whole take at once; the same result as in blocks. */
export function transcribe(samples: Float32Array, rate: Hz, options: TranscribeOptions = {}): Transcription {
  const transcriber = new Transcriber(rate, options);
  transcriber.push(samples);
  return transcriber.finish();
}
