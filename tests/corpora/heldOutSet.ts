import type { Effect } from './effects';
import type { LabelledTake } from './line';
import { writeLine, type LineKind } from './lines';
import { modelGuitar, modelsMissing, type Model } from './modelGuitars';
import { renderRecorded } from './recordedSet';
import { existsSync } from 'node:fs';
import { BANKS, PROGRAMS, renderSoundfont, sox, soundfontMissing, type Bank } from './soundfontSet';

// Instruments and effects of which the fit heard nothing: whole banks, whole models, and sox's own effects (other code, other curves than ours).

type Instrument =
  | { readonly name: string; readonly bank: Bank; readonly program: keyof typeof PROGRAMS }
  | { readonly name: string; readonly model: Model };

export const HELD_OUT_INSTRUMENTS: readonly Instrument[] = [
  ...(['nylonString', 'steelString', 'jazz', 'clean'] as const).map((program) => ({
    name: `other bank, ${program}`,
    bank: 'other' as const,
    program,
  })),
  { name: 'model, plucked', model: 'plucked' },
  { name: 'model, waveguide', model: 'waveguide' },
];

const throughSox =
  (...effects: string[]): Effect =>
  (samples, rate) => {
    const out = sox(samples, rate, ['norm', '-6', ...effects, 'norm', '-3']);
    return Float32Array.from(samples, (_, n) => out[n] ?? 0);
  };
const dry: Effect = (samples) => samples;

export type HeldOutCondition = { readonly name: string; readonly kind: LineKind; readonly effect: Effect };

export const HELD_OUT_CONDITIONS: readonly HeldOutCondition[] = [
  ...(
    [
      'plucked',
      'swing',
      'fast',
      'low',
      'repeated',
      'ringing',
      'legato',
      'slides',
      'bends',
      'vibrato',
      'ghosts',
    ] as const
  ).map((kind) => ({ name: kind, kind, effect: dry })),
  ...(['tremolo', 'pairs', 'rakes', 'dyads', 'stabs'] as const).map((kind) => ({
    name: kind,
    kind,
    effect: dry,
  })),
  { name: 'phaser', kind: 'plucked', effect: throughSox('phaser', '0.8', '0.74', '3', '0.4', '0.5', '-t') },
  { name: 'flanger', kind: 'plucked', effect: throughSox('flanger', '1', '3', '20', '60', '0.4') },
  {
    name: 'chorus',
    kind: 'swing',
    effect: throughSox('chorus', '0.6', '0.9', '45', '0.4', '0.4', '2', '-t'),
  },
  { name: 'tremolo effect', kind: 'plucked', effect: throughSox('tremolo', '5', '60') },
  { name: 'echo 350 ms', kind: 'plucked', effect: throughSox('echo', '0.8', '0.9', '350', '0.25') },
  {
    name: 'echoes 220 and 440 ms',
    kind: 'swing',
    effect: throughSox('echo', '0.8', '0.9', '220', '0.3', '440', '0.12'),
  },
  {
    name: 'reverb',
    kind: 'swing',
    effect: throughSox('reverb', '60', '40', '80', '100', '0', '0', 'remix', '1'),
  },
  { name: 'overdrive', kind: 'swing', effect: throughSox('overdrive', '20', '20', 'lowpass', '5000') },
  {
    name: 'lead',
    kind: 'bends',
    effect: throughSox(
      'overdrive',
      '28',
      '20',
      'lowpass',
      '4500',
      'echo',
      '0.8',
      '0.9',
      '380',
      '0.3',
      'reverb',
      '35',
      '50',
      '60',
      'remix',
      '1',
    ),
  },
  { name: 'squashed', kind: 'swing', effect: throughSox('compand', '0.01,0.2', '-60,-30,-30,-14,0,-8') },
  {
    name: 'telephone',
    kind: 'low',
    effect: throughSox(
      'highpass',
      '350',
      'highpass',
      '350',
      'lowpass',
      '3300',
      'rate',
      '8000',
      'rate',
      '44100',
    ),
  },
  {
    name: 'driven thirds and sixths',
    kind: 'doubles',
    effect: throughSox('overdrive', '18', '20', 'lowpass', '5000'),
  },
  { name: 'driven fifths', kind: 'power', effect: throughSox('overdrive', '22', '20', 'lowpass', '5000') },
];

/** What is missing for this set, in words; null where everything is there. */
export function heldOutMissing(): string | null {
  const missing = soundfontMissing() ?? modelsMissing();
  if (missing) return missing;
  return existsSync(BANKS.other) ? null : `${BANKS.other} is not installed (Debian package csound-soundfont)`;
}

export function heldOutTake(condition: HeldOutCondition, instrument: Instrument, seed: number): LabelledTake {
  const line = writeLine(condition.kind, seed, { lowest: 40, highest: 81 });
  const { samples, rate } =
    'bank' in instrument
      ? renderSoundfont(line, PROGRAMS[instrument.program], 0, instrument.bank)
      : renderRecorded(line, modelGuitar(instrument.model), seed);
  return { ...line, samples: condition.effect(samples, rate, seed), rate };
}
