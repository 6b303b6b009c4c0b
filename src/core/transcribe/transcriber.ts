import { SILENCE } from '../sound';
import type { Decibels, Hz, Seconds } from '../vocabulary';
import { BandRemoval, type Backing, type BackingStream } from './bandRemoval';
import { certaintyOf } from './certainty';
import { EvidenceReader, SightReader, type Claim } from './evidence';
import { judge, unpack } from './judge';
import { FITTED } from './judgeWeights';
import { FRAME_SECONDS, framesOf, FrameReader, RATE, type Frame } from './frames';
import { settleGlides } from './glides';
import { LiveLine, type ProvisionalNote } from './live';
import { momentsOf, type Moment } from './moments';
import { notesOf, playingLevel, type HeardNote } from './notes';
import { onsetsOf, riseAt } from './onsets';
import { pathOf, type PitchTrack } from './path';
import { RingingReader, type Ringing } from './ringing';
import { strikesOf, type Judged, type Strike } from './strikes';
import { tuningOf } from './tuning';

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
};

const NETWORKS = FITTED.map(unpack);

/** Below this a frame has no pitch: far under the playing level, or less than any input gives. */
const GATE_UNDER_PLAYING: Decibels = 42;
const LOWEST_GATE: Decibels = -92;
/** A take that is nowhere louder is silence and the noise of its input. */
const SILENT_TAKE: Decibels = -72;
/** Peaks of the flux this near are one attack. */
const SAME_ATTACK = 5;
const STRUCK_RISE: Decibels = 2.5;
/** Moments are looked at every two seconds, once half a second more is known, with six seconds before them to find the pitch by. */
const LOOK_EVERY = framesOf(2);
const LOOK_BEHIND = framesOf(0.5);
const LOOK_CONTEXT = framesOf(6);

/**
 * Hears a guitar: audio in blocks, notes at the end; while it goes on, a live line. Frames are measured block by block; `finish` asks
 * at every moment what begins there, draws the path through what is believed, and writes the notes: a good second for a take of three
 * minutes. What is kept grows with the take alone: 153 MB for half an hour.
 *
 * The method (docs/decisions/0007-ears.md): two-window YIN candidates weighted as in pYIN, moments from spectral flux and steps, claims
 * from harmonic sums judged by a small network, one best path, glides and gestures read from it.
 */
export class Transcriber {
  private readonly reader: FrameReader;
  private readonly removal: BandRemoval | null;
  private readonly frames: Frame[] = [];
  private readonly live = new LiveLine();
  /** While the band is being taken out the notes come late: the live line listens to the recording as it is. */
  private readonly liveReader: FrameReader | null;
  private samples = 0;
  private readonly sights: SightReader;
  private readonly ringing: RingingReader;
  /** Moments before this frame have been looked at. */
  private looked = 0;

  constructor(private readonly rate: Hz, private readonly options: TranscribeOptions = {}) {
    if (!(rate >= 4_000 && rate <= 768_000)) throw new RangeError(`sample rate ${rate} Hz is not one that audio comes in`);
    this.reader = new FrameReader(options.backing ? RATE : rate);
    this.removal = options.backing ? new BandRemoval(rate, options.backing) : null;
    this.sights = new SightReader(this.reader.signal, this.frames);
    this.ringing = new RingingReader(this.reader.signal);
    this.liveReader = options.backing && options.live ? new FrameReader(rate, false) : null;
  }

  /**
   * @param block mono samples, −1 to 1; what is no number counts as silence
   * @returns notes as they seem now, for the live line: those that began or grew
   */
  push(block: Float32Array): ProvisionalNote[] {
    this.samples += block.length;
    const sound = block.every(Number.isFinite) ? block : block.map((value) => (Number.isFinite(value) ? value : 0));
    const frames = this.reader.push(this.removal ? this.removal.push(sound) : sound);
    for (const frame of frames) this.frames.push(frame);
    if (this.frames.length >= this.looked + LOOK_EVERY + LOOK_BEHIND) this.lookAhead();
    return this.options.live ? this.live.push(this.liveReader ? this.liveReader.push(sound) : frames) : [];
  }

  /** More of a backing that is given while it is played. */
  pushBacking(samples: Float32Array): void {
    this.removal?.pushBacking(samples);
  }

  /**
   * Hears the last seconds already as the end of the take will hear them, so that what is looked at and measured there need not be again:
   * sights and ringing levels depend on the sound alone, and are remembered. Nothing here decides anything.
   */
  private lookAhead(): void {
    const from = Math.max(0, this.looked - LOOK_CONTEXT);
    const frames = this.frames.slice(from);
    const playing = playingLevel(frames);
    if (playing > SILENT_TAKE) {
      const gate = Math.max(LOWEST_GATE, playing - GATE_UNDER_PLAYING);
      const track = pathOf(frames, onsetsOf(frames), gate);
      const evidence = new EvidenceReader(this.sights, frames, track, playing, from);
      const judged: Judged[] = [];
      this.eachAmong(momentsOf(frames, track), frames.length, (moment, previous, next, soft) => {
        if (moment.frame < frames.length - LOOK_BEHIND) judged.push(judgedClaims(moment, evidence.claimsAt(moment, previous, next, soft)));
      });
      this.settled(strikesOf(judged), frames, gate, this.ringing.from(from), 440);
    }
    this.looked = this.frames.length - LOOK_BEHIND;
  }

  private close(): void {
    if (this.removal) for (const frame of this.reader.push(this.removal.finish())) this.frames.push(frame);
    for (const frame of this.reader.finish()) this.frames.push(frame);
  }

  finish(): Transcription {
    this.close();
    return this.conclude().transcription;
  }

  /** The pitch track beside the notes, for the command line and for tests. */
  finishWithTrack(): { transcription: Transcription; track: PitchTrack; frameSeconds: Seconds } {
    this.close();
    return { ...this.conclude(), frameSeconds: FRAME_SECONDS };
  }

  /** What the judge is asked at every moment: for learning and for tests. */
  finishWithClaims(): { moment: Moment; claims: readonly Claim[] }[] {
    this.close();
    const found: { moment: Moment; claims: readonly Claim[] }[] = [];
    this.eachMoment((moment, claims) => found.push({ moment, claims }));
    return found;
  }

  /** Gathers the evidence moment by moment, in order. */
  private eachMoment(tell: (moment: Moment, claims: readonly Claim[]) => void): void {
    const { frames } = this;
    const track = pathOf(frames, onsetsOf(frames), this.gate());
    const moments = momentsOf(frames, track);
    const evidence = new EvidenceReader(this.sights, frames, track, this.playing());
    this.eachAmong(moments, frames.length, (moment, previous, next, soft) => tell(moment, evidence.claimsAt(moment, previous, next, soft)));
  }

  /** Each moment with the clear moments around it and the next of any kind, in frames. */
  private eachAmong(moments: readonly Moment[], length: number, tell: (moment: Moment, previous: number, next: number, soft: number) => void): void {
    const clear = moments.filter((moment) => moment.clear).map(({ frame }) => frame);
    let passed = 0;
    for (const [index, moment] of moments.entries()) {
      while (passed < clear.length && clear[passed]! < moment.frame) passed++;
      const previous = clear[passed - 1] ?? 0;
      let later = passed;
      while (later < clear.length && clear[later]! - moment.frame <= SAME_ATTACK) later++;
      let any = index + 1;
      while (any < moments.length && moments[any]!.frame - moment.frame <= SAME_ATTACK) any++;
      tell(moment, previous, clear[later] ?? length, moments[any]?.frame ?? length);
    }
  }

  private judged(): Judged[] {
    const judged: Judged[] = [];
    this.eachMoment((moment, claims) => judged.push(judgedClaims(moment, claims)));
    return judged;
  }

  private gate(): Decibels {
    return Math.max(LOWEST_GATE, this.playing() - GATE_UNDER_PLAYING);
  }

  /** The level of the whole take, worked out once at its end. */
  private playing(): Decibels {
    return (this.played ??= playingLevel(this.frames));
  }
  private played: Decibels | null = null;

  /** From what is believed to notes. @param asked frequency of A4; null to find it */
  private settled(believed: readonly Strike[], frames: readonly Frame[], gate: Decibels, ringing: Ringing, asked: Hz | null): { notes: HeardNote[]; track: PitchTrack; a4: Hz } {
    const known = believed.flatMap(({ starts }, index) => starts.map(({ frame, midi }) => ({ from: frame, to: believed[index + 1]?.frame ?? frames.length, midi, struck: riseAt(frames, frame) >= STRUCK_RISE })));
    const track = pathOf(frames, believed, gate, known);
    const a4 = asked ?? tuningOf(track);
    return { notes: notesOf(settleGlides(believed, track, frames), track, frames, ringing, a4), track, a4 };
  }

  private conclude(): { transcription: Transcription; track: PitchTrack } {
    const { frames } = this;
    const playing = this.playing();
    const believed = playing <= SILENT_TAKE ? [] : strikesOf(this.judged(), this.removal?.attacks());
    const asked = this.options.tuning === undefined || this.options.tuning === 'auto' ? null : this.options.tuning;
    const { notes, track, a4 } = this.settled(believed, frames, this.gate(), this.ringing, asked);
    const transcription: Transcription = {
      schema: 'idle-wander/notes@1', notes, tuning: { a4: Math.round(a4 * 100) / 100 }, durationSec: this.samples / this.rate,
      playingLevel: Math.max(SILENCE, Math.round(playing * 10) / 10), certainty: certaintyOf(notes, track, frames, playing),
    };
    return { transcription, track };
  }
}

const judgedClaims = (moment: Moment, claims: readonly Claim[]): Judged => ({ moment, claims: claims.map(({ midi, features }) => ({ midi, belief: judge(NETWORKS, features) })) });

/** A whole take at once; the same result as in blocks. */
export function transcribe(samples: Float32Array, rate: Hz, options: TranscribeOptions = {}): Transcription {
  const transcriber = new Transcriber(rate, options);
  transcriber.push(samples);
  return transcriber.finish();
}

