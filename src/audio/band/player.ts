import { BAND_PARTS, type BandPart } from '@/core/band';
import { mixed, type BackingSource } from './source';
import { elementAt } from '@/core/shared';

/** Seconds of a window, and how far ahead of the present windows are handed to the context. */
const WINDOW = 2;
const AHEAD = 10;
/** The first windows must be there before the band begins. */
const BEFORE_START = 2;
const LOOK_EVERY_MS = 250;
/** Where each part stands, −1 left to 1 right: apart enough to be told. */
const PLACES: Record<BandPart, number> = { drums: 0, bass: -0.1, chords: 0.25, click: 0 };
const FADE = 0.02;

export type BandLevels = Readonly<Record<BandPart, number>>;

/** How well the band kept ahead of the clock. */
export type Punctuality = {
  /** Windows that were handed over after their time, and by how much at most, in seconds. */ readonly late: number;
  readonly latest: number;
  /** The least time a window was early. */ readonly leastAhead: number;
};

/**
 * Plays a backing on the context that records: windows are rendered ahead and started at their exact frame,
 * so that what is heard depends on the audio
 * clock alone and a busy page delays nothing.
 */
export class BandPlayer {
  /** A window could not be made: nothing follows it. */
  failed = false;
  punctuality: Punctuality = { late: 0, latest: 0, leastAhead: Infinity };
  private readonly gains = {} as Record<BandPart, GainNode>;
  private readonly master: GainNode;
  private readonly playing = new Set<AudioBufferSourceNode>();
  private ready: Promise<{ at: number; buffers: Partial<Record<BandPart, AudioBuffer>> }>[] = [];
  private nextWindow = 0;
  private timer: ReturnType<typeof setInterval> | null = null;
  private begins = Infinity;
  private stopped = false;

  /** @param onWindow is told every window before it sounds, as one mono signal */
  constructor(
    private readonly context: AudioContext,
    private readonly source: BackingSource,
    private levels: BandLevels,
    level: number,
    private readonly onWindow: (samples: Float32Array) => void,
  ) {
    this.master = new GainNode(context, { gain: level });
    this.master.connect(context.destination);
    for (const part of BAND_PARTS) {
      const place = new StereoPannerNode(context, { pan: PLACES[part] });
      this.gains[part] = new GainNode(context, { gain: levels[part] });
      this.gains[part].connect(place).connect(this.master);
    }
  }

  /** Renders the first windows; from then on the band can begin at once. */
  async prepare(): Promise<void> {
    for (let window = 0; window < BEFORE_START; window++) this.renderNext();
    await Promise.all(this.ready);
  }

  private get windowFrames(): number {
    return Math.round(WINDOW * this.context.sampleRate);
  }

  private renderNext(): boolean {
    const from = this.nextWindow * this.windowFrames;
    if (from >= this.source.length) return false;
    this.nextWindow++;
    const to = Math.min(this.source.length, from + this.windowFrames);
    this.ready.push(
      this.source.window(from, to).then((parts) => {
        this.onWindow(mixed(parts, this.levels));
        const buffers: Partial<Record<BandPart, AudioBuffer>> = {};
        for (const part of BAND_PARTS) {
          if (parts[part].every((value) => value === 0)) continue;
          const buffer = this.context.createBuffer(1, to - from, this.context.sampleRate);
          buffer.copyToChannel(parts[part] as Float32Array<ArrayBuffer>, 0);
          buffers[part] = buffer;
        }
        return { at: from, buffers };
      }),
    );
    return true;
  }

  /** Begins at a moment of the context's clock, moved to the next whole frame. @returns when beat 0 sounds */
  start(at: number): number {
    const { sampleRate } = this.context;
    this.begins = Math.ceil(at * sampleRate) / sampleRate;
    void this.feed();
    this.timer = setInterval(() => void this.feed(), LOOK_EVERY_MS);
    return this.begins + this.source.lead / sampleRate;
  }

  private feeding = false;
  private async feed(): Promise<void> {
    if (this.feeding || this.failed) return;
    this.feeding = true;
    try {
      for (;;) {
        if (
          this.ready.length === 0 &&
          (this.nextWindow * this.windowFrames) / this.context.sampleRate + this.begins >
            this.context.currentTime + AHEAD
        )
          return;
        if (this.ready.length === 0 && !this.renderNext()) return;
        const { at, buffers } = await elementAt(this.ready, 0);
        if (this.stopped) return;
        this.ready.shift();
        this.schedule(at, buffers);
      }
    } catch {
      this.failed = !this.stopped;
    } finally {
      this.feeding = false;
    }
  }

  private schedule(at: number, buffers: Partial<Record<BandPart, AudioBuffer>>): void {
    const when = this.begins + at / this.context.sampleRate;
    const ahead = when - this.context.currentTime;
    const { late, latest, leastAhead } = this.punctuality;
    this.punctuality = {
      late: late + (ahead < 0 ? 1 : 0),
      latest: Math.max(latest, -ahead),
      leastAhead: Math.min(leastAhead, ahead),
    };
    for (const part of BAND_PARTS) {
      const buffer = buffers[part];
      if (!buffer) continue;
      const node = new AudioBufferSourceNode(this.context, { buffer });
      node.connect(this.gains[part]);
      node.onended = () => {
        node.disconnect();
        this.playing.delete(node);
      };
      node.start(when);
      this.playing.add(node);
    }
  }

  setLevel(level: number): void {
    this.master.gain.setTargetAtTime(level, this.context.currentTime, FADE);
  }
  setLevels(levels: BandLevels): void {
    this.levels = levels;
    for (const part of BAND_PARTS)
      this.gains[part].gain.setTargetAtTime(levels[part], this.context.currentTime, FADE);
  }

  /** Falls silent at once, without a click. */
  stop(): void {
    this.stopped = true;
    if (this.timer) clearInterval(this.timer);
    this.master.gain.setTargetAtTime(0, this.context.currentTime, FADE / 2);
    const gone = [...this.playing];
    setTimeout(() => {
      for (const node of gone) node.stop();
      this.master.disconnect();
    }, 150);
  }
}
