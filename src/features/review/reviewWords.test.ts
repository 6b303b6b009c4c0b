import { expect, test } from '@jest/globals';
import { analyse } from '@/core/analyse';
import { harmonyOf, readChart, timelineOf } from '@/core/chart';
import { planOf } from '@/core/plan';
import { findingsOf, marksOf, type Finding } from '@/core/findings';
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
    findings: findingsOf({ chart, tempo: 120, plan, report }),
  };
};

test('an empty take says so', () => {
  const { report, findings } = take([]);
  expect(openingWords(report, findings)).toEqual({
    soft: 'No note was heard in this take.',
    bold: 'There is nothing to judge yet.',
  });
});

test('without a finding the counts are said', () => {
  const { report, findings } = take([
    [65, 0, 1],
    [71, 4, 1],
    [76, 8, 1],
  ]);
  expect(openingWords(report, findings).bold).toBe(
    'You met a target at 2 of 2 changes; nothing stands out as missed.',
  );
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
  expect(drawn.gates.map((gate) => [gate.mark, gate.word])).toEqual([
    ['target', 'held'],
    ['target-late', 'then 3'],
  ]);
  expect(drawn.notes.filter((note) => note.landing).map((note) => note.index)).toEqual([0, 2]);
});

test('what is shown: one word of praise first, small things only where there is nothing else', () => {
  const finding = (kind: Finding['kind'], weight: number): Finding => ({
    kind,
    weight,
    where: { bars: [] },
    met: 1,
    of: 10,
    interval: [0, 0.4],
    title: kind,
    sentence: `${kind}.`,
    drill: { span: [1, 2], plan: 'outline', target: '', pass: '', tempo: 60 },
  });
  const kinds = (...all: Finding[]) => shownFindings(all).map(({ kind }) => kind);
  expect(
    kinds(finding('improved', 10), finding('target-missed', 0.3), finding('one-position', 0.03)),
  ).toEqual(['improved', 'target-missed']);
  expect(kinds(finding('improved', 10), finding('one-position', 0.03))).toEqual(['improved', 'one-position']);
  expect(
    kinds(finding('uneven', 0.5), finding('drags', 0.4), finding('no-space', 0.3), finding('rushes', 0.2)),
  ).toHaveLength(3);
  const { report } = take([
    [65, 0, 1],
    [71, 4, 1],
  ]);
  expect(openingWords(report, [finding('improved', 10), finding('target-missed', 0.3)]).bold).toBe(
    'target-missed.',
  );
  expect(openingWords(report, [finding('improved', 10)]).bold).toBe('improved.');
});
