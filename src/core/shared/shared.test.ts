import { expect, test } from '@jest/globals';
import {
  unwrap,
  gaussian,
  hzToMidi,
  median,
  midiToHz,
  modulo,
  nearestOf,
  pick,
  pitchClassOf,
  refused,
  seededRandom,
  accepted,
  beatsToSeconds,
  secondsToBeats,
} from './index';

// MIDI Tuning: 69 = A4 = 440 Hz, equal temperament; E2 and E6 from the same formula.
test('frequencies and MIDI numbers', () => {
  expect([
    hzToMidi(440),
    hzToMidi(220),
    Math.round(midiToHz(40) * 100) / 100,
    Math.round(midiToHz(88) * 10) / 10,
    hzToMidi(432, 432),
  ]).toEqual([69, 57, 82.41, 1318.5, 69]);
  expect([pitchClassOf(60.4), pitchClassOf(-1), modulo(-1, 12)]).toEqual([0, 11, 11]);
  expect([beatsToSeconds(2, 120), secondsToBeats(1, 90)]).toEqual([1, 1.5]);
});

test('the middle value', () =>
  expect([median([3, 1, 2]), median([4, 1, 2, 3]), median([])]).toEqual([2, 2.5, null]));

test('a seed decides every draw; draws are even and normal', () => {
  const [a, b] = [seededRandom(5), seededRandom(5)];
  expect(Array.from({ length: 5 }, a)).toEqual(Array.from({ length: 5 }, b));
  const random = seededRandom(1);
  const draws = Array.from({ length: 4000 }, () => gaussian(random));
  const mean = draws.reduce((sum, value) => sum + value, 0) / draws.length;
  const spread = Math.sqrt(draws.reduce((sum, value) => sum + (value - mean) ** 2, 0) / draws.length);
  expect(Math.abs(mean)).toBeLessThan(0.06);
  expect(Math.abs(spread - 1)).toBeLessThan(0.05);
  expect(() => pick(random, [])).toThrow();
});

test('the nearest spelling by edits', () =>
  expect([nearestOf('maj8', ['maj7', 'm7']), nearestOf('x', [])]).toEqual(['maj7', undefined]));

test('outcomes: the value or the thrown message', () => {
  expect(unwrap(accepted(3))).toBe(3);
  expect(() => unwrap(refused({ code: 'a', message: 'No.' }))).toThrow('No.');
});
