import { expect, test } from '@jest/globals';
import { STANDARD_INSTRUMENT } from '@/core/neck';
import { Failure } from './failure';
import { guitarFrom } from './guitar';

const read = (text: string) => guitarFrom(new URLSearchParams(text));

test('an address without a guitar means the standard one', () => {
  expect(read('format=musicxml')).toEqual(STANDARD_INSTRUMENT);
});

test('tuning, frets and capo are those of the address', () => {
  const dropped = read('tuning=D2 A2 D3 G3 B3 E4&frets=22&capo=0');
  expect([dropped.tuning.length, Math.min(...dropped.tuning), dropped.frets]).toEqual([6, 38, 22]);
  // a capo raises every string and leaves fewer frets
  const higher = read('tuning=E2 A2 D3 G3 B3 E4&frets=22&capo=2');
  expect(Math.min(...higher.tuning)).toBe(42);
});

test.each([
  ['a tuning that is none', 'tuning=nonsense&frets=22&capo=0'],
  ['half a guitar', 'tuning=E2 A2 D3 G3 B3 E4'],
  ['too many frets', 'tuning=E2 A2 D3 G3 B3 E4&frets=99&capo=0'],
  ['a capo past the neck', 'tuning=E2 A2 D3 G3 B3 E4&frets=22&capo=40'],
  ['words for numbers', 'tuning=E2 A2 D3 G3 B3 E4&frets=many&capo=0'],
])('refused with an example: %s', (_, text) => {
  try {
    read(text);
    throw new Error('was taken');
  } catch (error) {
    expect(error).toBeInstanceOf(Failure);
    expect((error as Failure).status).toBe(422);
    expect((error as Failure).problem.suggestion).toContain('tuning=');
  }
});
