import { expect, test } from '@jest/globals';
import { analyse } from '@/core/analyse';
import { harmonyOf, readChart, timelineOf } from '@/core/chart';
import { planOf } from '@/core/plan';
import { findingsOver, firstPageOf, marksOf, type Finding, type FirstPage } from '@/core/findings';
import { unwrap } from '@/core/shared';
import { takeOnForm } from '@/ui/form/takeOnForm';
import { landingsBoard, noteWords, openingWords, shownFindings } from './reviewWords';

const TEXT = 'key: C\n| Dm7 | G7 | Cmaj7 | % |';
const chart = unwrap(readChart(TEXT));
const plan = { id: 'scale-per-chord' as const };
const take = (notes: [number, number, number][], choruses = 1) => {
  const report = analyse({
    chart,
    tempo: 120,
    plan,
    choruses,
    notes: notes.map(([midi, onsetBeat, durationBeats]) => ({ midi, onsetBeat, durationBeats })),
  });
  return {
    report,
    marks: marksOf(report, planOf(plan, harmonyOf(chart, timelineOf(chart, 120))), chart, 120),
    firstPage: firstPageOf(
      { chart, tempo: 120, plan, report },
      findingsOver([{ chart, tempo: 120, plan, report }]),
    ),
  };
};

test('an empty take says so', () => {
  const { report, firstPage } = take([]);
  expect(openingWords(report, firstPage)).toEqual({
    soft: 'No note was heard in this take.',
    bold: 'Check the input, then play one chorus.',
    latency: null,
  });
});

test('three notes are too few to judge, and the best of them is said', () => {
  const { report, firstPage } = take([
    [65, 0, 1],
    [71, 4, 1],
    [76, 8, 1],
  ]);
  expect(openingWords(report, firstPage)).toEqual({
    soft: 'Your last phrase came home to the third in bar 3.',
    bold: 'Play two whole choruses: then there is enough to judge.',
    latency: null,
  });
});

test('a note is said in words: what it is, what it did, the one-note fix', () => {
  const { report } = take([
    [69, 3, 1],
    [72, 4, 0.5],
    [76, 5.5, 1],
  ]);
  expect(noteWords(report, 1)).toEqual({
    is: 'The fourth of G7: a scale tone.',
    did: 'It landed on the change from Dm7 to G7. ',
    fix: 'One fret lower it would have met the change.',
  });
  expect(noteWords(report, 0)).toMatchObject({ is: 'The fifth of Dm7: a chord tone.', fix: null });
});

test('the board: kinds of change, worst first, a cell a chorus', () => {
  const { report, marks } = take(
    [
      [69, 3, 1],
      [72, 4, 0.5],
      [76, 8, 1],
      [71, 20, 1],
      [76, 24, 1],
    ],
    2,
  );
  const board = landingsBoard(report, marks);
  expect(
    board.map((row) => [row.from, row.to, row.met, row.of, row.cells.map((cell) => cell.length)]),
  ).toEqual([
    ['Dm7', 'G7', 1, 2, [1, 1]],
    ['G7', 'Cmaj7', 2, 2, [1, 1]],
    ['Cmaj7', 'Dm7', 0, 0, [0, 1]],
  ]);
});

test('the picture: a held note is two parts, a late target names its tone unless a bracket does', () => {
  const { report, marks } = take([
    [65, 2, 3],
    [71, 6, 1],
    [77, 8, 0.5],
    [76, 8.5, 1],
  ]);
  const drawn = takeOnForm(report, marks);
  expect(drawn.notes[0]!.parts.map((part) => [part.from, part.to, part.label, part.held])).toEqual([
    [2, 4, '♭3', false],
    [4, 5, '♭7', true],
  ]);
  expect(drawn.changes.map((change) => [change.mark, change.word])).toEqual([
    ['target', 'held'],
    ['target-late', 'then 3'],
  ]);
  expect(drawn.notes.filter((note) => note.landing).map((note) => note.index)).toEqual([0, 2]);
});

test('what is shown: what to practise and what else was noticed, three at most', () => {
  const finding = (kind: Finding['kind'], weight: number): Finding => ({
    kind,
    weight,
    where: { bars: [] },
    met: 1,
    of: 10,
    interval: [0, 0.4],
    certainty: 'sure',
    title: kind,
    sentence: `${kind}.`,
    advice: 'Play it.',
  });
  const page = (practise: Finding | null, ...also: Finding[]): FirstPage => ({
    strength: null,
    progress: null,
    practise,
    step: practise ? null : { kind: 'faster', sentence: 'Play it at 104.', tempo: 104 },
    also,
    uncertain: [],
  });
  const [missed, ...others] = [
    finding('target-missed', 0.5),
    finding('drags', 0.4),
    finding('no-space', 0.3),
    finding('rushes', 0.2),
  ] as const;
  expect(shownFindings(page(missed, ...others)).map(({ kind }) => kind)).toEqual([
    'target-missed',
    'drags',
    'no-space',
  ]);
  expect(shownFindings(page(null))).toEqual([]);
  const { report } = take([
    [65, 0, 1],
    [71, 4, 1],
  ]);
  expect(openingWords(report, page(missed)).bold).toBe('target-missed. Play it.');
  expect(openingWords(report, page(null)).bold).toBe('Play it at 104.');
});
