import { bandOver } from '../corpora/band';
import { expect, test } from '@jest/globals';
import { readChart } from '@/core/chart';
import { transcribe, Transcriber } from '@/core/transcribe';
import { unwrap, gaussian, seededRandom } from '@/core/shared';

// Whatever comes in: no crash, no hang, no invented solo. The sounds are made here; what a drum or a voice is made of is common practice, no source.
const RATE = 22_050;
const make = (seconds: number, at: (time: number, n: number) => number, rate = RATE): Float32Array =>
  Float32Array.from({ length: Math.round(seconds * rate) }, (_, n) => at(n / rate, n));
const tone =
  (hz: number) =>
  (time: number): number =>
    0.3 * Math.sin(2 * Math.PI * hz * time);

test('silence, one sample and nothing hold no note', () => {
  for (const samples of [
    new Float32Array(0),
    new Float32Array(1),
    new Float32Array([0.9]),
    new Float32Array(3 * RATE),
  ])
    expect(transcribe(samples, RATE).notes).toEqual([]);
});

test('noise, clicks and direct current hold hardly a note', () => {
  const random = seededRandom(3);
  expect(
    transcribe(
      make(6, () => 0.2 * gaussian(random)),
      RATE,
    ).notes.length,
  ).toBeLessThanOrEqual(1);
  expect(
    transcribe(
      make(6, (_, n) => (n % 9000 === 0 ? 0.9 : 0)),
      RATE,
    ).notes.length,
  ).toBeLessThanOrEqual(1);
  expect(
    transcribe(
      make(3, () => 0.7),
      RATE,
    ).notes,
  ).toEqual([]);
});

test('samples that are no numbers count as silence: the tone around them is heard', () => {
  const samples = make(2, (time, n) => {
    if (n % 500 === 0) return NaN;
    if (n % 777 === 0) return Infinity;
    return tone(330)(time);
  });
  const heard = transcribe(samples, RATE);
  expect(
    heard.notes.every((note) =>
      Object.values(note).every((value) => typeof value !== 'number' || Number.isFinite(value)),
    ),
  ).toBe(true);
  expect(Number.isFinite(heard.playingLevel)).toBe(true);
});

test('a tone clipped to a square keeps its pitch', () => {
  const square = make(1.5, (time) => (time < 0.3 ? 0 : Math.sign(tone(220)(time)) * 0.9));
  const { notes } = transcribe(square, RATE);
  expect([notes.length > 0, notes.every(({ midi }) => midi === 57)]).toEqual([true, true]);
});

test('from 8 000 to 192 000 samples a second; others are refused', () => {
  for (const rate of [8_000, 192_000]) {
    const plucked = make(
      1.2,
      (time) =>
        time < 0.2
          ? 0
          : [1, 2, 3, 4].reduce(
              (sum, harmonic) => sum + Math.sin(2 * Math.PI * 220 * harmonic * time) / harmonic,
              0,
            ) *
            0.2 *
            Math.exp(-3 * (time - 0.2)),
      rate,
    );
    expect([rate, transcribe(plucked, rate).notes.map(({ midi }) => midi)]).toEqual([rate, [57]]);
  }
  for (const rate of [0, -1, NaN, 1e9]) expect(() => new Transcriber(rate)).toThrow(RangeError);
});

const CHART = unwrap(readChart('key: C\nfeel: straight\n| C | F |'));
/** The band's drums alone. */
function drumLoop(): Float32Array {
  return bandOver(CHART, {
    tempo: 110,
    choruses: 3,
    seed: 2,
    seconds: 12,
    mix: { drums: 1, bass: 0, chords: 0 },
  });
}

/** A voice: a gliding pulse train through two moving resonances, in syllables, with hisses between. */
function speech(): Float32Array {
  const random = seededRandom(12);
  let [phase, y1, y2, z1, z2] = [0, 0, 0, 0, 0];
  return make(10, (time) => {
    const syllable = Math.floor(time / 0.22);
    const within = (time / 0.22) % 1;
    const hz = 118 + 26 * Math.sin(time * 1.7) + 22 * Math.sin(time * 5.1 + syllable) - 20 * within;
    phase += hz / RATE;
    const pulse = phase >= 1 ? ((phase -= 1), 1) : 0;
    const spoken = within < 0.7 && syllable % 5 !== 4 ? pulse * Math.sin(Math.PI * (within / 0.7)) : 0;
    const hiss = within >= 0.7 && syllable % 3 === 0 ? 0.05 * gaussian(random) : 0;
    const resonate = (x: number, centre: number, a: number, b: number) =>
      x + 2 * 0.975 * Math.cos((2 * Math.PI * centre) / RATE) * a - 0.975 ** 2 * b;
    const first = resonate(spoken, 500 + 250 * Math.sin(syllable * 2.4), y1, y2);
    [y2, y1] = [y1, first];
    const second = resonate(first * 0.05, 1400 + 600 * Math.cos(syllable * 1.3), z1, z2);
    [z2, z1] = [z1, second];
    return Math.max(-1, Math.min(1, second * 0.5 + hiss));
  });
}

test('a drum loop and a voice are no solo: what little is heard is said to be doubtful', () => {
  for (const [name, samples] of [
    ['drums', drumLoop()],
    ['voice', speech()],
  ] as const) {
    const { notes, certainty } = transcribe(samples, RATE);
    console.log(`${name}: ${notes.length} notes, certainty ${certainty}`);
    expect([name, certainty < 0.5]).toEqual([name, true]);
  }
});

test('a long take goes through block by block, and what is kept grows with it alone', () => {
  const transcriber = new Transcriber(8_000);
  const block = make(
    10,
    (time) =>
      time % 2 < 1 ? [1, 2, 3].reduce((sum, harmonic) => sum + tone(196 * harmonic)(time) / harmonic, 0) : 0,
    8_000,
  );
  for (let part = 0; part < 9; part++) transcriber.push(block);
  const { notes, durationSec } = transcriber.finish();
  expect([durationSec, Math.abs(notes.length - 45) <= 1]).toEqual([90, true]);
}, 120_000);
