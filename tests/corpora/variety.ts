import { pluckString } from '@/core/band';
import { gaussian, pick, seededRandom } from '@/core/shared';
import { ownBand, soundfontBand } from './band';
import { distortion, drive, hiss, hum, leak, phone, quiet, rms, room, voice, type Effect } from './effects';
import type { GuitarSample } from './guitarSamples';
import type { LabelledTake } from './line';
import { LINE_KINDS, writeLine, type LineKind } from './lines';
import { renderRecorded } from './recordedSet';
import { PROGRAMS, renderSoundfont } from './soundfontSet';

/** Where the notes of a varied take come from. */
export type Source = { readonly name: string } & (
  { readonly guitar: readonly GuitarSample[] } | { readonly program: keyof typeof PROGRAMS }
);

const COMMON: readonly LineKind[] = [
  'fast',
  'swing',
  'staccato',
  'plucked',
  'ringing',
  'repeated',
  'ghosts',
  'legato',
  'slides',
  'bends',
  'mixed',
  'mixed',
  'dyads',
  'stabs',
];

/** A take to learn from: any line through any chain of effects, seeded. */
export function variedTake(source: Source, seed: number): LabelledTake {
  const random = seededRandom(seed * 31 + 7);
  const kind = random() < 0.5 ? pick(random, LINE_KINDS) : pick(random, COMMON);
  const pitches = 'guitar' in source ? source.guitar.map(({ midi }) => midi) : [40, 81];
  const high = kind === 'high' || random() < 0.15 ? 88 : 81;
  const line = writeLine(kind, seed, {
    lowest: random() < 0.1 ? 36 : Math.max(40, Math.min(...pitches) - 2),
    highest: Math.min(high, Math.max(...pitches) + (high === 88 ? 7 : 3)),
  });
  const detune = random() < 0.3 ? (random() * 2 - 1) * 45 : 0;
  const strings =
    random() < 0.4
      ? line.strings.map((string) => ({ ...string, gain: string.gain * 10 ** (gaussian(random) * 0.15) }))
      : line.strings;
  const played = { ...line, strings };
  const dry =
    'guitar' in source
      ? renderRecorded(played, source.guitar, seed, detune)
      : renderSoundfont(played, PROGRAMS[source.program], detune);
  const chain: Effect[] = [];
  if (random() < 0.6) chain.push(voice);
  if (random() < 0.32) {
    if (random() < 0.25) chain.push(drive);
    else chain.push(random() < 0.6 ? amplifier : distortion);
  }
  if (random() < 0.08) chain.push(squeaks);
  if (random() < 0.2) chain.push(room);
  if (random() < 0.1) chain.push(hum);
  if (random() < 0.1) chain.push(hiss);
  if (random() < 0.1) chain.push(phone);
  if (random() < 0.05) chain.push(quiet);
  const wet = chain.reduce((samples, effect, index) => effect(samples, dry.rate, seed + index), dry.samples);
  const band = random();
  const level = -12 - 14 * random();
  let samples: Float32Array<ArrayBufferLike>;
  if (band < 0.1) samples = leak(wet, ownBand(line.seconds, seed), dry.rate, seed, level);
  else if (band < 0.2) samples = leak(wet, soundfontBand(line.seconds, seed), dry.rate, seed, level);
  else samples = wet;
  return {
    ...line,
    truth: line.truth.map((note) => ({ ...note, pitch: note.pitch + detune / 100 })),
    samples,
    rate: dry.rate,
    detune,
  };
}

/** From a warm edge to a hard clip, after a shelf and before a cabinet. */
const amplifier: Effect = (samples, rate, seed) => {
  const random = seededRandom(seed + 411);
  const [gain, bias, hard] = [3 * 12 ** random(), 0.5 * random(), random()];
  const loudest = samples.reduce((most, value) => Math.max(most, Math.abs(value)), 1e-6);
  const shaped = samples.map((value) => {
    const driven = (value / loudest) * gain * 2 + bias;
    return (
      (hard < 0.5
        ? Math.tanh(driven) - Math.tanh(bias)
        : Math.max(-1, Math.min(1, driven)) - Math.max(-1, Math.min(1, bias))) * 0.3
    );
  });
  return voice(shaped, rate, seed + 5);
};

/** Fingers that squeak along wound strings: noise that glides, 20 dB under the playing. */
const squeaks: Effect = (samples, rate, seed) => {
  const random = seededRandom(seed + 97);
  const out = samples.slice();
  const level = rms(samples) * 0.35;
  for (let at = random(); at < samples.length / rate - 0.2; at += 0.4 + 1.5 * random()) {
    const [from, to, seconds] = [900 * 3 ** random(), 900 * 3 ** random(), 0.05 + 0.1 * random()];
    let [phase, wobble] = [0, 0];
    for (let n = 0; n < seconds * rate; n++) {
      const part = n / (seconds * rate);
      wobble += (gaussian(random) - wobble) * 0.1;
      phase += (2 * Math.PI * (from + (to - from) * part) * (1 + 0.12 * wobble)) / rate;
      out[Math.round(at * rate) + n]! += Math.sin(phase) * Math.sin(Math.PI * part) * level;
    }
  }
  return out;
};

/** A guitar of synthesised strings: one of a seeded make, every minor third. */
export function madeGuitar(seed: number): GuitarSample[] {
  const random = seededRandom(seed + 1);
  const [at, force, decay] = [0.08 + 0.3 * random(), 0.2 + 0.7 * random(), 1.5 + 4 * random()];
  return Array.from({ length: 18 }, (_, index): GuitarSample => {
    const midi = 38 + 3 * index;
    const samples = pluckString({ midi, rate: 44_100, held: 3, release: 0.1, force, at, decay }, random);
    const loudest = samples.reduce((most, value) => Math.max(most, Math.abs(value)), 1e-6);
    return {
      instrument: 'electric',
      name: `made ${midi}`,
      midi,
      pitch: midi,
      rate: 44_100,
      share: 'tune',
      samples: samples.map((value) => (value / loudest) * 0.5),
      onset: 0,
    };
  });
}
