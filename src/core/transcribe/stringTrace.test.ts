import { expect, test } from '@jest/globals';
import { midiToHz } from '../shared';
import { SignalStore } from '../sound';
import { FRAME_SECONDS, framesOf, RATE } from './frames';
import type { NoteOnset } from './noteOnsets';
import { followStrings, StringTraces } from './stringTrace';

const SECONDS = 2;
/** A string with partials 1, 1/2, 1/3 …, whose pitch is a function of the time since its stroke. */
function addString(sound: Float32Array, at: number, pitch: (seconds: number) => number, level: number): void {
  let phase = 0;
  for (let n = Math.round(at * RATE); n < sound.length; n++) {
    const seconds = n / RATE - at;
    phase += (2 * Math.PI * midiToHz(pitch(seconds))) / RATE;
    let sum = 0;
    for (let partial = 1; partial <= 8; partial++) sum += Math.sin(partial * phase) / partial;
    sound[n]! += level * sum * Math.exp(-0.8 * seconds);
  }
}
const store = (sound: Float32Array): SignalStore => {
  const made = new SignalStore();
  made.push(sound);
  return made;
};
/** 0.15 s where it was struck, then up by so many semitones within 0.15 s. */
const bend = (from: number, by: number) => (seconds: number) =>
  from + by * Math.min(1, Math.max(0, (seconds - 0.15) / 0.15));
const STROKE = framesOf(0.6);
const stroke = STROKE * FRAME_SECONDS;
const at = (seconds: number) => framesOf(seconds);

test.each([
  ['up a whole tone, over a lower string that rings', bend(60, 2), 52],
  ['up a minor third, over a higher string that rings', bend(57, 3), 64],
  ['down a tone, over a string between where it begins and ends', bend(62, -2), 61],
])('the trace follows one string while another sounds on: %s', (_name, pitch, other) => {
  const sound = new Float32Array(SECONDS * RATE);
  addString(sound, 0, () => other, 0.08);
  addString(sound, stroke, pitch, 0.12);
  const trace = new StringTraces(store(sound)).trace(STROKE, STROKE + at(0.6), pitch(0));
  for (const seconds of [0.05, 0.1, 0.2, 0.25, 0.35, 0.5])
    expect(Math.abs(trace[at(seconds)]! - pitch(seconds))).toBeLessThan(
      seconds === 0.2 || seconds === 0.25 ? 0.5 : 0.25,
    );
});

test('where the string has died nothing is said, and of silence nothing at all', () => {
  const sound = new Float32Array(SECONDS * RATE);
  addString(sound, stroke, () => 60, 0.12);
  sound.fill(0, Math.round((stroke + 0.4) * RATE));
  const trace = new StringTraces(store(sound)).trace(STROKE, STROKE + at(0.8), 60);
  expect(trace[at(0.3)]).toBeCloseTo(60, 0);
  expect(trace[at(0.6)]).toBeNaN();
  const silent = new StringTraces(store(new Float32Array(RATE))).trace(20, 80, 60);
  expect([silent.length, silent.every(Number.isNaN)]).toEqual([60, true]);
});

const onset = (frame: number, ...pitches: number[]): NoteOnset => ({
  frame,
  starts: pitches.map((midi) => ({ frame, midi, belief: 1, kind: 'attack' as const })),
});

test('only a single string that the tracker does not have is corrected, up to the next stroke', () => {
  const lost = new Float64Array(300).fill(60);
  lost.fill(NaN, 110, 190);
  const asked: [number, number, number][] = [];
  const trace = (from: number, to: number, midi: number) => {
    asked.push([from, to, midi]);
    return new Float64Array(to - from).fill(62).fill(NaN, 60);
  };
  const steps = followStrings(
    [onset(0, 60), onset(100, 62), onset(200, 60, 64), onset(250, 60)],
    lost,
    trace,
  );
  let step = steps.next();
  while (!step.done) step = steps.next();
  const followed = step.value;
  expect(asked).toEqual([[100, 200, 62]]);
  expect([...followed.subarray(100, 160)]).toEqual(new Array(60).fill(62));
  expect([...followed.subarray(160, 200)]).toEqual([...lost.subarray(160, 200)]);
  expect([...followed.subarray(200)]).toEqual([...lost.subarray(200)]);
});
