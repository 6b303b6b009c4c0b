import { createStore } from '@/core/shared';
import { SILENCE } from '@/core/sound';
import type { CaptureBlock, Channel } from './captureMessage';
import { InputError, listDevices, type Device, type DeviceChoice, type InputTrouble } from './device';
import { latencyFor } from './latencies';
import { openMicrophone } from './microphone';
import { openStandIn } from './standInDevice';

export type AudioInputState =
  | { readonly phase: 'closed' }
  | { readonly phase: 'opening' }
  | {
      readonly phase: 'open';
      readonly label: string;
      readonly channels: number;
      readonly refusals: readonly string[];
      readonly rate: number;
    }
  /** The device went away: unplugged, or taken by another program. */
  | { readonly phase: 'lost'; readonly label: string }
  | { readonly phase: 'trouble'; readonly trouble: InputTrouble };

const decibels = (peak: number): number => (peak > 0 ? Math.max(SILENCE, 20 * Math.log10(peak)) : SILENCE);
/** As loud as full scale, or nearly: the tops are gone. */
const CLIPPED = 0.985;

/**
 * The player's rig: one audio context with one device on it, open from the first take to the last, so that
 * the next count-in waits for
 * nothing. Everything in it is stamped by the context's clock.
 */
export class AudioInput {
  private readonly store = createStore<AudioInputState>({ phase: 'closed' });
  context: AudioContext | null = null;
  device: Device | null = null;
  choice: DeviceChoice | null = null;
  /** Peak of each channel in the last block, in dBFS, and the highest of the chosen one since `listenAnew`. */
  levels: readonly number[] = [];
  highest = SILENCE;
  /** How often the chosen channel reached full scale since `listenAnew`. */
  clipped = 0;
  /** The browser has stopped the context's clock, as it may when the output goes away or the page is not heard. */
  isHalted = false;
  private watching: AbortController | null = null;
  private readonly ears = new Set<(block: CaptureBlock) => void>();
  private turn = 0;

  readonly subscribe = this.store.subscribe;
  readonly getState = this.store.get;
  get state(): AudioInputState {
    return this.store.get();
  }
  private become(state: AudioInputState): void {
    this.store.set(state);
  }

  /** Hears every block until told to stop. */
  hear(ear: (block: CaptureBlock) => void): () => void {
    this.ears.add(ear);
    return () => this.ears.delete(ear);
  }

  get channel(): Channel {
    return this.choice?.kind === 'input' ? this.choice.channel : 'mix';
  }

  /** Level of what is listened to, in dBFS. */
  get level(): number {
    const chosen =
      this.channel === 'mix'
        ? Math.max(SILENCE, ...this.levels)
        : (this.levels[this.channel] ?? this.levels[0] ?? SILENCE);
    return chosen;
  }

  listenAnew(): void {
    this.highest = SILENCE;
    this.clipped = 0;
  }

  /**
   * Seconds from a moment of the context's clock, as it is scheduled, to the same sound as it is recorded:
   * what a calibration found for this
   * device, else what the browser says of itself.
   */
  get latency(): { readonly seconds: number; readonly measured: boolean } {
    const { context, device } = this;
    const found = device ? latencyFor(device.key) : null;
    if (found !== null) return { seconds: found, measured: true };
    if (device?.hands && this.choice?.kind === 'stand-in')
      return { seconds: this.choice.delayMs / 1000, measured: false };
    return { seconds: context ? context.baseLatency + (context.outputLatency || 0) : 0, measured: false };
  }

  /** Opens a device; the one that was open is closed first. Opening the same again does nothing. */
  async open(choice: DeviceChoice): Promise<boolean> {
    if (this.state.phase === 'open' && same(this.choice, choice)) {
      await this.context?.resume();
      return true;
    }
    const turn = ++this.turn;
    if (this.chooseChannel(choice)) return true;
    this.device?.close();
    this.device = null;
    this.choice = choice;
    this.levels = [];
    this.listenAnew();
    this.become({ phase: 'opening' });
    try {
      // nothing is monitored through the page, so room against dropouts is worth more than a quick answer;
      // the delay is known and counted
      const context = (this.context ??= this.watched(new AudioContext({ latencyHint: 'playback' })));
      await context.resume();
      const device = await openDevice(context, choice);
      if (turn === this.turn) return this.useDevice(device, context.sampleRate);
      device.close();
      return false;
    } catch (error) {
      if (turn !== this.turn) return false;
      this.become({ phase: 'trouble', trouble: error instanceof InputError ? error.trouble : 'busy' });
      return false;
    }
  }

  /** A clock that stops is started again at once; where the browser wants a press for that, at the next one. */
  private watched(context: AudioContext): AudioContext {
    this.watching = new AbortController();
    const { signal } = this.watching;
    const goOn = () => {
      if (this.isHalted) void context.resume().catch(() => undefined);
    };
    const look = () => {
      this.isHalted = this.device !== null && context.state !== 'running' && context.state !== 'closed';
      goOn();
    };
    context.addEventListener('statechange', look, { signal });
    window.addEventListener('pointerdown', goOn, { signal });
    return context;
  }

  /** Another channel of the input that is open: nothing is opened anew. */
  private chooseChannel(choice: DeviceChoice): boolean {
    if (this.state.phase !== 'open' || choice.kind !== 'input') return false;
    if (this.choice?.kind !== 'input' || this.choice.deviceId !== choice.deviceId) return false;
    this.device?.choose(choice.channel);
    this.choice = choice;
    this.listenAnew();
    return true;
  }

  private useDevice(device: Device, rate: number): true {
    device.onBlock = (block) => this.take(block);
    device.onEnded = () => this.lose(device);
    this.device = device;
    const { label, channels, refusals } = device;
    this.become({ phase: 'open', label, channels, refusals, rate });
    return true;
  }

  private take(block: CaptureBlock): void {
    this.levels = block.peaks.map(decibels);
    this.highest = Math.max(this.highest, this.level);
    if (block.samples.some((value) => Math.abs(value) >= CLIPPED)) this.clipped++;
    const { state } = this;
    // how many channels there truly are is known when they sound
    if (state.phase === 'open' && block.peaks.length > state.channels)
      this.become({ ...state, channels: block.peaks.length });
    for (const ear of this.ears) ear(block);
  }

  private lose(device: Device): void {
    if (this.device !== device) return;
    this.device = null;
    device.close();
    this.become({ phase: 'lost', label: device.label });
    this.openOnReturn(device.label);
  }

  /** An input that is plugged in again is listened to again, unless another was chosen meanwhile. */
  private openOnReturn(label: string): void {
    const { choice, turn } = this;
    const media = navigator.mediaDevices;
    if (choice?.kind !== 'input') return;
    const look = async () => {
      const stillLost = () => this.state.phase === 'lost' && this.turn === turn;
      const isBack =
        stillLost() &&
        (await listDevices('audioinput')).some(
          (input) =>
            input.label === label && (choice.deviceId === null || input.deviceId === choice.deviceId),
        );
      if (stillLost() && !isBack) return;
      media.removeEventListener('devicechange', look);
      if (isBack && stillLost()) await this.open(choice);
    };
    media.addEventListener('devicechange', look);
  }

  /** Plays through another output where the browser can; false where it cannot. */
  async speakThrough(deviceId: string): Promise<boolean> {
    const context = this.context as (AudioContext & { setSinkId?: (id: string) => Promise<void> }) | null;
    if (!context?.setSinkId) return false;
    await context.setSinkId(deviceId);
    return true;
  }

  async close(): Promise<void> {
    this.turn++;
    this.device?.close();
    this.device = null;
    const { context } = this;
    this.context = null;
    this.watching?.abort();
    this.isHalted = false;
    this.become({ phase: 'closed' });
    if (context && context.state !== 'closed') await context.close();
  }
}

const same = (a: DeviceChoice | null, b: DeviceChoice): boolean => JSON.stringify(a) === JSON.stringify(b);

const openDevice = (context: AudioContext, choice: DeviceChoice) =>
  choice.kind === 'input'
    ? openMicrophone(context, choice.deviceId, choice.channel)
    : openStandIn(context, choice.character, choice.delayMs);
