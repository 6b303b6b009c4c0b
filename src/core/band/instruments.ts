import { SoundBankLoader, SpessaSynthProcessor } from 'spessasynth_core';
import type { Drum } from './events';
import type { Lineup } from './feel';
import { elementAt, type Hz, type Midi, type Seconds } from '../shared';

/**
 * General MIDI programs of the bank that ships with the application (MIDI Manufacturers Association, General
 * MIDI 1).
 */
const PROGRAMS: Record<Lineup['bass'] | Lineup['chords'], number> = {
  upright: 32,
  electric: 33,
  piano: 0,
  'electric-piano': 4,
  'nylon-guitar': 24,
  'electric-guitar': 26,
};
const KITS: Record<Lineup['drums'], number> = { sticks: 0, brushes: 40 };

/**
 * Keys of the General MIDI percussion map, and how long each stroke is let ring. In the brush kit the snares
 * are taps and sweeps.
 */
const DRUM_KEYS: Record<Drum, readonly [key: number, seconds: Seconds]> = {
  ride: [51, 2],
  'ride-bell': [53, 2],
  crash: [49, 2.8],
  hat: [42, 0.3],
  'hat-open': [46, 0.9],
  'hat-foot': [44, 0.3],
  kick: [36, 0.5],
  snare: [38, 0.5],
  rim: [37, 0.3],
  'brush-tap': [38, 0.5],
  'brush-sweep': [40, 0.6],
  'tom-high': [48, 0.9],
  'tom-low': [45, 1],
  shaker: [82, 0.2],
  click: [76, 0.25],
  'click-accent': [76, 0.25],
};

const RELEASE: Seconds = 0.35;
const BLOCK = 128;
const MELODIC = 0;
const DRUMS = 9;
/**
 * Sounds kept, 24 MB of them: strokes of the last minutes, which are most of the next ones. More would only
 * make the tab of a long take grow.
 */
const MOST_SAMPLES = 6_000_000;
/**
 * Loudness is played in so many steps, and brought nearer together than the bank's own velocities, which fall
 * off steeply.
 */
const LAYERS = 20;
const TOUCH = 0.6;

export type Note = {
  readonly instrument: keyof typeof PROGRAMS;
  readonly midi: Midi;
  readonly held: Seconds;
  readonly loudness: number;
};
export type InstrumentStroke = {
  readonly kit: Lineup['drums'];
  readonly drum: Drum;
  readonly loudness: number;
};

/**
 * Recorded instruments at one sample rate: every note is played once by the sampler and kept. The same note
 * gives the same samples
 * in a worker, on the server and in a test.
 */
export class Instruments {
  private readonly kept = new Map<string, Float32Array>();
  private samples = 0;

  private constructor(
    private readonly sampler: SpessaSynthProcessor,
    private readonly rate: Hz,
  ) {}

  /** @param bank a SoundFont 2 file: `public/band/` has the one that ships */
  static async load(bank: ArrayBuffer, rate: Hz): Promise<Instruments> {
    const sampler = new SpessaSynthProcessor(rate, { eventsEnabled: false, effectsEnabled: false });
    sampler.soundBankManager.addSoundBank(SoundBankLoader.fromArrayBuffer(bank), 'band');
    await sampler.processorInitialized;
    return new Instruments(sampler, rate);
  }

  note({ instrument, midi, held, loudness }: Note): Float32Array {
    // fiftieths of a second and twentieths of loudness cannot be told apart, and make most notes the same
    const seconds = Math.max(0.04, Math.round(held * 50) / 50);
    return this.once(`${instrument} ${midi} ${seconds}`, loudness, (velocity) =>
      this.play(MELODIC, PROGRAMS[instrument], midi, velocity, seconds, RELEASE),
    );
  }

  stroke({ kit, drum, loudness }: InstrumentStroke): Float32Array {
    const [key, seconds] = DRUM_KEYS[drum];
    const program = drum === 'click' || drum === 'click-accent' ? KITS.sticks : KITS[kit];
    return this.once(`${program} ${drum}`, loudness, (velocity) =>
      this.play(DRUMS, program, drum === 'click' ? key + 1 : key, velocity, seconds, 0),
    );
  }

  private once(name: string, loudness: number, make: (velocity: number) => Float32Array): Float32Array {
    const layer = Math.max(1, Math.min(LAYERS, Math.round(loudness * LAYERS)));
    const id = `${name} ${layer}`;
    const found = this.kept.get(id);
    if (found) return found;
    const sound = make(Math.round(127 * (layer / LAYERS) ** TOUCH));
    for (const [oldest, gone] of this.kept) {
      if (this.samples + sound.length <= MOST_SAMPLES) break;
      this.kept.delete(oldest);
      this.samples -= gone.length;
    }
    this.kept.set(id, sound);
    this.samples += sound.length;
    return sound;
  }

  private play(
    channel: number,
    program: number,
    key: Midi,
    velocity: number,
    held: Seconds,
    release: Seconds,
  ): Float32Array {
    const { sampler, rate } = this;
    sampler.stopAllChannels(true);
    sampler.programChange(channel, program);
    const length = Math.ceil((held + release) * rate);
    const letGo = Math.floor(held * rate);
    const [left, right] = [new Float32Array(length), new Float32Array(length)];
    sampler.noteOn(channel, key, velocity);
    for (let at = 0; at < length;) {
      const to = Math.min(length, at + BLOCK, at < letGo ? letGo : length);
      sampler.process(left, right, at, to - at);
      at = to;
      if (at === letGo) sampler.noteOff(channel, key);
    }
    const fade = Math.min(length, Math.round(rate * 0.01));
    return left.map((value, n) => ((value + elementAt(right, n)) / 2) * Math.min(1, (length - n) / fade));
  }
}
