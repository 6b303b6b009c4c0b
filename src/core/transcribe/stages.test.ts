import { expect, test } from '@jest/globals';
import { candidatesOf, joinCandidates, MOST_CANDIDATES } from './candidates';
import { FRAME_SECONDS, FrameReader, HOP, RATE, type Frame } from './frames';
import { notesOf, playingLevel } from './notes';
import { onsetsOf, riseAt, type Onset } from './onsets';
import { pathOf } from './path';
import { restingPitch, segmentsOf } from './segments';
import { tuningOf } from './tuning';

// Each stage on frames written by hand, so that its rule is seen alone.

const sure = (midi: number, level = -20, flux = 0.005): Frame => ({ candidates: [{ midi, weight: 0.9 }], level, flux });
const silent: Frame = { candidates: [], level: -100, flux: 0 };
const frames = (...stretches: [Frame, number][]): Frame[] => stretches.flatMap(([frame, count]) => Array.from({ length: count }, () => frame));
const at = (frame: number, rise = 10, strength = 1): Onset => ({ frame, strength, rise });
const seconds = (count: number) => count * FRAME_SECONDS;

/** A difference function with dips of given depth at given lags. */
function dips(length: number, ...found: [number, number][]): Float64Array {
  const values = new Float64Array(length).fill(1);
  for (const [lag, depth] of found) {
    values[lag] = depth;
    values[lag - 1] = values[lag + 1] = (1 + depth) / 2;
  }
  return values;
}

test('candidates: a deep dip takes nearly all belief, a shorter period that is nearly as deep before its double', () => {
  const [only] = candidatesOf(dips(300, [100, 0.02]), 16, RATE);
  expect(only!.midi).toBeCloseTo(69 + 12 * Math.log2(RATE / 100 / 440), 2);
  expect(only!.weight).toBeGreaterThan(0.9);
  const both = candidatesOf(dips(300, [100, 0.05], [200, 0.04]), 16, RATE).sort((a, b) => b.weight - a.weight);
  expect(both[0]!.midi).toBeCloseTo(only!.midi, 2);
});

test('candidates: nothing but noise gives hardly any belief, a flat function none', () => {
  const noise = candidatesOf(dips(300, [50, 0.8], [120, 0.75]), 16, RATE);
  expect(noise.reduce((sum, { weight }) => sum + weight, 0)).toBeLessThan(0.05);
  expect(candidatesOf(new Float64Array(300).fill(1), 16, RATE)).toEqual([]);
});

test('candidates: a dip between samples is placed by its parabola', () => {
  const values = dips(300);
  for (let lag = 90; lag <= 111; lag++) values[lag] = 0.05 + 0.002 * (lag - 100.4) ** 2;
  expect(candidatesOf(values, 16, RATE)[0]!.midi).toBeCloseTo(69 + 12 * Math.log2(RATE / 100.4 / 440), 3);
});

test('two windows join what they agree on, and keep a bounded list', () => {
  const joined = joinCandidates([{ midi: 60, weight: 0.8 }], [{ midi: 60.1, weight: 0.6 }, { midi: 72, weight: 0.2 }], 0.5);
  expect(joined.map(({ midi }) => Math.round(midi))).toEqual([60, 72]);
  expect(joined[0]!.weight).toBeCloseTo(0.7);
  const many = Array.from({ length: 20 }, (_, n) => ({ midi: 40 + 2 * n, weight: 0.01 * n }));
  expect(joinCandidates(many, [], 0.5)).toHaveLength(MOST_CANDIDATES);
});

test('frames come every hop, the first centred on the first sample, as many as the sound is long', () => {
  const reader = new FrameReader(RATE);
  const all = [...reader.push(new Float32Array(RATE)), ...reader.finish()];
  expect(all.length).toBeGreaterThanOrEqual(Math.floor(RATE / HOP));
  expect(all.length).toBeLessThanOrEqual(Math.floor(RATE / HOP) + 5);
});

test('onsets: a peak over its surroundings, the least gap kept, the stronger of two close ones', () => {
  const flux = new Array<number>(200).fill(0.01);
  flux[50] = 1;
  flux[54] = 0.3;
  flux[120] = 0.8;
  flux[160] = 0.03;
  const onsets = onsetsOf(flux.map((value) => ({ candidates: [], level: -20, flux: value })));
  expect(onsets.map(({ frame }) => frame)).toEqual([51, 121]);
});

test('a rise is measured from the lowest just before to the highest just after', () => {
  expect(riseAt(frames([sure(60, -40), 20], [sure(60, -12), 20]), 20)).toBe(28);
  expect(riseAt(frames([sure(60, -20), 40]), 20)).toBe(0);
});

test('the path stays on one pitch through a frame of doubt, and leaves it at an attack', () => {
  const doubt: Frame = { candidates: [{ midi: 48, weight: 0.5 }, { midi: 60, weight: 0.4 }], level: -20, flux: 0 };
  const track = pathOf(frames([sure(60), 20], [doubt, 2], [sure(60), 20]), [], -70);
  expect([...track].every((midi) => midi === 60)).toBe(true);
  const jump = pathOf(frames([sure(60), 20], [sure(67), 20]), [at(20)], -70);
  expect([jump[10], jump[30]]).toEqual([60, 67]);
});

test('the path has no pitch in silence or under the gate', () => {
  const track = pathOf(frames([silent, 10], [sure(60), 20], [sure(60, -60), 10]), [at(10)], -50);
  expect([track[5], track[20], track[35]].map(Number.isNaN)).toEqual([true, false, true]);
});

const trackOf = (...stretches: [number, number][]): Float64Array => Float64Array.from(stretches.flatMap(([midi, count]) => new Array<number>(count).fill(midi)));
const cutsOf = (track: Float64Array, levels: Frame[], onsets: Onset[]) => segmentsOf(track, levels, onsets).map(({ from, to, cut }) => [from, to, cut]);

test('a hammer-on is cut at the step, without an attack', () => {
  const track = trackOf([60, 40], [62, 40]);
  const cuts = cutsOf(track, frames([sure(60), 80]), [at(0)]);
  expect(cuts).toHaveLength(2);
  expect(Math.abs((cuts[1]![0] as number) - 40)).toBeLessThanOrEqual(2);
  expect(cuts[1]![2]).toBe('step');
});

test('a bend slower than 80 ms is one note', () => {
  const rise = Array.from({ length: 30 }, (_, n) => 60 + (2 * n) / 30);
  const track = Float64Array.from([...new Array<number>(30).fill(60), ...rise, ...new Array<number>(30).fill(62)]);
  expect(cutsOf(track, frames([sure(60), 90]), [at(0)])).toHaveLength(1);
});

test('the same pitch struck again is two notes when the level rises, one when it does not', () => {
  const track = trackOf([60, 80]);
  const levels = frames([sure(60), 80]);
  expect(cutsOf(track, levels, [at(0), at(40, 9)])).toHaveLength(2);
  expect(cutsOf(track, levels, [at(0), at(40, 0.5, 0.05)])).toHaveLength(1);
});

test('an octave drop without an attack is the same note; with one it is another', () => {
  const track = trackOf([72, 30], [60, 50]);
  const levels = frames([sure(60), 80]);
  expect(cutsOf(track, levels, [at(0)])).toHaveLength(1);
  expect(cutsOf(track, levels, [at(0), at(30)])).toHaveLength(2);
});

test('under a fresh attack the body may answer lower for a moment: one note, from the attack', () => {
  const track = trackOf([54, 14], [66, 60]);
  const segments = segmentsOf(track, frames([sure(66), 74]), [at(0)]);
  expect(segments).toHaveLength(1);
  expect(restingPitch(track, segments[0]!)).toBe(66);
});

test('the old note outsounding a new one for a moment: the new one begins at its attack', () => {
  const track = trackOf([60, 60], [67, 40]);
  const cuts = segmentsOf(track, frames([sure(60), 100]), [at(0), at(45)]);
  expect(cuts.map(({ onset }) => onset?.frame)).toEqual([0, 45]);
  expect(Math.abs(cuts[0]!.to - 60)).toBeLessThanOrEqual(2);
});

test('a pitch first heard 150 ms after its attack belongs to that attack', () => {
  const track = trackOf([60, 40], [NaN, 26], [67, 40]);
  expect(segmentsOf(track, frames([sure(60), 106]), [at(0), at(40)]).map(({ onset }) => onset?.frame)).toEqual([0, 40]);
});

test('the common subharmonic of two notes that overlap is nobody’s note', () => {
  // 47.0 lies a fifth of the frequency of 74.86 and a sixth of that of 78.02
  const track = trackOf([74.86, 40], [47, 14], [78.02, 40]);
  const cuts = segmentsOf(track, frames([sure(60), 94]), [at(0), at(40)]);
  expect(cuts.map((one) => [Math.round(restingPitch(track, one)), one.onset?.frame])).toEqual([[75, 0], [78, 40]]);
});

test('a blip shorter than 45 ms is no note, and gaps of up to 18 ms do not cut one', () => {
  expect(cutsOf(trackOf([NaN, 10], [60, 4], [NaN, 30]), frames([sure(60), 44]), [])).toEqual([]);
  expect(cutsOf(trackOf([60, 20], [NaN, 2], [60, 20]), frames([sure(60), 42]), [at(0)])).toHaveLength(1);
});

test('notes: from the attack, at the densest pitch, counted from the take’s tuning', () => {
  const track = trackOf([NaN, 8], [60.1, 40], [60.4, 6]);
  const own: Frame[] = [...frames([silent, 8]), ...Array.from(track.subarray(8), (midi) => sure(midi))];
  const [note] = notesOf([{ from: 10, to: 54, onset: at(8), cut: 'attack' }], track, own, 440 * 2 ** (10 / 1200));
  expect(note).toMatchObject({ midi: 60, cents: 0, confidence: 0.9, level: -20 });
  expect(note!.onsetSec).toBeCloseTo(seconds(8), 4);
  expect(note!.offsetSec).toBeCloseTo(seconds(54), 4);
  expect(note!.bend).toBeUndefined();
});

test('what lies far under the playing level is bleed, and what nothing believes is no note', () => {
  const track = trackOf([60, 200], [65, 30]);
  const loud = frames([sure(60, -15), 200], [sure(65, -50), 30]);
  const segments = [{ from: 0, to: 200, onset: at(0), cut: 'attack' as const }, { from: 200, to: 230, onset: at(200), cut: 'attack' as const }];
  expect(notesOf(segments, track, loud, 440).map((note) => note.midi)).toEqual([60]);
  expect(playingLevel(loud)).toBe(-15);
  const doubtful = frames([{ candidates: [{ midi: 60, weight: 0.05 }], level: -15, flux: 0 }, 230]);
  expect(notesOf(segments, track, doubtful, 440)).toEqual([]);
});

test('tuning: the circular mean of deviations; frames that do not agree leave it at 440', () => {
  const flat = Float64Array.from({ length: 400 }, (_, n) => 60 + (n % 12) - 0.25);
  expect(1200 * Math.log2(tuningOf(flat) / 440)).toBeCloseTo(-25, 5);
  const near = Float64Array.from({ length: 400 }, (_, n) => 60 + (n % 2 ? 0.48 : -0.48));
  expect(Math.abs(1200 * Math.log2(tuningOf(near) / 440))).toBeCloseTo(50, 0);
  expect(tuningOf(Float64Array.from({ length: 400 }, (_, n) => 60 + n / 400))).toBe(440);
  expect(tuningOf(new Float64Array(400).fill(NaN))).toBe(440);
});
