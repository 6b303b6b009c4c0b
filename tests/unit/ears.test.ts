import { spawn } from 'node:child_process';
import { expect, test } from '@jest/globals';
import { build } from 'esbuild';
import { soundfontMissing } from '../corpora/soundfontSet';
import { heldOutMissing } from '../corpora/heldOutSet';
import type { BedroomMeasured, HeldOutMeasured, Measured } from '../score/measureEars';

// The ears on takes kept for deciding: samples, lines and seeds that nothing was fitted to. Recorded notes: npm packages
// tonejs-instrument-guitar-* (MIT). Soundfont: Debian's fluid-soundfont-gm (MIT) through fluidsynth, effects by sox; left out with a
// message where they are not installed. Scoring: MIREX note tracking, onset 50 ms, pitch 50 cents; frames as in MIREX melody extraction.
const PROGRAM = '.tmp/measureEars.mjs';

async function measure<T = Measured>(set: 'recorded' | 'soundfont' | 'bedroom' | 'heldOut'): Promise<T> {
  await build({
    entryPoints: ['tests/score/measureEars.ts'],
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    alias: { '@': './src' },
    outfile: PROGRAM,
    logLevel: 'error',
  });
  return new Promise((resolve, reject) => {
    const child = spawn('node', [PROGRAM, set], { stdio: ['ignore', 'pipe', 'inherit'] });
    let said = '';
    child.stdout.on('data', (part: Buffer) => (said += part.toString()));
    child.on('close', (code) =>
      code === 0 ? resolve(JSON.parse(said) as T) : reject(new Error(`the measurement ended with ${code}`)),
    );
  });
}

/** The figures that must hold, in per cent. */
type Bars = Partial<Omit<Measured, 'speed' | 'lowest'>>;
const AT_MOST: readonly (keyof Bars)[] = ['ghosts', 'bleed', 'octaves'];

function hold(found: Measured, bars: Bars): void {
  console.log(
    Object.entries(found)
      .map(([name, value]) => `${name} ${typeof value === 'number' ? value.toFixed(2) : value}`)
      .join('  '),
  );
  const short = (Object.entries(bars) as [keyof Bars, number][]).filter(([name, bar]) =>
    AT_MOST.includes(name) ? found[name] > bar : found[name] < bar,
  );
  expect(short.map(([name]) => `${name} ${found[name].toFixed(2)}`)).toEqual([]);
}

test('recorded notes: every condition, two of three guitars each', async () => {
  hold(await measure('recorded'), {
    mean: 98.7,
    worst: 94,
    dyads: 95,
    stabs: 96,
    ghosts: 2,
    bleed: 1,
    frames: 98,
    octaves: 0.2,
    gestures: 90,
    bend: 90,
    slide: 90,
    vibrato: 90,
    bendWithin: 90,
    ends: 88,
  });
}, 900_000);

const missing = soundfontMissing();
(missing ? test.skip : test)(
  `a soundfont’s guitars: every condition, four programs${missing ? ` (left out: ${missing})` : ''}`,
  async () => {
    // one seed; the bars are what is reached, less a margin
    hold(await measure('soundfont'), {
      mean: 98,
      worst: 92,
      dyads: 94,
      stabs: 95,
      ghosts: 2,
      bleed: 1,
      frames: 98,
      octaves: 0.2,
      gestures: 88,
      bend: 88,
      slide: 85,
      vibrato: 90,
      bendWithin: 90,
    });
  },
  300_000,
);

// what a bedroom adds, through effects of our own (tests/corpora/bedroom.ts), on samples, lines and seeds the fit has not seen; the bars are
// what is reached, less a margin
const SINGLE_AT_LEAST = 88;
const HARDEST_AT_LEAST: Record<string, number> = {
  // a bend comes again while the next note sounds, at a third of its size
  'delay 500 ms, −9 dB': 78,
  'driven thirds and sixths': 91,
  'driven fifths': 87,
  'distorted fifths': 88,
};

test('in a bedroom: delays, effects, a voice, a foot, noise, a band nobody gave, drives', async () => {
  const { f1, rakes } = await measure<BedroomMeasured>('bedroom');
  console.log(
    Object.entries(f1)
      .map(([name, value]) => `${name} ${value.toFixed(1)}`)
      .join('  '),
  );
  const single = Object.entries(f1).filter(([name]) => !(name in HARDEST_AT_LEAST));
  expect(single.filter(([, value]) => value < SINGLE_AT_LEAST)).toEqual([]);
  expect(single.reduce((sum, [, value]) => sum + value, 0) / single.length).toBeGreaterThan(95);
  for (const [name, least] of Object.entries(HARDEST_AT_LEAST))
    expect([name, f1[name]! >= least]).toEqual([name, true]);
  expect(rakes).toBeLessThanOrEqual(3);
}, 300_000);

const missingHeldOut = heldOutMissing();
(missingHeldOut ? test.skip : test)(
  `instruments and effects the fit heard nothing of${missingHeldOut ? ` (left out: ${missingHeldOut})` : ''}`,
  async () => {
    const { f1, single, calibrationError } = await measure<HeldOutMeasured>('heldOut');
    console.log(
      `single ${single.toFixed(1)}  calibration error ${calibrationError.toFixed(1)}  ${Object.entries(f1)
        .map(([name, value]) => `${name} ${value.toFixed(1)}`)
        .join('  ')}`,
    );
    // one take of bends has the same computed pick 0.8 s apart again and again, which is taken for a delay: it
    // alone costs a point
    expect(single).toBeGreaterThan(97);
    expect(calibrationError).toBeLessThanOrEqual(3);
    expect(f1['driven fifths']).toBeGreaterThan(87);
    expect(f1['driven thirds and sixths']).toBeGreaterThan(93);
    expect(f1['echo 350 ms']).toBeGreaterThan(95);
  },
  300_000,
);
