import { ownBand, soundfontBand } from './band';
import { distortion, drive, hiss, hum, leak, phone, quiet, room, type Effect } from './effects';
import type { GuitarSample } from './guitarSamples';
import type { LabelledTake } from './line';
import { CHORDAL, LINE_KINDS, writeLine, type LineKind } from './lines';
import { renderRecorded } from './recordedSet';
import { PROGRAMS, renderSoundfont, sox } from './soundfontSet';

/** One line of the table: what is played and what it goes through. */
export type Condition = {
  readonly name: string;
  readonly kind: LineKind;
  readonly effect?: EffectName;
  readonly detune?: number;
  readonly band?: 'given' | 'unknown';
};

type EffectName = 'drive' | 'distortion' | 'room' | 'hum' | 'hiss' | 'phone' | 'quiet';

export const CONDITIONS: readonly Condition[] = [
  ...LINE_KINDS.map((kind): Condition => ({ name: kind, kind })),
  ...(['drive', 'distortion', 'room', 'hum', 'hiss', 'phone', 'quiet'] as const).map((effect): Condition => ({
    name: effect,
    kind: 'plucked',
    effect,
  })),
  { name: 'detuned', kind: 'plucked', detune: 30 },
  { name: 'bleed', kind: 'plucked', band: 'unknown' },
  { name: 'band given', kind: 'plucked', band: 'given' },
];

export const isSingleLine = ({ kind }: Condition): boolean => !CHORDAL.includes(kind);

const RECORDED: Record<EffectName, Effect> = { drive, distortion, room, hum, hiss, phone, quiet };
const BLEED = -15;

/** A take from recorded notes of one guitar. */
export function recordedTake(
  condition: Condition,
  guitar: readonly GuitarSample[],
  seed: number,
): LabelledTake {
  const pitches = guitar.map((sample) => sample.midi);
  const line = writeLine(condition.kind, seed, {
    lowest: Math.max(40, Math.min(...pitches) - 1),
    highest: Math.min(condition.kind === 'high' ? 88 : 81, Math.max(...pitches) + 3),
  });
  const dry = renderRecorded(line, guitar, seed, condition.detune);
  const wet = condition.effect ? RECORDED[condition.effect](dry.samples, dry.rate, seed) : dry.samples;
  return withBand({ ...line, samples: wet, rate: dry.rate }, condition, seed, () =>
    ownBand(line.seconds, seed),
  );
}

/** The same through sox, for the other set: other code, other curves. */
const SOX: Record<EffectName, readonly string[]> = {
  drive: ['norm', '-6', 'overdrive', '18', '20', 'norm', '-3'],
  distortion: ['norm', '-3', 'overdrive', '45', '30', 'highpass', '120', 'lowpass', '4000', 'norm', '-3'],
  room: ['norm', '-6', 'reverb', '40', '40', '60', '100', '0', 'remix', '1', 'norm', '-3'],
  hum: [],
  hiss: [],
  phone: ['highpass', '250', 'lowpass', '3500', 'compand', '0.01,0.4', '-60,-60,-40,-18,0,-8', 'norm', '-3'],
  quiet: ['gain', '-40'],
};

/** A take from a soundfont. */
export function soundfontTake(
  condition: Condition,
  program: keyof typeof PROGRAMS,
  seed: number,
): LabelledTake {
  const line = writeLine(condition.kind, seed, { lowest: 40, highest: condition.kind === 'high' ? 88 : 81 });
  const dry = renderSoundfont(line, PROGRAMS[program], condition.detune);
  const { effect } = condition;
  let wet: Float32Array<ArrayBufferLike>;
  if (effect === undefined) wet = dry.samples;
  else if (effect === 'hum' || effect === 'hiss') wet = RECORDED[effect](dry.samples, dry.rate, seed);
  else wet = sox(dry.samples, dry.rate, SOX[effect]);
  const length = dry.samples.length;
  return withBand(
    { ...line, samples: wet.length >= length ? wet.slice(0, length) : wet, rate: dry.rate },
    condition,
    seed,
    () => soundfontBand(line.seconds, seed),
  );
}

function withBand(
  take: LabelledTake,
  { band }: Condition,
  seed: number,
  make: () => Float32Array,
): LabelledTake {
  if (!band) return take;
  const backing = make();
  const samples = leak(take.samples, backing, take.rate, seed, BLEED);
  return band === 'given' ? { ...take, samples, backing } : { ...take, samples };
}
