import { expect, test } from '@jest/globals';
import { Certainty } from './certainty';
import type { AnalysisFrame } from './frames';
import type { HeardSound } from './notes';

const FRAMES = 400;
const sounding = Array.from({ length: FRAMES }, (): AnalysisFrame => ({
  candidates: [],
  level: -20,
  flux: 0,
}));
const sound = (from: number, end: number, belief: number): HeardSound => ({
  start: { frame: from, midi: 60, belief, kind: 'attack' },
  began: from,
  end,
  gesture: { pitch: 60 },
  approach: { attack: 'pick' },
  level: -20,
});
const steady = new Float64Array(FRAMES).fill(60);
const gliding = Float64Array.from({ length: FRAMES }, (_, frame) => 60 + 0.1 * frame);

function certaintyOf(
  sounds: readonly HeardSound[],
  leftOut: readonly { frame: number; belief: number }[] = [],
  track = steady,
): number {
  const certainty = new Certainty();
  certainty.add({ sounds, leftOut, track }, sounding, -20, 0, FRAMES);
  return certainty.value;
}

const NOTES = [sound(0, 200, 0.9), sound(200, 400, 0.7)];

test('the F1 to be expected: what is believed of the notes against how many there are and may have been missed', () => {
  expect(certaintyOf(NOTES)).toBeCloseTo((2 * 1.6) / (2 + 1.6), 3);
  expect(certaintyOf(NOTES, [{ frame: 100, belief: 0.4 }])).toBeCloseTo((2 * 1.6) / (2 + 1.6 + 0.4), 3);
  // what lies in another stretch is counted there
  expect(certaintyOf(NOTES, [{ frame: FRAMES, belief: 0.4 }])).toBeCloseTo((2 * 1.6) / (2 + 1.6), 3);
});

test('a pitch that glides all the time, and sound that no note holds, are no line that was played', () => {
  expect(certaintyOf(NOTES, [], gliding)).toBe(0);
  expect(certaintyOf([sound(0, 60, 1)])).toBeCloseTo(60 / 400 / 0.6, 3);
  expect(certaintyOf([])).toBe(0);
});
