import type { PlanWords } from '@/core/plan';
import { beatsPerBar, readChart, timelineOf } from '@/core/chart';
import { beatsToSeconds, certain, secondsToBeats, type Beats } from '@/core/vocabulary';
import { peakOf } from '@/core/sound';
import type { CaptureBlock } from './captureMessage';
import type { ChunkSender } from './chunkSender';
import { InputError, openInput, type Input, type InputTrouble } from './input';
import { amendTake, beginTake, discardTake, finishTake, senderFor, ServerRefusal, type NewTake } from './takeStore';
import { LiveNotes } from './liveNotes';
import { LiveListener, studio } from './workers';

export type TakeSettings = {
  readonly chartId: string; readonly chartText: string; readonly tempo: number; readonly choruses: number; readonly countInBars: number;
  readonly plan: PlanWords; readonly bandLevel: number; readonly deviceId?: string; readonly seed: number;
};

export type Trouble = InputTrouble | 'second-take' | 'server';
export type SessionState =
  | { readonly phase: 'idle' }
  | { readonly phase: 'opening'; readonly what: string }
  | { readonly phase: 'running' }
  | { readonly phase: 'finishing'; readonly what: string }
  | { readonly phase: 'done'; readonly takeId: string; readonly cut: boolean }
  | { readonly phase: 'silent'; readonly takeId: string }
  | { readonly phase: 'failed'; readonly trouble: Trouble; readonly message: string };

const TAIL_SECONDS = 0.6;
const LEAD_SECONDS = 0.15;
const MOST_GAP_FRAMES = 2 ** 20;
/** The browser-wide lock a running take holds. */
export const TAKE_LOCK = 'idle-wander-take';

/**
 * One take from the press of a key to its review: input, band, capture, sending and listening on one audio clock.
 * The take's frame 0 and the band's beat 0 are both known in context time; the distance between them is what the analysis is told.
 */
export class TakeSession {
  state: SessionState = { phase: 'idle' };
  /** Peak of the last block in dBFS, and the highest since the take began. */
  level = -120;
  highest = -120;
  latency = 0;
  /** What is heard while it is played. */
  readonly line = new LiveNotes();
  /** How long after its sound each note of the line was drawn. */
  readonly drawnAfter: number[] = [];
  private readonly listeners = new Set<() => void>();
  private input: Input | null = null;
  private context: AudioContext | null = null;
  private band: { source: AudioBufferSourceNode; gain: GainNode } | null = null;
  private listener: LiveListener | null = null;
  private sender: ChunkSender | null = null;
  private takeId: string | null = null;
  private release: (() => void) | null = null;
  private firstFrame: number | null = null;
  private beatZero = Infinity;
  private kept = 0;
  private readonly formBeats: Beats;
  private readonly countIn: Beats;

  constructor(private readonly settings: TakeSettings) {
    const chart = certain(readChart(settings.chartText));
    this.formBeats = timelineOf(chart, settings.tempo).formBeats;
    this.countIn = settings.countInBars * beatsPerBar(chart.meter);
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  getState = (): SessionState => this.state;

  private become(state: SessionState): void {
    this.state = state;
    for (const listener of this.listeners) listener();
  }

  /** Beats since bar 1 as the player hears them; negative in the count-in. */
  position(): Beats {
    if (!this.context || !Number.isFinite(this.beatZero)) return -this.countIn;
    return secondsToBeats(this.context.currentTime - this.beatZero - (this.context.outputLatency || 0), this.settings.tempo);
  }

  /** Seconds of sound that the server has not acknowledged yet. */
  get waiting(): number {
    return this.sender?.waiting ?? 0;
  }

  get endBeat(): Beats {
    return this.formBeats * this.settings.choruses;
  }

  async start(): Promise<void> {
    if (this.state.phase !== 'idle') return;
    this.become({ phase: 'opening', what: 'Opening the input' });
    try {
      if (!(await this.lock())) return this.fail('second-take', 'Another take is being recorded in another tab. Finish that one first.');
      // nothing is monitored through the page, so room against dropouts is worth more than a quick answer; the delay is known and counted
      const context = new AudioContext({ latencyHint: 'playback' });
      this.context = context;
      await context.resume();
      const [input, samples] = await Promise.all([openInput(context, this.settings.deviceId), this.bandSamples(context.sampleRate)]);
      this.input = input;
      const take = await beginTake(this.newTake(context.sampleRate));
      this.takeId = take.id;
      this.sender = senderFor(take.id, context.sampleRate);
      this.listener = new LiveListener(context.sampleRate, samples, (notes) => this.line.add(notes));
      input.onEnded = () => void this.stop(true);
      this.strikeUp(context, samples);
      input.onBlock = (block) => this.hear(block);
      this.become({ phase: 'running' });
    } catch (error) {
      await this.abandon();
      if (error instanceof InputError) this.fail(error.trouble, INPUT_MESSAGES[error.trouble]);
      else this.fail('server', error instanceof ServerRefusal ? error.message : 'The take could not be started. Is the server still running?');
    }
  }

  private newTake(rate: number): NewTake {
    const { chartId, tempo, choruses, plan } = this.settings;
    return { chartId, tempo, choruses, plan, rate, source: 'microphone' };
  }

  private bandSamples(rate: number): Promise<Float32Array> {
    const { chartText, tempo, choruses, countInBars, seed } = this.settings;
    return studio({ type: 'band', chartText, tempo, choruses, countInBars, rate, seed });
  }

  private strikeUp(context: AudioContext, samples: Float32Array): void {
    const buffer = context.createBuffer(1, samples.length, context.sampleRate);
    buffer.getChannelData(0).set(samples);
    const source = new AudioBufferSourceNode(context, { buffer });
    const gain = new GainNode(context, { gain: this.settings.bandLevel });
    source.connect(gain).connect(context.destination);
    const start = context.currentTime + LEAD_SECONDS;
    source.start(start);
    this.band = { source, gain };
    this.beatZero = start + beatsToSeconds(this.countIn, this.settings.tempo);
    this.latency = context.baseLatency + (context.outputLatency || 0);
  }

  setBandLevel(level: number): void {
    if (this.band && this.context) this.band.gain.gain.setTargetAtTime(level, this.context.currentTime, 0.02);
  }

  private hear({ frame, samples }: CaptureBlock): void {
    if (this.state.phase !== 'running' && this.state.phase !== 'opening') return;
    if (this.firstFrame === null) this.begins(frame);
    this.level = peakOf(samples);
    this.highest = Math.max(this.highest, this.level);
    this.fillGap(frame - this.firstFrame! - this.kept);
    this.keep(samples);
    const end = this.beatZero + beatsToSeconds(this.endBeat, this.settings.tempo) + TAIL_SECONDS;
    if (this.context && (frame + samples.length) / this.context.sampleRate >= end) void this.stop(false);
  }

  private keep(samples: Float32Array): void {
    this.kept += samples.length;
    this.sender?.add(samples);
    this.listener?.block(samples);
  }

  /** Frames that never came stay silent in the take, so that everything after them keeps its time. */
  private fillGap(frames: number): void {
    if (frames > 0 && frames <= MOST_GAP_FRAMES) this.keep(new Float32Array(frames));
  }

  /** From the first block on it is known where beat 0 lies; the server is told at once, so that even a cut-off take can be judged. */
  private begins(frame: number): void {
    this.firstFrame = frame;
    if (this.takeId !== null) void amendTake(this.takeId, { offsetSec: this.offset() }).catch(() => undefined);
  }

  /** A moment of the take, in seconds from its first frame, in beats since bar 1 as the player heard them. */
  beatAt(seconds: number): Beats {
    return secondsToBeats(seconds - this.offset(), this.settings.tempo);
  }

  /** Told when a note of the live line is on the screen: keeps how long after its sound that was, in seconds. */
  drawn(onsetSec: number): void {
    const { context, firstFrame } = this;
    if (!context || firstFrame === null) return;
    requestAnimationFrame(() => this.drawnAfter.push(context.currentTime - firstFrame / context.sampleRate - onsetSec));
  }

  private offset(): number {
    return this.beatZero - (this.firstFrame ?? 0) / (this.context?.sampleRate ?? 1) + this.latency;
  }

  /** Ends the take and keeps it. @param cut the input went away by itself */
  async stop(cut: boolean): Promise<void> {
    if (this.state.phase !== 'running') return;
    this.become({ phase: 'finishing', what: 'Keeping the last notes' });
    const { context, sender, listener, takeId } = this;
    this.silence();
    if (!context || !sender || !listener || takeId === null) return;
    try {
      const [transcription] = await Promise.all([listener.finish(), sender.flush()]);
      if (this.kept === 0) {
        await discardTake(takeId);
        return this.fail('none', 'Nothing was recorded: the take ended before the first sound came in.');
      }
      await finishTake(takeId, sender.frames, this.offset(), transcription);
      this.become(transcription.notes.length === 0 ? { phase: 'silent', takeId } : { phase: 'done', takeId, cut });
    } catch (error) {
      this.fail('server', error instanceof ServerRefusal ? error.message : 'The take could not be finished. What was sent is safe and is offered again here.');
    } finally {
      this.unlock();
      void context.close();
    }
  }

  /** Ends the take and throws it away. */
  async discard(): Promise<void> {
    const { takeId } = this;
    await this.abandon();
    if (takeId !== null) await discardTake(takeId).catch(() => undefined);
    this.become({ phase: 'idle' });
  }

  private silence(): void {
    this.input?.close();
    this.band?.source.stop();
  }

  private async abandon(): Promise<void> {
    this.silence();
    this.sender?.stop();
    this.listener?.close();
    this.unlock();
    if (this.context && this.context.state !== 'closed') await this.context.close();
  }

  private fail(trouble: Trouble, message: string): void {
    this.become({ phase: 'failed', trouble, message });
  }

  /** One take at a time in this browser, whichever tab. */
  private lock(): Promise<boolean> {
    if (!navigator.locks) return Promise.resolve(true);
    return new Promise((answer) => {
      void navigator.locks.request(TAKE_LOCK, { ifAvailable: true }, (lock) => {
        answer(lock !== null);
        return lock === null ? undefined : new Promise<void>((free) => (this.release = free));
      });
    });
  }

  private unlock(): void {
    this.release?.();
    this.release = null;
  }
}

const INPUT_MESSAGES: Record<InputTrouble, string> = {
  refused: 'The microphone stays closed. Allow it at the left of the address line, or come in another way.',
  none: 'No input was found. Plug one in, or come in another way.',
  busy: 'The input is in use by another program. Close that one, or come in another way.',
  unsupported: 'This browser does not give sound to pages. Bring a recording instead.',
};
