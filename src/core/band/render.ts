import { beatsToSeconds, seededRandom, type BeatsPerMinute, type Hz, type Seconds } from '../vocabulary';
import { drumKit } from './drumKit';
import { tine } from './electricPiano';
import type { BandEvent, BandPart } from './events';
import { pluckString } from './pluckedString';

export type Mix = Readonly<Partial<Record<BandPart, number>>>;

export type RenderRequest = {
  readonly events: readonly BandEvent[];
  readonly tempo: BeatsPerMinute;
  readonly rate: Hz;
  /** Seconds of audio before beat 0. */
  readonly leadSeconds: Seconds;
  /** Seconds from beat 0 to the end, the last ring included. */
  readonly seconds: Seconds;
  /** Level of each part, 1 as arranged, 0 silent. */
  readonly mix?: Mix;
};

/**
 * The band as one mono signal. The same events give the same samples in the browser, on the server and in a test, so that the
 * analysis can know what the band played.
 */
export function renderBand({ events, tempo, rate, leadSeconds, seconds, mix = {} }: RenderRequest): Float32Array {
  const out = new Float32Array(Math.ceil((leadSeconds + seconds) * rate));
  const sounds = new Sounds(rate, tempo);
  for (const event of events) {
    const level = mix[event.part] ?? 1;
    const at = Math.round((leadSeconds + beatsToSeconds(event.beat, tempo)) * rate);
    if (level > 0) add(out, sounds.of(event), at, level * LEVEL[event.part] * (event.part === 'chords' ? 1 : event.loudness));
  }
  return soften(out);
}

const LEVEL: Record<BandPart, number> = { drums: 0.62, bass: 1.15, chords: 0.9, click: 0.8 };

function add(out: Float32Array, sound: Float32Array, at: number, level: number): void {
  for (let n = Math.max(0, -at); n < sound.length && at + n < out.length; n++) out[at + n]! += sound[n]! * level;
}

/** Keeps peaks under full scale without hard corners. */
function soften(samples: Float32Array): Float32Array {
  for (let n = 0; n < samples.length; n++) samples[n] = Math.tanh(samples[n]! * 0.8);
  return samples;
}

/** Notes of the same kind are made once and used again. */
class Sounds {
  private readonly made = new Map<string, Float32Array>();
  private readonly kit: ReturnType<typeof drumKit>;
  constructor(private readonly rate: Hz, private readonly tempo: BeatsPerMinute) {
    this.kit = drumKit(rate);
  }

  of(event: BandEvent): Float32Array {
    if ('drum' in event) return this.kit[event.drum];
    const held = Math.round(beatsToSeconds(event.beats, this.tempo) * 50) / 50;
    const loudness = Math.round(event.loudness * 10) / 10;
    const id = `${event.part} ${event.midi} ${held} ${loudness}`;
    let sound = this.made.get(id);
    if (!sound) {
      sound = event.part === 'bass'
        ? pluckString({ midi: event.midi, rate: this.rate, held, release: 0.06, force: 0.16, at: 0.22, decay: 3.2 }, seededRandom(event.midi))
        : tine(event.midi, held, loudness, this.rate);
      this.made.set(id, sound);
    }
    return sound;
  }
}
