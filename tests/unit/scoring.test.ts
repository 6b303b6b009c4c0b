// T16.2: the published sources of the scores
import { expect, test } from '@jest/globals';
import type { LabelledTake } from '../corpora/line';
import { countFrames, Tally } from '../score/evaluate';
import { matchNotes, scoreNotes } from '../score/notes';

// The scorer on hand-worked cases.
const notes = (...pairs: [number, number][]) => pairs.map(([onset, pitch]) => ({ onset, pitch }));

test('within 50 ms and 50 cents is a hit, just outside is none', () => {
  expect(scoreNotes(notes([1, 60]), notes([1.05, 60.5])).f1).toBe(1);
  expect(scoreNotes(notes([1, 60]), notes([1.051, 60])).f1).toBe(0);
  expect(scoreNotes(notes([1, 60]), notes([1, 60.51])).f1).toBe(0);
});

test('each note is matched once: a doubled note is a false one', () => {
  expect(scoreNotes(notes([1, 60]), notes([1, 60], [1.02, 60]))).toEqual({
    matched: 1,
    precision: 0.5,
    recall: 1,
    f1: 2 / 3,
  });
});

test('the matching is the largest there is, not the first that comes', () => {
  // the first truth could take either, the second only the first heard
  expect(matchNotes(notes([1, 60], [0.97, 60]), notes([0.98, 60], [1.04, 60]))).toHaveLength(2);
});

test('nothing against nothing is perfect; against something, nothing', () => {
  expect(scoreNotes([], []).f1).toBe(1);
  expect(scoreNotes(notes([1, 60]), []).f1).toBe(0);
});

test('offsets: within 50 ms of a short note’s end, within a fifth of a long one’s length', () => {
  const score = (until: number, heardUntil: number) =>
    scoreNotes([{ onset: 1, offset: until, pitch: 60 }], [{ onset: 1, offset: heardUntil, pitch: 60 }], true)
      .matched;
  expect([score(1.1, 1.15), score(1.1, 1.16), score(2, 2.2), score(2, 1.79)]).toEqual([1, 0, 1, 0]);
  expect(scoreNotes([{ onset: 1, offset: 2, pitch: 60 }], [{ onset: 1, pitch: 60 }], true).matched).toBe(0);
});

/** Two notes of half a second, the second bent up by a semitone from its middle on; a muted stroke after them. */
const TAKE: LabelledTake = {
  strings: [
    { at: 0, until: 0.5, midi: 60, gain: 1, attack: 'pick' },
    {
      at: 0.5,
      until: 1,
      midi: 64,
      gain: 1,
      attack: 'pick',
      curve: [
        [0, 0],
        [0.25, 0],
        [0.26, 100],
      ],
    },
    { at: 1.1, until: 1.12, midi: 64, gain: 1, attack: 'ghost' },
  ],
  truth: [
    { onset: 0, offset: 0.5, pitch: 60 },
    { onset: 0.5, offset: 1, pitch: 65 },
  ],
  ghosts: [1.1],
  seconds: 1.5,
  samples: new Float32Array(0),
  rate: 100,
};

test('frames: asked where a string is held, right within 50 cents of its curve, octaves told apart', () => {
  const at = (frame: number) => {
    if (frame < 25) return 60;
    if (frame < 50) return 72;
    if (frame < 75) return 64;
    if (frame < 90) return 65;
    return NaN;
  };
  const count = { asked: 0, right: 0, octaves: 0 };
  countFrames(
    TAKE,
    Float64Array.from({ length: 150 }, (_, frame) => at(frame)),
    0.01,
    count,
  );
  // frames 3–48 and 53–98: of the first 22 are right and 24 an octave high; of the second 22 + 14 are right, one is ahead of the bend, 9 have no pitch
  expect(count).toEqual({ asked: 92, right: 58, octaves: 24 });
});

test('a tally counts octaves and muted strokes beside hits and errors', () => {
  const tally = new Tally();
  tally.add(
    TAKE,
    [
      { onset: 0.02, pitch: 60.1 },
      { onset: 0.5, pitch: 53 },
      { onset: 1.11, pitch: 50 },
    ],
    0.5,
  );
  expect([
    tally.matched,
    tally.octaves,
    tally.ghostsHeard,
    tally.ghosts,
    tally.precision,
    tally.recall,
  ]).toEqual([1, 1, 1, 1, 1 / 3, 0.5]);
  expect([
    tally.onsetErrors[0]!.toFixed(3),
    tally.centErrors[0]!.toFixed(1),
    tally.seconds / tally.spent,
  ]).toEqual(['0.020', '10.0', 3]);
});
