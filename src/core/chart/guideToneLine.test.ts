import { expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { noteName, readChord } from '../music';
import { guideToneLineOf } from './index';

const thread = (symbols: string) =>
  guideToneLineOf(symbols.split(' ').map((symbol) => (symbol === '-' ? null : unwrap(readChord(symbol)))));
const names = (symbols: string, voice: 0 | 1) =>
  thread(symbols)
    .map((stop) => (stop ? noteName(stop[voice].tone.note) : '-'))
    .join(' ');

// Guide-tone lines as harmony books write them out; common practice, no source.
test('ii–V–I: the seventh falls to the third, the third stays and becomes the seventh', () => {
  expect([names('Dm7 G7 Cmaj7', 0), names('Dm7 G7 Cmaj7', 1)].sort()).toEqual(['C B B', 'F F E']);
  const [two, five] = thread('Dm7 G7 Cmaj7');
  expect([two![0].toNext, two![1].toNext].sort()).toEqual([-1, 0]);
  expect([five![0].toNext, five![1].toNext].sort()).toEqual([-1, 0]);
});

test('dominants round the fifths fall by half steps in both voices', () => {
  for (const stop of thread('E7 A7 D7 G7 C7').slice(0, -1))
    expect(stop!.map(({ toNext }) => toNext)).toEqual([-1, -1]);
});

test('triads carry their root beside the third, power chords root and fifth; N.C. breaks the thread', () => {
  expect(
    thread('C F')[0]!
      .map(({ tone }) => tone.interval)
      .sort(),
  ).toEqual(['1', '3']);
  expect(
    thread('C5')[0]!
      .map(({ tone }) => tone.interval)
      .sort(),
  ).toEqual(['1', '5']);
  const broken = thread('C - G7');
  expect([broken[1], broken[0]![0].toNext]).toEqual([null, null]);
  // the form is a loop: G7 goes round to C
  expect(
    thread('C G7')
      .slice(-1)[0]!
      .map(({ toNext }) => Math.abs(toNext!))
      .sort(),
  ).toEqual([1, 1]);
});

test('however long the form, the voices keep their register and never meet', () => {
  const long = thread(
    Array.from({ length: 60 }, (_, index) => ['Dm7', 'G7', 'Cm7', 'F7', 'Bbmaj7', 'Eb7'][index % 6]).join(
      ' ',
    ),
  );
  for (const stop of long) {
    for (const { midi, tone } of stop!)
      expect([midi >= 48, midi <= 74, ((midi % 12) + 12) % 12]).toEqual([true, true, tone.pc]);
    expect(stop![0].midi).not.toBe(stop![1].midi);
  }
});
