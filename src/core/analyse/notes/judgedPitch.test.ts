import { expect, test } from '@jest/globals';
import { judgePitch } from './judgedPitch';
import type { BendCurve, PlayedNote } from './played';

/** At 120 a beat is half a second: a curve in seconds reads easily against it. */
const TEMPO = 120;
const judge = (bend: BendCurve, durationBeats = 2, midi = 62): [number, number][] =>
  judgePitch({ midi, onsetBeat: 0, durationBeats, bend }, TEMPO).map((note) => [
    note.midi + (note.cents ?? 0) / 100,
    Math.round(note.onsetBeat * 100) / 100,
  ]);

test.each<[string, BendCurve, [number, number][]]>([
  [
    'up and held: where it settles',
    [
      [0, 0],
      [0.1, 0],
      [0.2, 200],
      [1, 200],
    ],
    [[64, 0]],
  ],
  [
    'up slowly, held only at the end',
    [
      [0, 0],
      [0.6, 100],
      [1, 100],
    ],
    [[63, 0]],
  ],
  [
    'pre-bent and held: where it is',
    [
      [0, 200],
      [1, 200],
    ],
    [[64, 0]],
  ],
  [
    'a quarter tone',
    [
      [0, 0],
      [0.1, 50],
      [1, 50],
    ],
    [[62.5, 0]],
  ],
  [
    'vibrato within 30 cents stays',
    [
      [0, 0],
      [0.1, 12],
      [0.2, -12],
      [0.3, 12],
      [0.4, -12],
      [1, 0],
    ],
    [[62, 0]],
  ],
  [
    'up, held and released, the release held: two notes',
    [
      [0, 0],
      [0.1, 200],
      [0.5, 200],
      [0.6, 0],
      [1, 0],
    ],
    [
      [64, 0],
      [62, 1.2],
    ],
  ],
  [
    'released only at the very end: one note',
    [
      [0, 0],
      [0.1, 200],
      [0.95, 200],
      [1, 0],
    ],
    [[64, 0]],
  ],
  [
    'pre-bent and released: two notes',
    [
      [0, 200],
      [0.4, 200],
      [0.5, 0],
      [1, 0],
    ],
    [
      [64, 0],
      [62, 1],
    ],
  ],
])('%s', (_, bend, expected) => {
  const judged = judge(bend);
  expect(judged.map(([pitch]) => Math.round(pitch * 10) / 10)).toEqual(expected.map(([pitch]) => pitch));
  judged.forEach(([, onset], index) => expect(Math.abs(onset - expected[index]![1])).toBeLessThan(0.06));
});

test('a curve that never rests is judged by the median of its last half', () => {
  const [[pitch]] = judge([
    [0, 0],
    [1, 400],
  ]) as [[number, number]];
  expect(pitch).toBeCloseTo(65, 0);
});

test('a bend without points, and a note without one, are what was played', () => {
  const plain: PlayedNote = { midi: 60, onsetBeat: 1, durationBeats: 1 };
  expect(judgePitch(plain, TEMPO)).toEqual([plain]);
  expect(judgePitch({ ...plain, bend: [] }, TEMPO)).toEqual([{ ...plain, bend: [] }]);
});

test('a slide of 150 ms or less keeps the pick; a longer one begins where it arrives', () => {
  const slide = (seconds: number) =>
    judgePitch({ midi: 64, onsetBeat: 1, durationBeats: 2, slide: { fromMidi: 60, seconds } }, TEMPO)[0]!;
  expect(slide(0.15).onsetBeat).toBe(1);
  expect(slide(0.2)).toMatchObject({ onsetBeat: 1.4, durationBeats: 1.6 });
  expect(slide(60).durationBeats).toBeGreaterThan(0);
});
