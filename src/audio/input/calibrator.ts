import {
  AGREEING,
  clappedLatency,
  clickSound,
  clickTimes,
  delayOfClick,
  latencyOf,
  LONGEST_DELAY,
  strokesOf,
  type Clapped,
  type Latency,
} from '@/core/align';
import type { AudioInput } from './audioInput';
import { createStore, elementAt } from '@/core/shared';

export type CalibrationState =
  | { readonly phase: 'idle' }
  | {
      readonly phase: 'clicking';
      /** Delays so far in seconds, null where a click was not heard. */ readonly delays: readonly (
        number | null
      )[];
      readonly latency: Latency | null;
    }
  | { readonly phase: 'clapping'; readonly count: number; readonly of: number }
  | {
      readonly phase: 'found';
      readonly seconds: number;
      readonly by: 'clicks' | 'claps';
      readonly delays: readonly (number | null)[];
      readonly withinSeconds: number;
    }
  | {
      readonly phase: 'failed';
      readonly reason: CalibrationFailure;
      readonly delays: readonly (number | null)[];
    };

/** Why a measurement came to nothing; `scattered` claps lie so many milliseconds apart. */
export type CalibrationFailure =
  | { readonly kind: 'no-input' | 'clicks-unheard' | 'clicks-disagree' | 'claps-unheard' }
  | { readonly kind: 'claps-scattered'; readonly spreadMs: number };

const MOST_CLICKS = 32;
/** Low at first; louder while nothing is heard. */
const FIRST_GAIN = 0.2;
const QUIET_CLICKS = 3;
const HEARD_AFTER = LONGEST_DELAY + 0.06;
const CLAP_BPM = 100;
const CLAP_LEAD = 4;
const CLAPS = 16;
/** Claps that scatter more than this say nothing. */
const MOST_SCATTER = 0.03;

/** What the input heard lately, to be asked by the context's own frames. */
class Memory {
  private blocks: { frame: number; samples: Float32Array }[] = [];
  constructor(private readonly frames: number) {}
  add(frame: number, samples: Float32Array): void {
    this.blocks.push({ frame, samples });
    while (this.blocks.length > 1 && elementAt(this.blocks, 0).frame + this.frames < frame)
      this.blocks.shift();
  }
  read(from: number, length: number): Float32Array {
    const out = new Float32Array(length);
    for (const { frame, samples } of this.blocks)
      for (let n = Math.max(0, from - frame); n < samples.length && frame + n < from + length; n++)
        out[frame + n - from] = elementAt(samples, n);
    return out;
  }
  get end(): number {
    const last = this.blocks[this.blocks.length - 1];
    return last ? last.frame + last.samples.length : 0;
  }
}

/** Finds the round trip of the open device: by clicks that it hears itself, or by a player who claps along. */
export class Calibrator {
  private readonly store = createStore<CalibrationState>({ phase: 'idle' });
  private stopAll: (() => void) | null = null;

  constructor(private readonly input: AudioInput) {}

  readonly subscribe = this.store.subscribe;
  readonly getState = this.store.get;
  get state(): CalibrationState {
    return this.store.get();
  }
  private become(state: CalibrationState): void {
    this.store.set(state);
  }

  cancel(): void {
    this.stopAll?.();
    this.stopAll = null;
    if (this.state.phase === 'clicking' || this.state.phase === 'clapping') this.become({ phase: 'idle' });
  }

  /** Clicks go out and must come back: through a cable, or from a loudspeaker into a microphone or pickup. */
  async click(): Promise<void> {
    this.cancel();
    const { context, device } = this.input;
    if (!context || !device)
      return this.become({ phase: 'failed', reason: { kind: 'no-input' }, delays: [] });
    const rate = context.sampleRate;
    const memory = new Memory(2 * rate);
    const stopHearing = this.input.hear(({ frame, samples }) => memory.add(frame, samples));
    const out = this.output(context);
    const sound = context.createBuffer(1, clickSound(rate).length, rate);
    sound.copyToChannel(clickSound(rate) as Float32Array<ArrayBuffer>, 0);
    let stopped = false;
    this.stopAll = () => {
      stopped = true;
      stopHearing();
      out.disconnect();
    };
    const delays: (number | null)[] = [];
    let gain = FIRST_GAIN;
    this.become({ phase: 'clicking', delays, latency: null });
    const gaps = clickTimes(MOST_CLICKS + 1, 7);
    for (let index = 0; index < MOST_CLICKS; index++) {
      // on a whole frame, so that the moment it was asked for is the moment it is played
      const frame = Math.ceil((context.currentTime + 0.06) * rate);
      const level = new GainNode(context, { gain });
      const source = new AudioBufferSourceNode(context, { buffer: sound });
      source.connect(level).connect(out);
      source.start(frame / rate);
      const wanted = Math.round(HEARD_AFTER * rate);
      const until = performance.now() + 3_000;
      while (!stopped && memory.end < frame + wanted && performance.now() < until) await pause(20);
      if (stopped) return;
      delays.push(delayOfClick(memory.read(frame, wanted), rate));
      if (
        delays.slice(-QUIET_CLICKS).length === QUIET_CLICKS &&
        delays.slice(-QUIET_CLICKS).every((delay) => delay === null)
      )
        gain = Math.min(1, gain * 1.6);
      const latency = latencyOf(delays);
      this.become({ phase: 'clicking', delays: [...delays], latency });
      if (latency?.agreed) {
        this.stopAll();
        return this.become({
          phase: 'found',
          seconds: latency.seconds,
          by: 'clicks',
          delays: [...delays],
          withinSeconds: latency.withinSeconds,
        });
      }
      await pause(1000 * Math.max(0, elementAt(gaps, index + 1) - elementAt(gaps, index) - HEARD_AFTER));
      if (stopped) return;
    }
    this.stopAll();
    const heard = delays.filter((delay) => delay !== null).length;
    this.become({
      phase: 'failed',
      delays: [...delays],
      reason: { kind: heard < AGREEING ? 'clicks-unheard' : 'clicks-disagree' },
    });
  }

  /** Clicks to clap or strum along with: for headphones that no microphone hears. */
  async clap(): Promise<void> {
    this.cancel();
    const { context, device } = this.input;
    if (!context || !device)
      return this.become({ phase: 'failed', reason: { kind: 'no-input' }, delays: [] });
    const rate = context.sampleRate;
    const pieces: { frame: number; samples: Float32Array }[] = [];
    const stopHearing = this.input.hear(({ frame, samples }) => pieces.push({ frame, samples }));
    const out = new GainNode(context, { gain: 0.3 });
    out.connect(context.destination);
    let stopped = false;
    this.stopAll = () => {
      stopped = true;
      stopHearing();
      out.disconnect();
    };
    const sound = context.createBuffer(1, clickSound(rate).length, rate);
    sound.copyToChannel(clickSound(rate) as Float32Array<ArrayBuffer>, 0);
    const start = context.currentTime + 0.2;
    const times = Array.from({ length: CLAP_LEAD + CLAPS }, (_, index) => start + (index * 60) / CLAP_BPM);
    for (const time of times) {
      const source = new AudioBufferSourceNode(context, { buffer: sound });
      source.connect(out);
      source.start(time);
    }
    const end = elementAt(times, times.length - 1) + LONGEST_DELAY + 0.1;
    while (!stopped && context.currentTime < end) {
      this.become({
        phase: 'clapping',
        count: times.filter((time) => time <= context.currentTime).length,
        of: times.length,
      });
      await pause(100);
    }
    if (stopped) return;
    this.stopAll();
    const first = pieces[0]?.frame ?? 0;
    const all = new Float32Array(pieces.reduce((sum, { samples }) => sum + samples.length, 0));
    for (const { frame, samples } of pieces)
      if (frame - first + samples.length <= all.length) all.set(samples, frame - first);
    const found: Clapped | null = clappedLatency(
      strokesOf(all, rate),
      times.slice(CLAP_LEAD).map((time) => time - first / rate),
    );
    if (!found || found.spreadSeconds > MOST_SCATTER)
      return this.become({
        phase: 'failed',
        delays: [],
        reason: found
          ? { kind: 'claps-scattered', spreadMs: Math.round(found.spreadSeconds * 1000) }
          : { kind: 'claps-unheard' },
      });
    this.become({
      phase: 'found',
      seconds: found.seconds,
      by: 'claps',
      delays: [],
      withinSeconds: found.spreadSeconds,
    });
  }

  /** To the loudspeakers, and where the device is simulated into its cable too. */
  private output(context: AudioContext): GainNode {
    const out = new GainNode(context);
    out.connect(context.destination);
    const { device } = this.input;
    if (device?.cable) out.connect(device.cable);
    return out;
  }
}

const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));
