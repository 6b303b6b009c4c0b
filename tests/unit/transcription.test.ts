import { beforeAll, expect, test } from '@jest/globals';
import { transcribe, Transcriber } from '@/core/transcribe';
import { resample } from '@/core/sound';
import { loadGuitar, type GuitarSample, type Instrument } from '../corpora/guitarSamples';
import { stringLine, type LabelledLine, type LineOptions } from '../corpora/guitarLines';
import { scoreNotes } from '../score/notes';

// Recorded guitar notes from the npm registry (MIT), each measured before it is used, strung into lines with known truth.
const LINES: Record<string, LineOptions> = {
  middle: { notes: 26, gaps: [0.25, 0.3, 0.5], lowest: 45, highest: 76 },
  low: { notes: 20, gaps: [0.3, 0.4], lowest: 40, highest: 55 },
  high: { notes: 26, gaps: [0.2, 0.3], lowest: 64, highest: 88 },
  fast: { notes: 34, gaps: [0.12, 0.15], lowest: 50, highest: 76 },
  repeated: { notes: 26, gaps: [0.25, 0.35], lowest: 45, highest: 76, repeat: 0.4 },
};
const INSTRUMENTS: Instrument[] = ['acoustic', 'electric', 'nylon'];
const guitars = {} as Record<Instrument, GuitarSample[]>;
beforeAll(async () => {
  for (const instrument of INSTRUMENTS) guitars[instrument] = await loadGuitar(instrument);
}, 60_000);

const f1 = (line: LabelledLine, rate = line.rate, samples = line.samples): number =>
  scoreNotes(
    line.truth,
    transcribe(samples, rate, { tuning: 440 }).notes.map((note) => ({
      onset: note.onsetSec,
      pitch: note.midi + note.cents / 100,
    })),
  ).f1;

test('clean lines of recorded notes: at least 93 % of notes on every guitar', () => {
  const scores: number[] = [];
  for (const instrument of INSTRUMENTS) {
    const own = Object.values(LINES).map((options, index) =>
      f1(stringLine(guitars[instrument], options, 100 + index)),
    );
    const mean = own.reduce((sum, score) => sum + score, 0) / own.length;
    console.log(`${instrument}: ${own.map((score) => (score * 100).toFixed(1)).join(' ')}`);
    expect({ instrument, enough: mean >= 0.93 }).toEqual({ instrument, enough: true });
    scores.push(...own);
  }
  expect(scores.reduce((sum, score) => sum + score, 0) / scores.length).toBeGreaterThanOrEqual(0.96);
}, 120_000);

test('a note that rings 150 ms into the next: the new one begins at its attack, and what the two share is nobody’s', () => {
  for (const instrument of INSTRUMENTS)
    expect([
      instrument,
      f1(stringLine(guitars[instrument], { ...LINES.middle!, notes: 30, damping: 0.15 }, 31)) >= 0.95,
    ]).toEqual([instrument, true]);
}, 60_000);

test('any usual sample rate, and a quiet input', () => {
  const line = stringLine(guitars.acoustic, { ...LINES.middle!, notes: 20 }, 7);
  for (const rate of [16_000, 22_050, 48_000, 96_000])
    expect([rate, f1(line, rate, resample(line.samples, line.rate, rate)) >= 0.95]).toEqual([rate, true]);
  expect(
    f1(
      line,
      line.rate,
      line.samples.map((value) => value * 0.02),
    ),
  ).toBeGreaterThanOrEqual(0.95);
}, 60_000);

test('fed in blocks of any size it hears the same as at once', () => {
  const line = stringLine(guitars.electric, { ...LINES.middle!, notes: 12 }, 9);
  const whole = transcribe(line.samples, line.rate);
  for (const size of [128, 2048, 44_100]) {
    const transcriber = new Transcriber(line.rate);
    for (let at = 0; at < line.samples.length; at += size)
      transcriber.push(line.samples.subarray(at, at + size));
    expect(transcriber.finish()).toEqual(whole);
  }
}, 60_000);

test('a take of minutes is concluded while it goes on: the same notes as at once, none lost or doubled at a seam, and no more sound held than half a minute', () => {
  const line = stringLine(guitars.electric, { ...LINES.middle!, notes: 330, gaps: [0.2, 0.3, 0.4] }, 13);
  expect(line.samples.length / line.rate).toBeGreaterThan(95);
  const transcriber = new Transcriber(line.rate);
  let most = 0;
  for (let at = 0; at < line.samples.length; at += 24_000) {
    transcriber.push(line.samples.subarray(at, at + 24_000));
    if (at > 90 * line.rate) most = Math.max(most, transcriber.heldSec);
  }
  const heard = transcriber.finish();
  expect(most).toBeLessThan(42);
  expect(heard).toEqual(transcribe(line.samples, line.rate));
  expect(
    scoreNotes(
      line.truth,
      heard.notes.map((note) => ({ onset: note.onsetSec, pitch: note.midi + note.cents / 100 })),
    ).f1,
  ).toBeGreaterThan(0.97);
}, 120_000);

test('an instrument 25 cents flat is heard flat against 440, and in tune against itself', () => {
  const line = stringLine(guitars.acoustic, { ...LINES.middle!, notes: 30 }, 11);
  const flat = resample(line.samples, line.rate, line.rate * 2 ** (25 / 1200)); // more samples played at the old rate: lower
  const heard = transcribe(flat, line.rate);
  expect(1200 * Math.log2(heard.tuning.a4 / 440)).toBeCloseTo(-25, -1);
  const cents = heard.notes.map((note) => note.cents).sort((a, b) => a - b);
  expect(Math.abs(cents[cents.length >> 1]!)).toBeLessThanOrEqual(6);
}, 60_000);

test('silence and noise are no notes; a rate that is none is refused', () => {
  expect(transcribe(new Float32Array(44_100), 44_100).notes).toEqual([]);
  expect(transcribe(new Float32Array(0), 44_100).notes).toEqual([]);
  let state = 1;
  const hiss = Float32Array.from(
    { length: 88_200 },
    () => ((state = (state * 16807) % 2147483647) / 2147483647 - 0.5) * 0.01,
  );
  expect(transcribe(hiss, 44_100).notes.length).toBeLessThanOrEqual(2);
  expect(() => new Transcriber(0)).toThrow(RangeError);
});

test('a note that rises two semitones while it rings is one note with a bend, settled where it was held', () => {
  const rate = 44_100;
  let phase = 0;
  const tone = Float32Array.from({ length: rate * 1.5 }, (_, n) => {
    const time = n / rate - 0.25;
    if (time < 0) return 0;
    const midi = 62 + 2 * Math.max(0, Math.min(1, (time - 0.2) / 0.2));
    phase += (2 * Math.PI * 440 * 2 ** ((midi - 69) / 12)) / rate;
    return (
      [1, 0.5, 0.3, 0.2].reduce((sum, level, index) => sum + level * Math.sin(phase * (index + 1)), 0) *
      0.2 *
      Math.exp(-time * 1.2) *
      Math.min(1, time / 0.003)
    );
  });
  const { notes } = transcribe(tone, rate, { tuning: 440 });
  expect(notes).toHaveLength(1);
  expect(notes[0]).toMatchObject({ midi: 64 });
  expect(notes[0]!.bend![0]![1]).toBeLessThan(-150);
});
