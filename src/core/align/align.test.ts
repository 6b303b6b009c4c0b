import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { gaussian, seededRandom } from '../shared';
import { readChart } from '../chart';
import { unwrap } from '../shared';
import { bandOver } from '../../../tests/corpora/band';
import {
  AGREEING,
  clappedLatency,
  clickSound,
  clickTimes,
  delayOfClick,
  latencyOf,
  LONGEST_DELAY,
  pulseOf,
  strokesOf,
  tappedPulse,
} from './index';

type Path = {
  delay: number;
  gain?: number;
  noise?: number;
  echoes?: readonly (readonly [seconds: number, gain: number])[];
  hum?: number;
};

/**
 * Clicks through a path: what a loopback cable, or a loudspeaker in a room and a microphone, would give back.
 */
function heardOver(
  rate: number,
  times: readonly number[],
  { delay, gain = 0.5, noise = 0, echoes = [], hum = 0 }: Path,
  seed = 1,
): Float32Array {
  const random = seededRandom(seed);
  const out = Float32Array.from(
    { length: Math.ceil((times[times.length - 1]! + 1) * rate) },
    (_, n) => gaussian(random) * noise + hum * Math.sin((2 * Math.PI * 50 * n) / rate),
  );
  const click = clickSound(rate);
  for (const time of times)
    for (const [later, level] of [[0, 1], ...echoes] as const) {
      // a delay between samples: the click is drawn at its own fraction
      const at = (time + delay + later) * rate;
      const whole = Math.floor(at);
      const part = at - whole;
      for (let n = 0; n <= click.length; n++)
        out[whole + n] =
          (out[whole + n] ?? 0) + gain * level * ((click[n] ?? 0) * (1 - part) + (click[n - 1] ?? 0) * part);
    }
  return out;
}

const delaysIn = (heard: Float32Array, rate: number, times: readonly number[]) =>
  times.map((time) =>
    delayOfClick(
      heard.subarray(Math.round(time * rate), Math.round((time + LONGEST_DELAY + 0.02) * rate)),
      rate,
    ),
  );

const ROOM: Path['echoes'] = [
  [0.004, 0.5],
  [0.011, -0.4],
  [0.019, 0.3],
  [0.037, 0.25],
];
test.each([
  ['a cable', {}],
  ['a loudspeaker in a room', { gain: 0.08, noise: 0.004, echoes: ROOM }],
  ['an echo louder than the sound itself', { gain: 0.2, noise: 0.002, echoes: [[0.006, 1.4]] as const }],
  ['hum and hiss', { gain: 0.05, noise: 0.006, hum: 0.05 }],
  ['a reversed plug', { gain: -0.3, noise: 0.001 }],
])('a planted latency of 0 to 250 ms through %s comes back within 1 ms, at every rate', (_, path) => {
  for (const rate of 'gain' in path ? [44_100] : [44_100, 96_000]) {
    const plain = rate === 44_100 ? [0, 0.0234, 0.25] : [0.0117];
    for (const delay of 'gain' in path ? [0.0234, 0.25] : plain) {
      const times = clickTimes(AGREEING, 3);
      const found = latencyOf(delaysIn(heardOver(rate, times, { delay, ...path }), rate, times));
      expect([rate, delay, found?.agreed, Math.abs((found?.seconds ?? 9) - delay) < 0.001]).toEqual([
        rate,
        delay,
        true,
        true,
      ]);
    }
  }
});

test('any latency at all comes back', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 0.25, noNaN: true }),
      fc.integer({ min: 1, max: 1e6 }),
      (delay, seed) => {
        const times = clickTimes(2, seed);
        for (const found of delaysIn(
          heardOver(44_100, times, { delay, gain: 0.2, noise: 0.003 }, seed),
          44_100,
          times,
        ))
          expect(Math.abs(found! - delay)).toBeLessThan(0.001);
      },
    ),
    { numRuns: 8 },
  );
});

test('nothing is found in silence, noise or music; what does not agree is not called agreed', () => {
  const rate = 44_100;
  const times = clickTimes(4);
  expect(delaysIn(new Float32Array(rate * 3), rate, times)).toEqual([null, null, null, null]);
  expect(delaysIn(heardOver(rate, times, { delay: 0.02, gain: 0, noise: 0.1 }), rate, times)).toEqual([
    null,
    null,
    null,
    null,
  ]);
  const music = bandOver(unwrap(readChart('feel: swing\n| C7 | F7 |')), {
    tempo: 150,
    choruses: 1,
    seed: 2,
    seconds: 3,
  });
  expect(delaysIn(music, rate, times).filter((delay) => delay !== null).length).toBeLessThanOrEqual(1);
  expect(latencyOf([null, null])).toBeNull();
  expect(latencyOf([0.02, 0.021, 0.02])).toMatchObject({ agreed: false, heard: 3 });
  expect(latencyOf([0.09, ...Array<number>(AGREEING).fill(0.02)])).toEqual({
    seconds: 0.02,
    withinSeconds: 0,
    agreed: true,
    heard: AGREEING + 1,
  });
  expect(latencyOf([0.02, 0.02, 0.02, 0.02, 0.02, 0.02, 0.02, 0.023])).toMatchObject({ agreed: false });
});

/** Hand claps on a beat: bursts of noise with a sharp front. */
function claps(rate: number, times: readonly number[], seed: number): Float32Array {
  const random = seededRandom(seed);
  const out = Float32Array.from(
    { length: Math.ceil((times[times.length - 1]! + 1) * rate) },
    () => gaussian(random) * 0.002,
  );
  for (const time of times)
    for (let n = 0; n < 0.05 * rate; n++)
      out[Math.round(time * rate) + n]! += gaussian(random) * 0.3 * Math.exp(-n / (0.008 * rate));
  return out;
}

test('clapping along: strokes are found within 3 ms, and the median is the latency with the hand’s own lean', () => {
  const random = seededRandom(5);
  const clicks = Array.from({ length: 16 }, (_, index) => 1 + index * 0.6);
  const played = clicks.map((click) => click + 0.18 + gaussian(random) * 0.012);
  const strokes = strokesOf(claps(44_100, played, 9), 44_100);
  expect(strokes.length).toBe(16);
  strokes.forEach((stroke, index) => expect(Math.abs(stroke - played[index]!)).toBeLessThan(0.003));
  const found = clappedLatency(strokes, clicks)!;
  expect([found.count, Math.abs(found.seconds - 0.18) < 0.008, found.spreadSeconds < 0.015]).toEqual([
    16,
    true,
    true,
  ]);
  expect(clappedLatency(strokes.slice(0, 5), clicks)).toBeNull();
  expect(strokesOf(new Float32Array(44_100), 44_100)).toEqual([]);
});

test.each([
  ['straight', 110, 4],
  ['bossa', 132, 4],
  ['waltz', 140, 3],
])(
  'the pulse of a %s at %i is found to 0.2 %% and its bar 1 to 30 ms, or lies an octave or a meter away',
  (feel, tempo, beats) => {
    const chart = unwrap(readChart(`meter: ${beats}/4\nfeel: ${feel}\n| C7 | F7 | G7 | C7 |`));
    const music = bandOver(chart, { tempo, choruses: 3, seed: 4, seconds: (3 * beats * 4 * 60) / tempo - 1 });
    const shifted = new Float32Array(music.length + 30_000);
    shifted.set(music, 30_000);
    const found = pulseOf(shifted, 44_100)!;
    const ratio = found.tempo / tempo;
    const simple = [1, 2, 0.5, 3, 1 / 3, 1.5, 2 / 3].find((one) => Math.abs(ratio / one - 1) < 0.002);
    expect([feel, tempo, ratio.toFixed(3), simple !== undefined]).toEqual([
      feel,
      tempo,
      ratio.toFixed(3),
      true,
    ]);
    if (simple === 1) expect(Math.abs(found.firstSec - 30_000 / 44_100 - 0.1)).toBeLessThan(0.03);
  },
);

test('taps give tempo and bar 1 however uneven, a missed one included; too few or absurd ones give nothing', () => {
  const random = seededRandom(2);
  const taps = [0, 1, 2, 4, 5, 6, 7, 8].map((beat) => 3.2 + beat * 0.625 + gaussian(random) * 0.012);
  const found = tappedPulse(taps)!;
  expect([
    Math.abs(found.tempo - 96) < 1,
    Math.abs(found.firstSec - 3.2) < 0.02,
    found.certainty > 0.8,
  ]).toEqual([true, true, true]);
  expect([tappedPulse([1, 2, 3]), tappedPulse([0, 0.01, 0.02, 0.03]), tappedPulse([0, 9, 18, 27])]).toEqual([
    null,
    null,
    null,
  ]);
});

test('nothing pulses in silence', () =>
  expect([pulseOf(new Float32Array(44_100 * 10), 44_100), pulseOf(new Float32Array(100), 44_100)]).toEqual([
    null,
    null,
  ]));
