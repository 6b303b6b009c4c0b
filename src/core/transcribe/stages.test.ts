import { expect, test } from '@jest/globals';
import { candidatesOf, joinCandidates, MOST_CANDIDATES } from './candidates';
import { FRAME_SECONDS, FrameReader, HOP, RATE, type AnalysisFrame } from './frames';
import { seededRandom } from '../shared';
import { approachOf } from './approach';
import { gestureOf } from './contour';
import { settleGlides } from './glides';
import { logOdds, probabilityOf, unpack } from './classifier';
import { PlayingLevel } from './level';
import { LiveLine } from './live';
import { onsetCandidatesOf, type OnsetCandidate } from './onsetCandidates';
import { onsetsOf, riseAt, type Onset } from './onsets';
import { pathOf } from './path';
import { noteOnsetsOf, type NoteOnset } from './noteOnsets';
import { OwnTuning } from './tuning';

const a4Of = (track: Float64Array): number => {
  const tuning = new OwnTuning();
  tuning.add(track.subarray(0, 100));
  tuning.add(track.subarray(100));
  return tuning.a4;
};

// Each stage on frames written by hand, so that its rule is seen alone.

const sure = (midi: number, level = -20, flux = 0.005): AnalysisFrame => ({
  candidates: [{ midi, weight: 0.9 }],
  level,
  flux,
});
const silent: AnalysisFrame = { candidates: [], level: -100, flux: 0 };
const frames = (...stretches: [AnalysisFrame, number][]): AnalysisFrame[] =>
  stretches.flatMap(([frame, count]) => Array.from({ length: count }, () => frame));
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
  const both = candidatesOf(dips(300, [100, 0.05], [200, 0.04]), 16, RATE).sort(
    (a, b) => b.weight - a.weight,
  );
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
  const joined = joinCandidates(
    [{ midi: 60, weight: 0.8 }],
    [
      { midi: 60.1, weight: 0.6 },
      { midi: 72, weight: 0.2 },
    ],
    0.5,
  );
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
  const doubt: AnalysisFrame = {
    candidates: [
      { midi: 48, weight: 0.5 },
      { midi: 60, weight: 0.4 },
    ],
    level: -20,
    flux: 0,
  };
  const track = pathOf(frames([sure(60), 20], [doubt, 2], [sure(60), 20]), [], -70);
  expect([...track].every((midi) => midi === 60)).toBe(true);
  const jump = pathOf(frames([sure(60), 20], [sure(67), 20]), [at(20)], -70);
  expect([jump[10], jump[30]]).toEqual([60, 67]);
});

test('the path has no pitch in silence or under the gate', () => {
  const track = pathOf(frames([silent, 10], [sure(60), 20], [sure(60, -60), 10]), [at(10)], -50);
  expect([track[5], track[20], track[35]].map(Number.isNaN)).toEqual([true, false, true]);
});

const trackOf = (...stretches: [number, number][]): Float64Array =>
  Float64Array.from(stretches.flatMap(([midi, count]) => new Array<number>(count).fill(midi)));
const glide = (from: number, to: number, count: number): [number, number][] =>
  Array.from({ length: count }, (_, n) => [from + ((to - from) * (n + 1)) / (count + 1), 1]);
const framesIn = (time: number) => Math.round(time / FRAME_SECONDS);

/** Every path through the states, by trying each: the oracle of the dynamic programme. */
function bestByTrying(all: readonly AnalysisFrame[]): number[] {
  const own = (frame: AnalysisFrame): [number, number][] => {
    const voiced = frame.candidates.reduce((sum, { weight }) => sum + weight, 0);
    return [
      [NaN, Math.max(1.5, -Math.log(Math.max(0.02, 1 - voiced)))],
      ...frame.candidates.map(({ midi, weight }): [number, number] => [midi, -Math.log(weight)]),
    ];
  };
  const move = (a: number, b: number) => {
    if (Number.isNaN(a)) {
      if (Number.isNaN(b)) return 0;
      return 3;
    }
    if (Number.isNaN(b)) return 3;
    return Math.min(9, Math.max(0, Math.abs(a - b) - 0.3) * 2.2 + Math.min(Math.abs(a - b), 0.3) * 0.5);
  };
  let [best, least] = [[] as number[], Infinity];
  const walk = (index: number, taken: number[], cost: number): void => {
    if (cost >= least) return;
    if (index === all.length) [best, least] = [taken, cost];
    else
      for (const [midi, price] of own(all[index]!))
        walk(index + 1, [...taken, midi], cost + price + (index ? move(taken[index - 1]!, midi) : 0));
  };
  walk(0, [], 0);
  return best;
}

test('the path is the cheapest of all paths', () => {
  const random = seededRandom(8);
  for (let round = 0; round < 12; round++) {
    const all = Array.from({ length: 6 }, (): AnalysisFrame => ({
      level: -20,
      flux: 0,
      candidates: Array.from({ length: 3 }, () => ({
        midi: 50 + Math.round(random() * 40) / 4,
        weight: 0.05 + 0.28 * random(),
      })),
    }));
    expect([...pathOf(all, [], -70)]).toEqual(bestByTrying(all));
  }
});

test('a known pitch carries the path where the period tracker finds none, until it ends', () => {
  const nothing: AnalysisFrame = { candidates: [{ midi: 41, weight: 0.08 }], level: -20, flux: 0 };
  const track = pathOf(frames([nothing, 60]), [at(10)], -70, [
    { from: 10, to: 40, midi: 67.1, struck: true },
  ]);
  expect([track[20], track[38]]).toEqual([67.1, 67.1]);
  expect(track[50]).not.toBe(67.1);
});

const gesture = (...stretches: [number, number][]) => gestureOf(trackOf(...stretches), stretches.at(-1)![0]);
const tenths = (value: number) => Math.round(value * 10) / 10;

test('a bend is one note, judged where it settles; its corners say how far it went', () => {
  const up = gesture([60, 25], ...glide(60, 62, 25), [62, 70])!;
  expect(tenths(up.pitch)).toBe(62);
  expect(up.bend!.map(([, pitch]) => Math.round(pitch))).toEqual([60, 60, 62, 62]);
  expect(up.bend![1]![0]).toBeLessThan(up.bend![2]![0]);
  const released = gesture([60, 20], ...glide(60, 62, 20), [62, 30], ...glide(62, 60, 20), [60, 70])!;
  expect([tenths(released.pitch), ...released.bend!.map(([, pitch]) => Math.round(pitch))]).toEqual([
    60, 60, 60, 62, 62, 60, 60,
  ]);
});

test('a pitch that has arrived 145 ms after the pick is no bend; a steady one made no gesture', () => {
  const slid = gesture([57, 4], ...glide(57, 59, 12), [59, 60])!;
  expect([tenths(slid.pitch), slid.bend]).toEqual([59, undefined]);
  expect(Object.keys(gesture([59, 60])!)).toEqual(['pitch']);
  expect(gesture([NaN, 30])).toBeNull();
});

test('vibrato: rate and width of a steady swing, its middle the pitch; neither a bend nor intonation is one', () => {
  const swing = (hz: number, cents: number) =>
    gestureOf(
      Float64Array.from(
        { length: 200 },
        (_, n) => 64 + (cents / 100) * Math.sin(2 * Math.PI * hz * n * FRAME_SECONDS),
      ),
      64,
    )!;
  for (const [hz, cents] of [
    [5, 30],
    [6.5, 50],
    [4.5, 20],
  ] as const) {
    const { vibrato, pitch, bend } = swing(hz, cents);
    expect(Math.abs(vibrato!.hz - hz)).toBeLessThan(0.4);
    expect(Math.abs(vibrato!.cents - cents)).toBeLessThan(8);
    expect([Math.abs(pitch - 64) < 0.05, bend]).toEqual([true, undefined]);
  }
  expect(swing(5, 3).vibrato).toBeUndefined();
  expect(gesture([60, 40], ...glide(60, 62, 25), [62, 90])!.vibrato).toBeUndefined();
});

const pitchCandidate = (midi: number, belief: number) => ({ midi, belief, features: new Float64Array(0) });
const onsetCandidate = (frame: number): OnsetCandidate => ({
  frame,
  kind: 'attack',
  strength: 1,
  clear: true,
});

test('strikes: what is believed, each note once, what begins together as one', () => {
  const { noteOnsets, leftOut } = noteOnsetsOf([
    {
      onsetCandidate: onsetCandidate(10),
      pitchCandidates: [pitchCandidate(60, 0.9), pitchCandidate(60.3, 0.8), pitchCandidate(72, 0.2)],
    },
    {
      onsetCandidate: onsetCandidate(14),
      pitchCandidates: [pitchCandidate(64.1, 0.7), pitchCandidate(60.1, 0.95)],
    },
    { onsetCandidate: onsetCandidate(60), pitchCandidates: [pitchCandidate(67, 0.6)] },
    { onsetCandidate: onsetCandidate(90), pitchCandidates: [pitchCandidate(67, 0.4)] },
  ]);
  expect(noteOnsets.map(({ starts }) => starts.map(({ midi }) => midi))).toEqual([[60.1, 64.1], [67]]);
  // what was half believed is counted once, and not what is another name of a note that was
  expect(leftOut.map(({ frame, belief }) => [frame, belief])).toEqual([
    [90, 0.4],
    [10, 0.2],
  ]);
});

test('a twelfth or two octaves over a surer note must be all but certain; an octave need not', () => {
  const heard = (above: number, belief: number) =>
    noteOnsetsOf([
      {
        onsetCandidate: onsetCandidate(10),
        pitchCandidates: [pitchCandidate(40, 0.98), pitchCandidate(40 + above, belief)],
      },
    ]).noteOnsets[0]!.starts.length;
  expect([heard(19, 0.88), heard(24, 0.88), heard(12, 0.88), heard(7, 0.88)]).toEqual([1, 1, 2, 2]);
  expect([heard(19, 0.96), heard(24, 0.96)]).toEqual([2, 2]);
});

const noteOnset = (frame: number, ...pitches: number[]): NoteOnset => ({
  frame,
  starts: pitches.map((midi) => ({ frame, midi, belief: 0.8, kind: 'step' as const })),
});
const settle = (noteOnsets: NoteOnset[], ...stretches: [number, number][]) => {
  const track = trackOf(...stretches);
  return settleGlides(noteOnsets, track, frames([sure(60), track.length])).map(({ frame, starts }) => [
    frame,
    starts[0]!.midi,
  ]);
};

test('a slide into a note and a bend are one note; a slide from a held pitch of three semitones or more is two', () => {
  expect(settle([noteOnset(0, 57), noteOnset(14, 59)], [57, 3], ...glide(57, 59, 12), [59, 60])).toEqual([
    [0, 59],
  ]);
  expect(settle([noteOnset(0, 60), noteOnset(60, 62)], [60, 40], ...glide(60, 62, 25), [62, 60])).toEqual([
    [0, 60],
  ]);
  const held = settle([noteOnset(0, 60), noteOnset(42, 65)], [60, 45], ...glide(60, 65, 15), [65, 60]);
  expect(held.map(([, midi]) => midi)).toEqual([60, 65]);
  expect(Math.abs(held[1]![0]! - 60)).toBeLessThanOrEqual(2);
});

test('how a note was come to: picked, slid into, hammered, pulled, slid from a held note', () => {
  const approach = (
    before: number | null,
    settled: number,
    at: number,
    rise: number,
    ...stretches: [number, number][]
  ) => {
    const track = trackOf(...stretches);
    const levels = frames([sure(60, -30), at], [sure(60, -30 + rise), track.length - at]);
    const { attack, slide } = approachOf(
      { frame: at, midi: settled, belief: 1, kind: 'step' },
      settled,
      before === null ? null : { pitch: before },
      track,
      levels,
    );
    return slide ? [attack, Math.round(slide.from)] : [attack];
  };
  expect(approach(null, 60, 10, 20, [NaN, 12], [60, 60])).toEqual(['pick']);
  expect(approach(null, 60, 10, 20, [NaN, 10], [58, 4], ...glide(58, 60, 10), [60, 60])).toEqual([
    'pick',
    58,
  ]);
  expect(approach(58, 60, 40, 0, [58, 40], [59, 2], [60, 60])).toEqual(['hammer']);
  expect(approach(60, 57, 40, 0, [60, 40], [58, 2], [57, 60])).toEqual(['pull']);
  expect(approach(60, 64, 54, 0, [60, 40], ...glide(60, 64, 16), [64, 60])).toEqual(['slide', 60]);
  // the path stays on the old note for a moment after the pick: no slide
  expect(approach(62, 60, 40, 20, [62, 46], [61, 1], [60, 60])).toEqual(['pick']);
  // struck again where it stood, and slid from there
  expect(approach(60, 62, 40, 20, [60, 42], ...glide(60, 62, 10), [62, 60])).toEqual(['pick', 60]);
  // too quick for the tracker, and it sounds on
  expect(approach(60, 67, 52, 0, [60, 40], [NaN, 12], [67, 60])).toEqual(['slide', 60]);
});

test('where a string fell silent on the way to another pitch, none slid', () => {
  const track = trackOf([60, 40], [NaN, 12], [67, 60]);
  const levels = frames([sure(60, -30), 40], [sure(60, -45), 12], [sure(67, -44), 60]);
  const start = { frame: 52, midi: 67, belief: 1, kind: 'step' } as const;
  expect(approachOf(start, 67, { pitch: 60 }, track, levels)).toEqual({ attack: 'pick' });
});

test('a hammer-on is no glide, nor is a pitch that was struck again', () => {
  expect(settle([noteOnset(0, 60), noteOnset(40, 63)], [60, 40], [61.5, 2], [63, 60])).toHaveLength(2);
  const track = trackOf([60, 40], ...glide(60, 62, 14), [62, 60]);
  const struck = frames([sure(60, -30), 45], [sure(60, -12), 69]);
  expect(settleGlides([noteOnset(0, 60), noteOnset(46, 62)], track, struck)).toHaveLength(2);
});

test('moments: every attack and every step of the pitch, the step where it arrives', () => {
  const track = trackOf([60, 60], ...glide(60, 64, 8), [64, 60]);
  const flux = frames([sure(60), track.length]).map((frame, index) =>
    index === 20 ? { ...frame, flux: 0.6 } : frame,
  );
  const onsetCandidates = onsetCandidatesOf(flux, track);
  expect(onsetCandidates.map(({ kind }) => kind)).toEqual(['attack', 'step']);
  expect(Math.abs(onsetCandidates[1]!.frame - 68)).toBeLessThanOrEqual(3);
});

test('the judge: leaky rectifiers and a logistic end, as written out by hand', () => {
  const floats = Float32Array.from([
    ...[1, 0, 2, 1],
    /* layer 1: a scale for each of 2 rows, biases */ ...[0.5, 0.25, 0.1, -0.2],
    /* layer 2: one row */ ...[0.5, 0.3],
  ]);
  const weights = Int8Array.from([/* layer 1: 2 × 2 */ 2, -2, 2, 8, /* layer 2: 1 × 2 */ 3, -1]);
  const packed = Buffer.concat([new Uint8Array(floats.buffer), new Uint8Array(weights.buffer)]);
  const network = unpack({ sizes: [2, 2, 1], packed: packed.toString('base64') });
  const [x, y] = [(3 - 1) / 2, (4 - 0) / 1];
  const leaky = (value: number) => (value > 0 ? value : 0.1 * value);
  const [a, b] = [leaky(x - y + 0.1), leaky(0.5 * x + 2 * y - 0.2)];
  expect(probabilityOf(logOdds([network], Float64Array.from([3, 4])))).toBeCloseTo(
    1 / (1 + Math.exp(-(1.5 * a - 0.5 * b + 0.3))),
    5,
  );
});

test('the live line says a pitch once seven frames agree, from its attack on, and ends with it', () => {
  const live = new LiveLine();
  const attack = frames(
    [{ ...sure(62, -40), candidates: [] }, 20],
    [{ ...sure(62, -12), flux: 0.5 }, 1],
    [sure(62, -12), 30],
    [{ ...sure(62), candidates: [] }, 30],
    [sure(65), 20],
  );
  const said = attack.map((frame) => live.push([frame]));
  const first = said.findIndex((notes) => notes.length > 0);
  expect(first).toBeLessThanOrEqual(20 + framesIn(0.05));
  expect([said[first]![0]!.midi, Math.abs(said[first]![0]!.onsetSec - seconds(20)) < 0.012]).toEqual([
    62,
    true,
  ]);
  expect(said.slice(56, 80).flat()).toEqual([]);
  expect(said.at(-1)![0]!.midi).toBe(65);
});

test('the playing level is that of the loud frames', () => {
  const level = new PlayingLevel();
  expect(level.value).toBe(-120);
  for (const frame of frames([sure(60, -15), 200], [sure(65, -50), 30])) level.add(frame);
  expect(level.value).toBeCloseTo(-15, 6);
});

test('tuning: the circular mean of deviations; frames that do not agree leave it at 440', () => {
  const flat = Float64Array.from({ length: 400 }, (_, n) => 60 + (n % 12) - 0.25);
  expect(1200 * Math.log2(a4Of(flat) / 440)).toBeCloseTo(-25, 5);
  const near = Float64Array.from({ length: 400 }, (_, n) => 60 + (n % 2 ? 0.48 : -0.48));
  expect(Math.abs(1200 * Math.log2(a4Of(near) / 440))).toBeCloseTo(50, 0);
  expect(a4Of(Float64Array.from({ length: 400 }, (_, n) => 60 + n / 400))).toBe(440);
  expect(a4Of(new Float64Array(400).fill(NaN))).toBe(440);
});
