import { pick, seededRandom } from '@/core/vocabulary';
import { ownBand, soundfontBand } from './band';
import { distortion, drive, hiss, hum, leak, phone, quiet, room, voice, type Effect } from './effects';
import type { GuitarSample } from './guitarSamples';
import type { LabelledTake } from './line';
import { LINE_KINDS, writeLine, type LineKind } from './lines';
import { renderRecorded } from './recordedSet';
import { PROGRAMS, renderSoundfont } from './soundfontSet';

/** Where the notes of a varied take come from. */
export type Source = { readonly name: string } & ({ readonly guitar: readonly GuitarSample[] } | { readonly program: keyof typeof PROGRAMS });

const COMMON: readonly LineKind[] = ['fast', 'swing', 'plucked', 'ringing', 'repeated', 'ghosts', 'legato', 'slides', 'bends', 'mixed', 'mixed', 'dyads', 'stabs'];

/** A take to learn from: any line through any chain of effects, seeded. */
export function variedTake(source: Source, seed: number): LabelledTake {
  const random = seededRandom(seed * 31 + 7);
  const kind = random() < 0.5 ? pick(random, LINE_KINDS) : pick(random, COMMON);
  const pitches = 'guitar' in source ? source.guitar.map(({ midi }) => midi) : [40, 81];
  const high = kind === 'high' || random() < 0.15 ? 88 : 81;
  const line = writeLine(kind, seed, { lowest: random() < 0.1 ? 36 : Math.max(40, Math.min(...pitches) - 2), highest: Math.min(high, Math.max(...pitches) + (high === 88 ? 7 : 3)) });
  const detune = random() < 0.3 ? (random() * 2 - 1) * 45 : 0;
  const dry = 'guitar' in source ? renderRecorded(line, source.guitar, seed, detune) : renderSoundfont(line, PROGRAMS[source.program], detune);
  const chain: Effect[] = [];
  if (random() < 0.6) chain.push(voice);
  if (random() < 0.22) chain.push(random() < 0.5 ? drive : random() < 0.5 ? softDrive : distortion);
  if (random() < 0.2) chain.push(room);
  if (random() < 0.1) chain.push(hum);
  if (random() < 0.1) chain.push(hiss);
  if (random() < 0.1) chain.push(phone);
  if (random() < 0.05) chain.push(quiet);
  const wet = chain.reduce((samples, effect, index) => effect(samples, dry.rate, seed + index), dry.samples);
  const band = random();
  const level = -12 - 14 * random();
  const samples = band < 0.1 ? leak(wet, ownBand(line.seconds, dry.rate, seed), dry.rate, seed, level) : band < 0.2 ? leak(wet, soundfontBand(line.seconds, seed), dry.rate, seed, level) : wet;
  return { ...line, truth: line.truth.map((note) => ({ ...note, pitch: note.pitch + detune / 100 })), samples, rate: dry.rate, detune };
}

const softDrive: Effect = (samples) => samples.map((value) => Math.tanh(value * 4) * 0.4);
