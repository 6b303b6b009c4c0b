import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readWav, toMono } from '@/core/formats';
import { midiToHz, unwrap } from '@/core/shared';
import type { GuitarSample } from './guitarSamples';

/**
 * Plucked strings computed by Csound (Debian package csound; csound-plugins for the Synthesis ToolKit's). `waveguide` after Karjalainen and
 * others (1993), `noiseBurst` after Karplus and Strong (1983), `plucked` and `twoStrings` from the Synthesis ToolKit (Cook and Scavone).
 */
const MODELS = {
  plucked: 'STKPlucked cpsmidinn(p4), 1',
  twoStrings: 'STKMandolin cpsmidinn(p4), 1',
  waveguide: 'wgpluck2 0.3, 0.6, cpsmidinn(p4), 0.8, 0.3',
  noiseBurst: 'pluck 0.5, cpsmidinn(p4), cpsmidinn(p4), 0, 1',
} as const;
export type Model = keyof typeof MODELS;

const RATE = 44_100;
const SECONDS = 3;
const KEYS = Array.from({ length: 18 }, (_, index) => 38 + 3 * index);

/** What is missing for these, in words; null where everything is there. */
export function modelsMissing(): string | null {
  const { error, stdout, stderr } = spawnSync('csound', ['-z1'], { encoding: 'utf8' });
  if (error) return 'csound is not installed (Debian package of that name)';
  return `${stdout}${stderr}`.includes('STKPlucked')
    ? null
    : 'csound has no Synthesis ToolKit (Debian package csound-plugins)';
}

/** One note of the model every minor third. Their truth is what was asked of the model, so the tuning is measured by `pitch`. */
export function modelGuitar(model: Model): GuitarSample[] {
  const all = rendered(model);
  return KEYS.map((midi, index): GuitarSample => {
    const from = Math.round(index * (SECONDS + 1) * RATE);
    const raw = withoutOffset(all.subarray(from, from + SECONDS * RATE));
    const loudest = raw.reduce((most, value) => Math.max(most, Math.abs(value)), 1e-6);
    return {
      instrument: 'electric',
      name: `${model} ${midi}`,
      midi,
      pitch: pitchNear(raw, midi),
      rate: RATE,
      share: 'decide',
      samples: raw.map((value) => (value / loudest) * 0.5),
      onset: 0,
    };
  });
}

function rendered(model: Model): Float32Array {
  const folder = join(tmpdir(), 'idle-wander-corpora');
  mkdirSync(folder, { recursive: true });
  const [wav, source] = [join(folder, `${model}.wav`), join(folder, `${model}.${process.pid}.csd`)];
  // two at once would write the same file
  const part = `${wav}.${process.pid}.part`;
  if (!existsSync(wav)) {
    const score = KEYS.map((midi, index) => `i1 ${index * (SECONDS + 1)} ${SECONDS} ${midi}`).join('\n');
    writeFileSync(
      source,
      `<CsoundSynthesizer>
<CsOptions>
-W -d -m0 --format=float -o ${part}
</CsOptions>
<CsInstruments>\nsr=${RATE}\nksmps=32\nnchnls=1\n0dbfs=1\nseed 1\ninstr 1\na1 ${MODELS[model]}\nout a1*0.5\nendin\n</CsInstruments>
<CsScore>\n${score}\ne\n</CsScore>
</CsoundSynthesizer>`,
    );
    execFileSync('csound', [source], { stdio: 'ignore' });
    renameSync(part, wav);
  }
  return toMono(unwrap(readWav(new Uint8Array(readFileSync(wav)))));
}

/** A waveguide may keep a constant beside its sound: a slow average is taken away. */
function withoutOffset(samples: Float32Array): Float32Array {
  let slow = 0;
  return samples.map((value) => {
    slow += (value - slow) * 0.004;
    return value - slow;
  });
}

/** Where the models' strings really stand: the period that fits best near the one asked for, by plain autocorrelation. */
function pitchNear(samples: Float32Array, midi: number): number {
  const part = samples.subarray(Math.round(0.1 * RATE), Math.round(0.5 * RATE));
  const period = RATE / midiToHz(midi);
  const fit = (lag: number) => {
    let sum = 0;
    for (let n = 0; n < 8_000; n++) sum += part[n]! * part[n + lag]!;
    return sum;
  };
  const lags = Array.from(
    { length: Math.ceil(period * 0.12) + 4 },
    (_, index) => Math.floor(period * 0.94) - 1 + index,
  );
  const best = lags.reduce((most, lag) => (fit(lag) > fit(most) ? lag : most));
  const [before, here, after] = [fit(best - 1), fit(best), fit(best + 1)];
  const bend = before - 2 * here + after;
  const lag = best + (bend < 0 ? (before - after) / (2 * bend) : 0);
  return 69 + 12 * Math.log2(RATE / lag / 440);
}
