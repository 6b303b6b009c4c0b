import { expect, test } from '@jest/globals';
import { unwrap } from '../../shared';
import { readChart } from '../../chart';
import { analyse, type PlayedNote, type Report } from '../index';

/** Eighth notes from beat 0, `r` a rest. */
const eighths = (text: string): PlayedNote[] =>
  text
    .split(' ')
    .flatMap((word, index) =>
      word === 'r' ? [] : [{ midi: Number(word), onsetBeat: index / 2, durationBeats: 0.5 }],
    );

const judge = (chart: string, notes: PlayedNote[], tempo = 120): Report =>
  analyse({ chart: unwrap(readChart(chart)), tempo, notes, plan: { id: 'scale-per-chord' } });

const shapes = (chart: string, text: string): string[] =>
  judge(chart, eighths(text)).shapes.map(
    (shape) =>
      `${shape.kind} ${shape.name}${shape.relation ? ` on ${shape.relation}` : ''} ${shape.noteIndices[0]}-${shape.noteIndices[shape.noteIndices.length - 1]}`,
  );

const C = 'key: C\n| Cmaj7 | % | % | % |';

// Shapes, labelled by hand from the page on theory.
test.each([
  ['a major triad on the root', '60 64 67', ['arpeggio major on 1 0-2']],
  ['the minor triad on the third: a triad above', '64 67 71', ['arpeggio minor on 3 0-2']],
  ['a whole major seventh chord, up and down', '60 64 67 71 67 64', ['arpeggio major-seventh on 1 0-5']],
  ['a diminished seventh chord', '62 65 68 71', ['arpeggio diminished-seventh on 9 0-3']],
  ['two notes are no arpeggio', '60 64 r r r 67', []],
  ['a step breaks it', '60 64 65 69 72', ['arpeggio major on 4 2-4']],
  ['a scale run up', '60 62 64 65 67', ['scale-run rising 0-4']],
  ['a scale run down', '72 71 69 67', ['scale-run falling 0-3']],
  ['three notes are no run', '60 62 64 60', []],
  [
    'a sequence in thirds: a cell moved by one step each time',
    '60 64 62 65 64 67',
    ['sequence sequence 0-5'],
  ],
])('%s', (_, text, expected) => expect(shapes(C, text)).toEqual(expected));

test('a note inside a sequence is no member of an enclosure', () => {
  // groups of three moved a step: each has notes on both sides of a chord tone
  const { figures, shapes: found } = judge(C, eighths('65 62 64 67 64 65 69 65 67'));
  expect(found.map((shape) => shape.kind)).toContain('sequence');
  expect(figures.filter((figure) => figure.kind === 'enclosure')).toEqual([]);
});

test('a step-out: three notes or more, a beat or more, outside, with the chord tone it came home to', () => {
  const { stepOuts } = judge(C, eighths('60 61 66 68 63 64'));
  expect(stepOuts).toHaveLength(1);
  expect(stepOuts[0]).toMatchObject({ noteIndices: [1, 2, 3, 4], homeIndex: 5 });
  expect(judge(C, eighths('60 66 r r r 61')).stepOuts).toEqual([]);
});

test('a step-out that only stops did not come home', () => {
  expect(judge(C, eighths('60 61 66 68 r r r r 64')).stepOuts[0]).toMatchObject({ homeIndex: null });
});

// Time
const straight = (count: number, shift: (index: number) => number): PlayedNote[] =>
  Array.from({ length: count }, (_, index) => ({
    midi: 60 + (index % 5),
    onsetBeat: index / 2 + shift(index),
    durationBeats: 0.4,
  }));

test('a steady lag is the take’s own offset and leaves no spread', () => {
  const { time } = judge(
    C,
    straight(32, () => 0.04),
  );
  expect(time.offsetMs).toBeCloseTo(20, 0);
  expect(time.spreadMs).toBeLessThan(0.5);
  expect(time.medianMs).toBeCloseTo(0, 1);
});

test('spread is what is left', () => {
  const { time } = judge(
    C,
    straight(32, (index) => (index % 2 ? 0.03 : -0.03)),
  );
  expect(time.spreadMs).toBeGreaterThan(8);
  expect(time.spreadMs).toBeLessThan(20);
});

test('swing is read from pairs, at least eight of them', () => {
  const swung = (count: number) =>
    Array.from({ length: count }, (_, index) => ({
      midi: 60 + (index % 3),
      onsetBeat: Math.floor(index / 2) + (index % 2 ? 2 / 3 : 0),
      durationBeats: 0.3,
    }));
  expect(judge(C, swung(24)).time.swing).toBeCloseTo(2, 2);
  expect(judge(C, swung(10)).time.swing).toBeNull();
  expect(judge(C, swung(24)).time.upbeats).toBeCloseTo(0.5);
});

test('triplets fit their own grid', () => {
  const triplets = Array.from({ length: 30 }, (_, index) => ({
    midi: 60 + (index % 4),
    onsetBeat: index / 3,
    durationBeats: 0.3,
  }));
  expect(judge(C, triplets, 100).time.spreadMs).toBeLessThan(40);
});

test('no notes, no time', () =>
  expect(judge(C, []).time).toEqual({
    medianMs: null,
    spreadMs: null,
    offsetMs: null,
    swing: null,
    upbeats: null,
    lagBeats: 0,
    byEighth: [],
    lean: { ms: null, takenMs: 0, isDecided: false, isMeasured: false },
    byChorus: [],
    drift: null,
  }));
