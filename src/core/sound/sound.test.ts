import { expect, test } from '@jest/globals';
import { seededRandom } from '../shared';
import {
  alignmentOf,
  concat,
  HighPass,
  LeakRemover,
  levelOf,
  magnitudeNear,
  NormalisedDifference,
  peakOf,
  resample,
  Resampler,
  SignalStore,
  SpectralFlux,
  SpectrumReader,
  SILENCE,
} from './index';

const sine = (hz: number, rate: number, seconds: number): Float32Array =>
  Float32Array.from({ length: Math.round(rate * seconds) }, (_, n) =>
    Math.sin((2 * Math.PI * hz * n) / rate),
  );

/** YIN's equations 1, 6 and 8 word for word: the slow oracle of the routine by FFT. */
function plainDifference(samples: Float32Array, from: number, window: number, maxLag: number): number[] {
  const raw = Array.from({ length: maxLag + 1 }, (_, lag) => {
    let sum = 0;
    for (let j = 0; j < window; j++) sum += (samples[from + j]! - samples[from + j + lag]!) ** 2;
    return sum;
  });
  let running = 0;
  return raw.map((value, lag) =>
    lag === 0 ? 1 : ((running += value), running > 1e-12 ? (value * lag) / running : 1),
  );
}

test('the normalised difference by FFT equals the plain one', () => {
  const random = seededRandom(3);
  const samples = Float32Array.from({ length: 1200 }, (_, n) => Math.sin(n / 9) + 0.3 * (random() - 0.5));
  for (const [window, maxLag] of [
    [620, 362],
    [305, 202],
    [64, 31],
  ] as const) {
    const difference = new NormalisedDifference(window, maxLag);
    for (const from of [0, 57]) {
      const fast = Array.from(difference.compute(samples, from));
      plainDifference(samples, from, window, maxLag).forEach((value, lag) =>
        expect(fast[lag]).toBeCloseTo(value, 4),
      );
    }
  }
});

test('resampling keeps a tone’s pitch, level and place, and lets nothing fold back', () => {
  for (const [from, to] of [
    [44_100, 22_050],
    [48_000, 22_050],
    [22_050, 44_100],
    [44_100, 48_000],
    [8_000, 22_050],
  ] as const) {
    const out = resample(sine(440, from, 0.5), from, to);
    expect(out.length).toBe(Math.round(0.5 * to));
    const expected = sine(440, to, 0.5);
    let worst = 0;
    for (let n = 400; n < out.length - 400; n++) worst = Math.max(worst, Math.abs(out[n]! - expected[n]!));
    expect(worst).toBeLessThan(0.01);
  }
  expect(levelOf(resample(sine(15_000, 44_100, 0.5), 44_100, 22_050), 1000, 8000)).toBeLessThan(-60);
});

test('a resampler fed in pieces gives the same samples', () => {
  const input = sine(523, 44_100, 0.3);
  const whole = resample(input, 44_100, 22_050);
  for (const size of [1, 100, 4096]) {
    const resampler = new Resampler(44_100, 22_050);
    const pieces: Float32Array[] = [];
    for (let at = 0; at < input.length; at += size)
      pieces.push(resampler.push(input.subarray(at, at + size)));
    expect(concat([...pieces, resampler.finish()])).toEqual(whole);
  }
});

test('levels in dBFS: a full-scale sine is −3 dB, silence has a floor', () => {
  expect(levelOf(sine(1000, 44_100, 1))).toBeCloseTo(-3.01, 1);
  expect(peakOf(sine(1000, 44_100, 1))).toBeCloseTo(0, 1);
  expect([levelOf(new Float32Array(10)), levelOf(new Float32Array(0)), peakOf(new Float32Array(3))]).toEqual([
    SILENCE,
    SILENCE,
    SILENCE,
  ]);
});

test('the high-pass takes direct current away and leaves the low E', () => {
  const constant = new HighPass(45, 22_050).process(new Float32Array(22_050).fill(0.5));
  expect(Math.abs(constant[20_000]!)).toBeLessThan(1e-3);
  const low = new HighPass(45, 22_050).process(sine(82.4, 22_050, 1));
  expect(levelOf(low, 11_000, 11_000)).toBeGreaterThan(-3.6);
});

test('flux peaks where a tone begins and not while it swells in vibrato', () => {
  const rate = 22_050;
  const samples = Float32Array.from({ length: rate }, (_, n) =>
    n < rate / 2
      ? 0
      : Math.sin((2 * Math.PI * 330 * n) / rate + 1.5 * Math.sin((2 * Math.PI * 5.5 * n) / rate)) * 0.5,
  );
  const flux = new SpectralFlux(512, 2);
  const values = Array.from({ length: 160 }, (_, frame) => flux.next(samples, frame * 128));
  const peak = values.indexOf(Math.max(...values));
  expect(Math.abs(peak * 128 + 256 - rate / 2)).toBeLessThan(400);
  expect(Math.max(...values.slice(peak + 10))).toBeLessThan(values[peak]! * 0.05);
});

test('the flux equals its plain form: transforms written out, rises over the loudest of three neighbours two frames before', () => {
  const random = seededRandom(4);
  const [size, hop, count] = [64, 16, 6];
  const samples = Float32Array.from(
    { length: size + hop * count },
    (_, n) => 0.3 * Math.sin(n / 3) + 0.1 * (random() - 0.5),
  );
  const magnitudes = Array.from({ length: count }, (_, frame) =>
    Array.from({ length: size / 2 }, (_, k) => {
      let [re, im] = [0, 0];
      for (let n = 0; n < size; n++) {
        const value = samples[frame * hop + n]! * (0.5 - 0.5 * Math.cos((2 * Math.PI * n) / size));
        re += value * Math.cos((2 * Math.PI * k * n) / size);
        im -= value * Math.sin((2 * Math.PI * k * n) / size);
      }
      return k === 0 ? 0 : Math.hypot(re, im);
    }),
  );
  let loudest = 1e-4;
  const logs = magnitudes.map((row) => {
    loudest = Math.max(...row, loudest * 0.9997, 1e-4);
    return row.map((value) => Math.log(1 + value / (loudest * 0.003)));
  });
  const flux = new SpectralFlux(size, 2);
  for (let frame = 0; frame < count; frame++) {
    const before = logs[frame - 2] ?? new Array<number>(size / 2).fill(0); // silence
    const plain =
      logs[frame]!.reduce(
        (sum, value, k) =>
          k < 2 || k > size / 2 - 2
            ? sum
            : sum + Math.max(0, value - Math.max(...before.slice(k - 1, k + 2))),
        0,
      ) /
      (size / 2);
    expect(flux.next(samples, frame * hop)).toBeCloseTo(plain, 5);
  }
});

test('a stored signal is what was put in, to 16 bits of each chunk’s own peak, whatever the blocks', () => {
  const random = seededRandom(5);
  const signal = Float32Array.from({ length: 30_000 }, (_, n) => (random() - 0.5) * (n < 8192 ? 1e-3 : 0.8));
  const store = new SignalStore();
  for (let at = 0; at < signal.length; at += 977) store.push(signal.subarray(at, at + 977));
  expect(store.length).toBe(signal.length);
  const read = new Float64Array(30_100);
  store.read(-50, read);
  let [quiet, loud] = [0, 0];
  signal.forEach((value, n) =>
    n < 8192
      ? (quiet = Math.max(quiet, Math.abs(value - read[n + 50]!)))
      : (loud = Math.max(loud, Math.abs(value - read[n + 50]!))),
  );
  expect([quiet < 1e-7, loud < 1e-4, read[0], read.at(-1)]).toEqual([true, true, 0, 0]);
  store.forget(20_000); // two whole chunks lie before it
  store.read(0, read);
  expect([
    store.length,
    read.subarray(0, 16_384).every((value) => value === 0),
    Math.abs(read[17_000]! - signal[17_000]!) < 1e-4,
  ]).toEqual([30_000, true, true]);
});

test('a spectrum equals the plain transform of the windowed signal', () => {
  const samples = Float64Array.from({ length: 200 }, (_, n) => Math.sin(n / 5) + 0.3 * Math.cos(n / 2.2));
  const { values, binHz } = new SpectrumReader(512, 22_050).read(samples);
  for (const k of [0, 3, 17, 40, 111, 255]) {
    let [re, im] = [0, 0];
    samples.forEach((value, n) => {
      const windowed = value * (0.5 - 0.5 * Math.cos((2 * Math.PI * (n + 0.5)) / 200));
      re += windowed * Math.cos((2 * Math.PI * k * n) / 512);
      im -= windowed * Math.sin((2 * Math.PI * k * n) / 512);
    });
    expect(values[k]).toBeCloseTo((4 / 200) * Math.hypot(re, im), 6);
  }
  const tone = new SpectrumReader(4096, 22_050).read(
    Float64Array.from({ length: 3000 }, (_, n) => 0.25 * Math.sin((2 * Math.PI * 331.7 * n) / 22_050)),
  );
  expect(Math.abs(magnitudeNear(tone, 331.7) - 0.25)).toBeLessThan(0.015); // half a bin off its centre
  expect(magnitudeNear(tone, 500)).toBeLessThan(0.002);
  expect(binHz).toBeCloseTo(22_050 / 512);
});

const noise = (length: number, seed: number) => {
  const random = seededRandom(seed);
  return Float32Array.from({ length }, () => random() - 0.5);
};

test('a known signal is found in a recording, and is not found where it is not', () => {
  const [band, other] = [noise(60_000, 1), noise(60_000, 2)];
  const recording = Float32Array.from({ length: 60_000 }, (_, n) => other[n]! + 0.3 * (band[n - 4321] ?? 0));
  const found = alignmentOf(recording, band, 22_050, [-1, 1]);
  expect([found.delay, found.prominence > 15]).toEqual([4321, true]);
  expect(alignmentOf(other, band, 22_050, [-1, 1]).prominence).toBeLessThan(9);
});

test('the leak of a known band goes, through loudspeaker and room; what the player did stays', () => {
  const rate = 22_050;
  const band = noise(12 * rate, 7);
  const player = Float32Array.from({ length: band.length }, (_, n) =>
    Math.floor(n / 5000) % 3 === 0 ? 0 : 0.5 * Math.sin(n / 12),
  );
  const room = [
    [0, 1],
    [180, -0.4],
    [900, 0.3],
    [2100, -0.15],
  ] as const;
  const leak = band.map(
    (_, n) => 0.25 * room.reduce((sum, [delay, gain]) => sum + gain * (band[n - delay] ?? 0), 0),
  );
  const remover = new LeakRemover(rate);
  const recording = player.map((value, n) => value + leak[n]!);
  const cleaned = concat([
    ...[0, 1, 2].map((part) =>
      remover.push(
        recording.slice(part * 4 * rate, (part + 1) * 4 * rate),
        band.slice(part * 4 * rate, (part + 1) * 4 * rate),
      ),
    ),
    remover.finish(),
  ]).subarray(LeakRemover.lag, LeakRemover.lag + band.length);
  const left = resample(
    cleaned.map((value, n) => value - player[n]!),
    rate,
    11_025,
  );
  const was = resample(leak, rate, 11_025);
  expect(levelOf(left) - levelOf(was)).toBeLessThan(-12);
  // a band that was never played explains nothing and takes nothing away
  const silentRoom = new LeakRemover(rate);
  const kept = concat([silentRoom.push(player, noise(player.length, 9)), silentRoom.finish()]).subarray(
    LeakRemover.lag,
    LeakRemover.lag + player.length,
  );
  expect(levelOf(kept.map((value, n) => value - player[n]!)) - levelOf(player)).toBeLessThan(-20);
}, 60_000);
