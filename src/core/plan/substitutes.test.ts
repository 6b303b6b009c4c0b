import { expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { harmonyOf, LIBRARY, readChart, timelineOf } from '../chart';
import { readChord } from '../music';
import { layOver, substitutesFor } from './index';

const over = (text: string, index: number) => {
  const chart = unwrap(readChart(text));
  return substitutesFor(harmonyOf(chart, timelineOf(chart, 100)), index);
};
const chordsOf = (text: string, index: number, kind: string) =>
  over(text, index).find((one) => one.kind === kind)?.chords;

// Common practice, no source.
test.each([
  ['| G7 | Cmaj7 |', 0, 'tritone', ['Db7']],
  ['| G7 | Cmaj7 |', 0, 'related-two', ['Dm7', 'G7']],
  ['| G7 | Cmaj7 |', 0, 'minor-on-five', ['Dm7']],
  ['| G7 | Cm7 |', 0, 'altered-minor', ['AbmMaj7']],
  ['| G7 | Cmaj7 |', 1, 'relative', ['Am7']],
  ['| G7 | Cmaj7 |', 1, 'third-related', ['Em7']],
  ['| G7 | Cmaj7 |', 1, 'sharp-eleven-triad', ['D']],
  ['| Dm7 | G7 |', 0, 'flat-three-triad', ['F']],
  ['| Dm7 | G7 |', 0, 'four-triad', ['G']],
  ['| Dm7 | G7 |', 0, 'flat-seven-triad', ['C']],
  ['| Dm7 | G7 |', 0, 'side-slip-up', ['Ebm7', 'Dm7']],
  ['| Am7 | Dm7 |', 0, 'two-five-inserted', ['Bm7b5', 'E7', 'Am7']],
] as const)('over %s, chord %i: %s', (text, index, kind, chords) =>
  expect(chordsOf(text, index, kind)).toEqual(chords),
);

test('a substitute is laid over its chord alone, and more go on top of it', () => {
  const chart = unwrap(readChart('| Dm7 | G7 | Cmaj7 | A7 D7 |'));
  const first = unwrap(layOver(chart, '', 1, ['Db7']));
  expect(first).toBe('| Dm7 | Db7 | Cmaj7 | A7 D7 |');
  const second = unwrap(layOver(chart, first, 2, ['Dm7', 'G7', 'Cmaj7']));
  expect(second).toBe('| Dm7 | Db7 | Dm7 G7 Cmaj7 . | A7 D7 |');
  expect(unwrap(layOver(chart, second, 3, ['Em7', 'A7']))).toBe(
    '| Dm7 | Db7 | Dm7 G7 Cmaj7 . | Em7 A7 D7 . |',
  );
  expect(layOver(chart, '', 3, ['Em7', 'A7', 'Eb7'])).toMatchObject({ ok: false });
});

test('a dominant that leads nowhere has no tritone substitute', () =>
  expect(chordsOf('| G7 | F7 |', 0, 'tritone')).toBeUndefined());

test('every substitute over every form of the library is a chord that can be read', () => {
  for (const form of LIBRARY) {
    const { readings } = harmonyOf(
      unwrap(readChart(form.text)),
      timelineOf(unwrap(readChart(form.text)), 100),
    );
    for (const index of readings.keys())
      for (const { chords } of over(form.text, index))
        for (const symbol of chords)
          expect([form.id, symbol, readChord(symbol).ok]).toEqual([form.id, symbol, true]);
  }
});
