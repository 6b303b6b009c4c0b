import { expect, test } from '@jest/globals';
import { readChord } from '../music';
import { unwrap } from '../shared';
import { chordShapes, countMoves, movesBetween, nearestShape } from '.';

const shapesOf = (symbol: string) => chordShapes(unwrap(readChord(symbol)), { position: 3, most: 40 });
const written = (frets: readonly (number | null)[]) => frets.map((fret) => fret ?? 'x').join(' ');

test('a ii–V under one hand: the third stays where it is and becomes the seventh (common practice, no source)', () => {
  const cm7 = shapesOf('Cm7').find(({ frets }) => written(frets) === 'x 3 5 3 4 x')!;
  const f7 = nearestShape(cm7, shapesOf('F7'))!;
  const moves = movesBetween(cm7, f7);
  // E♭ on string 2 stays, B♭ on string 3 falls to A
  expect(moves.find(({ string }) => string === 2)).toEqual({ string: 2, from: 4, to: 4 });
  expect(moves.find(({ string }) => string === 3)).toEqual({ string: 3, from: 3, to: 2 });
  const { stay, byOne, further } = countMoves(moves);
  expect(stay).toBeGreaterThan(0);
  expect(byOne).toBeGreaterThan(0);
  expect(stay + byOne + further).toBe(moves.filter(({ from, to }) => from !== null && to !== null).length);
});

test('the nearest of all shapes is the shape itself; of none there is none', () => {
  const [shape] = shapesOf('G7');
  expect(nearestShape(shape!, shapesOf('G7'))).toEqual(shape);
  expect(nearestShape(shape!, [])).toBeNull();
});
