import { pluckString } from '@/core/band';
import { gaussian, pick, seededRandom, type Random } from '@/core/shared';
import { ownBand, soundfontBand } from './band';
import { distortion, drive, hiss, hum, leak, phone, quiet, rms, room, voice, type Effect } from './effects';
import type { GuitarSample } from './guitarSamples';
import type { LabelledTake } from './line';
import {
  beside,
  chorus,
  compressor,
  delay,
  lead,
  narrowPhone,
  noise,
  sweep,
  talk,
  taps,
  tremolo,
} from './bedroom';
import { clipper, plate, speaker, spice, swirl, valves } from './plugins';
import { BEDROOM_KINDS, CHORDAL, LINE_KINDS, writeLine, type LineKind } from './lines';
import { renderRecorded } from './recordedSet';
import { PROGRAMS, renderSoundfont, type Bank } from './soundfontSet';

/** Where the notes of a varied take come from. */
export type Source = { readonly name: string } & (
  | { readonly guitar: readonly GuitarSample[] }
  | { readonly program: keyof typeof PROGRAMS; readonly bank?: Bank }
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

/** What more of is asked for: anything, or what goes through a drive, where several strings are the hardest. */
export type Focus = 'any' | 'driven';
const DRIVEN_KINDS = ['power', 'power', 'power', 'doubles', 'doubles', 'dyads', 'stabs', 'mixed'] as const;
/** One string at a time as often: or a second one is heard in whatever is driven. */
const drivenKind = (random: Random): LineKind =>
  random() < 0.5 ? pick(random, DRIVEN_KINDS) : pick(random, LINE_KINDS);

/** A take to learn from: any line through any chain of effects, seeded. */
export function variedTake(source: Source, seed: number, focus: Focus = 'any'): LabelledTake {
  const random = seededRandom(seed * 31 + 7);
  const kind = focus === 'driven' ? drivenKind(random) : kindOf(random);
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
      : renderSoundfont(played, PROGRAMS[source.program], detune, source.bank);
  const chain = focus === 'driven' ? drivenChain(random) : chainOf(random, CHORDAL.includes(kind));
  const wet = chain.reduce((samples, effect, index) => effect(samples, dry.rate, seed + index), dry.samples);
  const alone = random() < 0.03;
  const samples = withOthers(alone ? wet.map(() => 0) : wet, rms(wet), {
    seconds: line.seconds,
    rate: dry.rate,
    seed,
    random,
  });
  if (alone) return { ...line, truth: [], strings: [], ghosts: [], samples, rate: dry.rate };
  return {
    ...line,
    truth: line.truth.map((note) => ({ ...note, pitch: note.pitch + detune / 100 })),
    samples,
    rate: dry.rate,
    detune,
  };
}

function kindOf(random: Random): LineKind {
  // several strings through a drive are the hardest: they come most often
  if (random() < 0.4) return pick(random, [...BEDROOM_KINDS, 'power', 'doubles', 'power', 'doubles']);
  return random() < 0.5 ? pick(random, LINE_KINDS) : pick(random, COMMON);
}

/** A drive of any make, and little else: what several strings become in it is to be learnt. */
function drivenChain(random: Random): Effect[] {
  const often = (share: number) => random() < share;
  const chain: Effect[] = [];
  if (often(0.6)) chain.push(voice);
  if (often(0.15)) chain.push(compressor);
  chain.push(often(0.4) ? anyCurve : pick(random, DRIVES));
  if (often(0.08)) chain.push(swirl);
  if (often(0.1)) chain.push(delay(0.2 + 0.35 * random(), -10 - 10 * random(), 0.4 * random()));
  if (often(0.15)) chain.push(room);
  if (often(0.08)) chain.push(hum);
  return chain;
}

function chainOf(random: Random, chordal: boolean): Effect[] {
  const often = (share: number) => random() < share;
  const chain: Effect[] = [];
  if (often(0.6)) chain.push(voice);
  if (often(0.1)) chain.push(compressor);
  if (often(0.05)) chain.push(sweep);
  if (often(chordal ? 0.65 : 0.32)) {
    chain.push(pick(random, DRIVES));
  }
  if (often(0.08)) chain.push(squeaks);
  if (often(0.08)) chain.push(chorus);
  if (often(0.08)) chain.push(swirl);
  if (often(0.05)) chain.push(tremolo);
  if (often(0.06)) chain.push(lead);
  else if (often(0.12)) chain.push(delay(0.08 + 0.55 * random(), -8 - 14 * random(), 0.5 * random()));
  if (often(0.16)) chain.push(room);
  else if (often(0.12)) chain.push(plate);
  if (often(0.08)) chain.push(speaker);
  if (often(0.1)) chain.push(hum);
  if (often(0.06)) chain.push(hiss);
  if (often(0.05)) chain.push(phone);
  else if (often(0.1)) chain.push(narrowPhone);
  if (often(0.04)) chain.push(quiet);
  return chain;
}

type Room = {
  readonly seconds: number;
  readonly rate: number;
  readonly seed: number;
  readonly random: Random;
};

/** What else sounds in the room: a band nobody gave, a voice, a foot, noise. @param level of the playing, where it is silent */
function withOthers(wet: Float32Array, level: number, { seconds, rate, seed, random }: Room): Float32Array {
  const silent = rms(wet) === 0;
  const turn = random();
  const decibels = -4 - 22 * random();
  const only = (other: Float32Array) => {
    const scale = level / (rms(other) || 1);
    return other.map((value) => value * scale);
  };
  if (silent && turn < 0.5) return only(talk(seconds, rate, seed));
  if (silent) return only(turn < 0.75 ? ownBand(seconds, seed) : taps(seconds, rate, seed));
  if (turn < 0.11) return leak(wet, ownBand(seconds, seed), rate, seed, decibels);
  if (turn < 0.22) return leak(wet, soundfontBand(seconds, seed), rate, seed, decibels);
  if (turn < 0.29) return beside(wet, talk(seconds, rate, seed), -14 - 14 * random());
  if (turn < 0.34) return beside(wet, taps(seconds, rate, seed), -8 - 16 * random());
  if (turn < 0.4) return beside(wet, noise(seconds, rate, seed), -18 - 14 * random());
  return wet;
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

/** A pedal of fixed gain whose clipping follows a power of the signal, some of the undriven string beside it. */
const pedal: Effect = (samples, rate, seed) => {
  const random = seededRandom(seed + 413);
  const [gain, power, uneven] = [2 * 20 ** random(), 2 + 4 * random(), 0.5 * random()];
  const clean = random() < 0.5 ? 0.7 * random() : 0;
  const loudest = samples.reduce((most, value) => Math.max(most, Math.abs(value)), 1e-6);
  const clip = (value: number) => {
    const limited = Math.max(-1, Math.min(1, value));
    return limited * (1 - Math.abs(limited) ** power / (power + 1));
  };
  let resting = 0;
  const share = 1 - Math.exp((-2 * Math.PI * 20) / rate);
  const driven = samples.map((value) => {
    const out = clip((value / loudest) * gain + uneven * clip((value / loudest) * gain) ** 2);
    resting += share * (out - resting);
    return (1 - clean) * (out - resting) + (clean * value) / loudest;
  });
  const scale = 0.12 / (rms(driven) || 1);
  return voice(
    driven.map((value) => value * scale),
    rate,
    seed + 7,
  );
};

/**
 * A drive as no maker has it: a curve that rises by random steps, unlike above and below nothing, after and before
 * filters of its own, with a supply that sags. Learning from any curve is to leave none to learn by heart.
 */
const anyCurve: Effect = (samples, rate, seed) => {
  const random = seededRandom(seed + 414);
  const loudest = samples.reduce((most, value) => Math.max(most, Math.abs(value)), 1e-6);
  const gain = 1.5 * 30 ** random();
  const half = () => {
    const [knee, steep, limit] = [0.1 + 0.9 * random(), 0.3 + 5 * random(), 0.4 + 0.6 * random()];
    return (value: number) => {
      const bent = value < knee ? value : knee + (1 - Math.exp(-(value - knee) * steep)) / steep;
      return Math.min(bent, knee + limit);
    };
  };
  const [above, below] = [half(), random() < 0.4 ? half() : null];
  const [bias, sag, mix] = [
    (random() < 0.5 ? 0.4 : 0) * random(),
    random() < 0.3 ? 0.7 * random() : 0,
    random() < 0.3 ? 0.6 * random() : 0,
  ];
  const [low, high] = [30 * 12 ** random(), 1_800 * 5 ** random()];
  const share = (hz: number) => 1 - Math.exp((-2 * Math.PI * hz) / rate);
  const [lowShare, highShare, slow] = [share(low), share(high), share(4)];
  let [under, resting, one, two, load] = [0, 0, 0, 0, 0];
  const out = samples.map((value) => {
    under += lowShare * (value / loudest - under);
    const drivenBy = ((value / loudest - under) * gain) / (1 + sag * 6 * load) + bias;
    const shaped = drivenBy >= 0 ? above(drivenBy) : -(below ?? above)(-drivenBy);
    load += slow * (Math.abs(shaped) - load);
    resting += share(15) * (shaped - resting);
    const mixed = (1 - mix) * (shaped - resting) + (mix * value) / loudest;
    one += highShare * (mixed - one);
    return (two += highShare * (one - two));
  });
  const scale = 0.12 / (rms(out) || 1);
  return voice(
    out.map((value) => value * scale),
    rate,
    seed + 8,
  );
};

/** Two stages that drive one another, each with its own curve, a low cut between them and a cabinet behind. */
const cascade: Effect = (samples, rate, seed) => {
  const random = seededRandom(seed + 412);
  const stage = (input: Float32Array, gain: number): Float32Array => {
    const level = rms(input) || 1;
    const [bias, hard] = [0.6 * random() - 0.3, random()];
    const curve = (value: number) =>
      hard < 0.4 ? value / (1 + Math.abs(value)) : (2 / Math.PI) * Math.atan(value * (1 + hard));
    const edge = 60 + 200 * random();
    const share = 1 - Math.exp((-2 * Math.PI * edge) / rate);
    let low = 0;
    return input.map((value) => {
      const driven = curve((value / level) * gain + bias);
      low += (driven - low) * share;
      return driven - low;
    });
  };
  const out = stage(stage(samples, 0.6 * 8 ** random()), 0.5 * 6 ** random());
  const share = 1 - Math.exp((-2 * Math.PI * (2_200 + 3_000 * random())) / rate);
  let [one, two] = [0, 0];
  const cabinet = out.map((value) => {
    one += (value - one) * share;
    return (two += (one - two) * share);
  });
  const scale = 0.12 / (rms(cabinet) || 1);
  return voice(
    cabinet.map((value) => value * scale),
    rate,
    seed + 6,
  );
};

const DRIVES: readonly Effect[] = [
  drive,
  amplifier,
  amplifier,
  cascade,
  pedal,
  distortion,
  valves,
  valves,
  clipper,
  spice,
];

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
