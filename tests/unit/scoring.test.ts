import { expect, test } from '@jest/globals';
import { matchNotes, scoreNotes } from '../score/notes';

// The scorer on hand-worked cases.
const notes = (...pairs: [number, number][]) => pairs.map(([onset, pitch]) => ({ onset, pitch }));

test('within 50 ms and 50 cents is a hit, just outside is none', () => {
  expect(scoreNotes(notes([1, 60]), notes([1.05, 60.5])).f1).toBe(1);
  expect(scoreNotes(notes([1, 60]), notes([1.051, 60])).f1).toBe(0);
  expect(scoreNotes(notes([1, 60]), notes([1, 60.51])).f1).toBe(0);
});

test('each note is matched once: a doubled note is a false one', () => {
  expect(scoreNotes(notes([1, 60]), notes([1, 60], [1.02, 60]))).toEqual({ matched: 1, precision: 0.5, recall: 1, f1: 2 / 3 });
});

test('the matching is the largest there is, not the first that comes', () => {
  // the first truth could take either, the second only the first heard
  expect(matchNotes(notes([1, 60], [0.97, 60]), notes([0.98, 60], [1.04, 60]))).toHaveLength(2);
});

test('nothing against nothing is perfect; against something, nothing', () => {
  expect(scoreNotes([], []).f1).toBe(1);
  expect(scoreNotes(notes([1, 60]), []).f1).toBe(0);
});
