import type { PlayedNote } from '@/core/analyse';
import { beatAt, secondsAt, type Pace } from '@/core/chart';
import { limiterOn } from './limiter';
import { stretched } from './stretch';
import { createStore, present, elementAt, type Beats, type Seconds } from '@/core/shared';

/**
 * What a take is heard from: its sound and the band's, mono, in seconds of the take; either may have to be
 * made first.
 */
export type PlayerSource = {
  readonly pace: Pace;
  /** Where beat 0 lies in the sound. */
  readonly offsetSec: Seconds;
  readonly endBeat: Beats;
  /** @param notes what is plucked where there is no sound */
  take(context: BaseAudioContext, notes: readonly PlayedNote[]): Promise<Float32Array>;
  /** It has no sound but its notes: when those change it has to be made anew. */
  readonly plucked: boolean;
  band(rate: number): Promise<Float32Array>;
};

export type PlaybackLevels = { readonly take: number; readonly band: number; readonly click: number };
export type PlayTrouble = 'sound-unopened' | 'note-unmoved';
export type PlayerState = {
  readonly phase: 'idle' | 'loading' | 'playing';
  readonly speed: number;
  readonly levels: PlaybackLevels;
  readonly loop: readonly [Beats, Beats] | null;
  readonly trouble: PlayTrouble | null;
};
/** One note of the take moved by so many semitones: the one-note fix, heard. */
export type Patch = { readonly onsetSec: Seconds; readonly offsetSec: Seconds; readonly semitones: number };

export const SPEEDS = [0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.1, 1.2] as const;

/** At its own speed the sound is cut this long; slowed, shorter, for each piece has to be made first. */
const PIECE: Seconds = 20;
const SLOWED_PIECE: Seconds = 5;
/** Pieces overlap by this much and fade into one another. */
const SEAM: Seconds = 0.02;
const AHEAD: Seconds = 0.7;
/** A slowed piece has to be made first: it is begun this long before it is needed. */
const SLOWED_AHEAD: Seconds = 5;
const TICK_MS = 120;
const START: Seconds = 0.06;
const CLICK: Seconds = 0.03;

type Piece = {
  readonly when: Seconds;
  readonly until: Seconds;
  readonly from: Seconds;
  readonly speed: number;
};
type Part = 'take' | 'band';

/**
 * Plays a take, the band, or both, from any note, in a loop, slower or faster at their own pitch. All of it
 * is scheduled on one audio
 * clock, and where the sound is now is read from that clock, the output's own delay counted: the cursor
 * cannot drift from the ear.
 */
export class TakePlayer {
  private readonly store = createStore<PlayerState>({
    phase: 'idle',
    speed: 1,
    levels: { take: 1, band: 0, click: 0 },
    loop: null,
    trouble: null,
  });
  private context: AudioContext | null = null;
  private gains: Record<Part | 'click', GainNode> | null = null;
  private readonly sounds = new Map<Part, Promise<Float32Array>>();
  private pieces: Piece[] = [];
  private playing: AudioScheduledSourceNode[] = [];
  private timer: ReturnType<typeof setInterval> | null = null;
  private turn = 0;
  /** Where the next piece begins: seconds of the take, and of the clock. */
  private next: { from: Seconds; when: Seconds } = { from: 0, when: 0 };
  private clicked: Beats = 0;
  private making = false;
  private resting: Beats = 0;

  constructor(private readonly source: PlayerSource) {}

  readonly subscribe = this.store.subscribe;
  readonly getState = this.store.get;
  get state(): PlayerState {
    return this.store.get();
  }
  private become(change: Partial<PlayerState>): void {
    this.store.set({ ...this.state, ...change });
  }

  private notes: readonly PlayedNote[] = [];

  /** What is plucked where the take has no sound. */
  hasNotes(notes: readonly PlayedNote[]): void {
    this.notes = notes;
    if (this.source.plucked) this.sounds.delete('take');
  }

  private secondsOf = (beat: Beats): Seconds => this.source.offsetSec + secondsAt(this.source.pace, beat);

  /** The beat that is heard now; where playing would go on from, while nothing plays. */
  get beat(): Beats {
    const { context } = this;
    if (this.state.phase !== 'playing' || !context) return this.resting;
    const now = context.currentTime - (context.outputLatency || 0);
    const piece = this.pieces.findLast(({ when }) => when <= now) ?? this.pieces[0];
    if (!piece) return this.resting;
    return beatAt(
      this.source.pace,
      piece.from + Math.max(0, Math.min(now, piece.until) - piece.when) * piece.speed - this.source.offsetSec,
    );
  }

  private sound(part: Part): Promise<Float32Array> {
    const { context } = this;
    let sound = this.sounds.get(part);
    if (!sound) {
      sound =
        part === 'take'
          ? this.source.take(present(context), this.notes)
          : this.source.band(present(context).sampleRate);
      this.sounds.set(part, sound);
      sound.catch(() => this.sounds.delete(part));
    }
    return sound;
  }

  private parts(): Part[] {
    return (['take', 'band'] as const).filter((part) => this.state.levels[part] > 0);
  }

  private open(): AudioContext {
    if (this.context) return this.context;
    const context = new AudioContext({ latencyHint: 'interactive' });
    const out = limiterOn(context);
    const gain = (value: number) => {
      const node = new GainNode(context, { gain: value });
      node.connect(out);
      return node;
    };
    const { take, band, click } = this.state.levels;
    this.gains = { take: gain(take), band: gain(band), click: gain(click) };
    return (this.context = context);
  }

  async play(
    from: Beats = this.resting,
    loop: readonly [Beats, Beats] | null = this.state.loop,
  ): Promise<void> {
    const turn = this.begin(loop);
    const context = this.open();
    try {
      await context.resume();
      await Promise.all(this.parts().map((part) => this.sound(part)));
    } catch {
      if (turn === this.turn) this.become({ phase: 'idle', trouble: 'sound-unopened' });
      return;
    }
    if (turn !== this.turn) return;
    const start = loop && (from < loop[0] || from >= loop[1]) ? loop[0] : from;
    this.next = { from: this.secondsOf(start), when: context.currentTime + START };
    this.clicked = Math.ceil(start - 1e-6);
    await this.schedule(turn);
    if (turn !== this.turn) return;
    this.become({ phase: 'playing' });
    this.timer = setInterval(() => void this.schedule(turn), TICK_MS);
  }

  /** The bars around a note with that note moved: the take's own sound, one note of it at another pitch. */
  async playPatched(from: Beats, to: Beats, patch: Patch): Promise<void> {
    const turn = this.begin(null);
    const context = this.open();
    try {
      await context.resume();
      const samples = await this.sound('take');
      const { sampleRate } = context;
      const [start, end] = [this.secondsOf(from), this.secondsOf(to)].map((seconds) =>
        Math.max(0, Math.round(seconds * sampleRate)),
      ) as [number, number];
      const part = samples.slice(start, end);
      const at = Math.round(patch.onsetSec * sampleRate) - start;
      const length = Math.min(part.length - at, Math.round((patch.offsetSec - patch.onsetSec) * sampleRate));
      if (at >= 0 && length > 0)
        fadeIn(
          part,
          await stretched(part.slice(at, at + length), sampleRate, { semitones: patch.semitones }),
          at,
          Math.round(0.006 * sampleRate),
        );
      if (turn !== this.turn) return;
      const when = context.currentTime + START;
      this.put(part, 'take', when, 0, part.length / sampleRate);
      if (this.state.levels.band > 0)
        this.put(await this.sound('band'), 'band', when, start / sampleRate, part.length / sampleRate);
      this.pieces = [{ when, until: when + part.length / sampleRate, from: start / sampleRate, speed: 1 }];
      this.next = { from: Infinity, when: when + part.length / sampleRate };
      this.become({ phase: 'playing' });
      this.timer = setInterval(() => void this.schedule(turn), TICK_MS);
    } catch {
      if (turn === this.turn) this.become({ phase: 'idle', trouble: 'note-unmoved' });
    }
  }

  private begin(loop: readonly [Beats, Beats] | null): number {
    this.halt();
    this.become({ phase: 'loading', loop, trouble: null });
    return this.turn;
  }

  /** Keeps the clock filled a little ahead. */
  private async schedule(turn: number): Promise<void> {
    const { context, source, state } = this;
    if (!context || turn !== this.turn || this.making) return;
    this.pieces = this.pieces.filter(({ until }) => until > context.currentTime - 1);
    this.playing = this.playing.slice(-40);
    while (this.next.when < context.currentTime + (this.state.speed === 1 ? AHEAD : SLOWED_AHEAD)) {
      const end = state.loop
        ? this.secondsOf(this.state.loop?.[1] ?? source.endBeat)
        : this.secondsOf(source.endBeat) + 1;
      if (this.next.from >= end - 1e-4) {
        if (!this.state.loop || this.next.from === Infinity) {
          if (context.currentTime > this.next.when + 0.05) this.pause(true);
          return;
        }
        this.next = { ...this.next, from: this.secondsOf(this.state.loop[0]) };
        this.clicked = Math.ceil(this.state.loop[0] - 1e-6);
      }
      const { speed } = this.state;
      const length = Math.min(end - this.next.from, speed === 1 ? PIECE : SLOWED_PIECE);
      this.making = true;
      try {
        await this.lay(this.next.from, length, speed, turn);
      } finally {
        this.making = false;
      }
      if (turn !== this.turn) return;
    }
  }

  private async lay(from: Seconds, length: Seconds, speed: number, turn: number): Promise<void> {
    const context = present(this.context);
    const { sampleRate } = context;
    const made = await Promise.all(
      this.parts().map(async (part): Promise<[Part, Float32Array, Seconds]> => {
        const samples = await this.sound(part);
        if (speed === 1) return [part, samples, from];
        const first = Math.max(0, Math.round(from * sampleRate));
        return [
          part,
          await stretched(
            samples.slice(first, Math.round((from + length + SEAM * speed) * sampleRate)),
            sampleRate,
            { speed },
          ),
          0,
        ];
      }),
    );
    if (turn !== this.turn) return;
    const when = Math.max(this.next.when, context.currentTime + 0.01);
    const lasts = length / speed;
    for (const [part, samples, offset] of made) this.put(samples, part, when, offset, lasts);
    this.clicks(from, length, speed, when);
    this.pieces.push({ when, until: when + lasts, from, speed });
    this.next = { from: from + length, when: when + lasts };
  }

  /** A stretch of sound on the clock, its ends faded over the seam. */
  private put(samples: Float32Array, part: Part, when: Seconds, offset: Seconds, lasts: Seconds): void {
    const context = present(this.context);
    const { sampleRate } = context;
    const first = Math.max(0, Math.round(offset * sampleRate));
    const slice = samples.subarray(
      first,
      Math.min(samples.length, first + Math.round((lasts + SEAM) * sampleRate)),
    );
    if (slice.length === 0) return;
    const buffer = new AudioBuffer({ length: slice.length, numberOfChannels: 1, sampleRate });
    buffer.copyToChannel(slice as Float32Array<ArrayBuffer>, 0);
    const fade = new GainNode(context, { gain: 0 });
    fade.gain.setValueAtTime(0, when);
    fade.gain.linearRampToValueAtTime(1, when + SEAM / 4);
    fade.gain.setValueAtTime(1, when + lasts);
    fade.gain.linearRampToValueAtTime(0, when + lasts + SEAM / 4);
    fade.connect(present(this.gains)[part]);
    const node = new AudioBufferSourceNode(context, { buffer });
    node.connect(fade);
    node.start(when, Math.max(0, -offset));
    this.playing.push(node);
  }

  private clicks(from: Seconds, length: Seconds, speed: number, when: Seconds): void {
    if (this.state.levels.click <= 0) {
      this.clicked = Math.ceil(beatAt(this.source.pace, from + length - this.source.offsetSec) - 1e-6);
      return;
    }
    const context = present(this.context);
    for (; ; this.clicked++) {
      const at = this.secondsOf(this.clicked);
      if (at >= from + length - 1e-6) return;
      if (at < from - 1e-6) continue;
      const start = when + (at - from) / speed;
      const tone = new OscillatorNode(context, { frequency: 1500 });
      const envelope = new GainNode(context, { gain: 0 });
      envelope.gain.setValueAtTime(0.5, start);
      envelope.gain.exponentialRampToValueAtTime(0.001, start + CLICK);
      tone.connect(envelope).connect(present(this.gains).click);
      tone.start(start);
      tone.stop(start + CLICK);
      this.playing.push(tone);
    }
  }

  private halt(): void {
    this.resting = this.beat;
    this.turn++;
    this.making = false;
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
    for (const node of this.playing) {
      try {
        node.stop();
      } catch {
        /* not begun, or over */
      }
    }
    this.playing = [];
    this.pieces = [];
  }

  /** @param atEnd it came to its end: the next time begins where it began */
  pause(atEnd = false): void {
    this.halt();
    if (atEnd) this.resting = this.state.loop?.[0] ?? 0;
    this.become({ phase: 'idle' });
  }

  toggle(): void {
    if (this.state.phase === 'idle') void this.play();
    else this.pause();
  }

  /** Where playing is to go on from. */
  seek(beat: Beats): void {
    if (this.state.phase === 'idle') {
      this.resting = beat;
      this.become({});
    } else void this.play(beat);
  }

  setSpeed(speed: number): void {
    const { phase } = this.state;
    const beat = this.beat;
    this.become({
      speed: Math.max(
        SPEEDS[0],
        Math.min(elementAt(SPEEDS, SPEEDS.length - 1), Math.round(speed * 100) / 100),
      ),
    });
    if (phase !== 'idle') void this.play(beat);
  }

  setLoop(loop: readonly [Beats, Beats] | null): void {
    const { phase } = this.state;
    const beat = this.beat;
    this.become({ loop });
    if (phase === 'playing') void this.play(beat, loop);
  }

  setLevels(change: Partial<PlaybackLevels>): void {
    const before = this.state.levels;
    const levels = { ...before, ...change };
    const beat = this.beat;
    const { phase } = this.state;
    this.become({ levels });
    for (const part of ['take', 'band', 'click'] as const)
      this.gains?.[part].gain.setTargetAtTime(levels[part], present(this.context).currentTime, 0.01);
    // a part that was silent is not on the clock yet
    const joins = (['take', 'band', 'click'] as const).some((part) => before[part] === 0 && levels[part] > 0);
    if (joins && phase === 'playing') void this.play(beat);
  }

  async close(): Promise<void> {
    this.halt();
    this.become({ phase: 'idle' });
    const { context } = this;
    this.context = null;
    this.gains = null;
    this.sounds.clear();
    if (context && context.state !== 'closed') await context.close();
  }
}

/** Lays `patch` over a stretch of `samples`, fading at both its ends. */
function fadeIn(samples: Float32Array, patch: Float32Array, at: number, fade: number): void {
  for (let n = 0; n < patch.length && at + n < samples.length; n++) {
    const share = Math.min(1, n / fade, (patch.length - n) / fade);
    samples[at + n] = elementAt(samples, at + n) * (1 - share) + elementAt(patch, n) * share;
  }
}
