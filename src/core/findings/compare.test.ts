import { expect, test } from '@jest/globals';
import { analyse, type Report } from '../analyse';
import { improvise } from '../band';
import { harmonyOf, readChart, timelineOf } from '../chart';
import { planOf } from '../plan';
import { unwrap } from '../shared';
import { approachTable, compareTakes, marksOf, newcombeInterval } from './index';

const chart = unwrap(readChart('key: Bb\n| Bb7 | Eb7 | Bb7 | G7 |\n| Cm7 | F7 | Bb7 | F7 |'));
const timeline = timelineOf(chart, 100);
const plan = { id: 'outline' as const };
const take = (seed: number, changes: Record<string, number>) => {
  const report = analyse({
    chart,
    tempo: 100,
    choruses: 6,
    plan,
    notes: improvise({ chart, tempo: 100, choruses: 6, plan, seed, profile: { changes, early: 0, late: 0 } }),
  });
  return { report, marks: marksOf(report, planOf(plan, harmonyOf(chart, timeline), timeline), chart, 100) };
};

// Newcombe, Statistics in Medicine 17 (1998) 873–890, table II, method 10, 95 % intervals, cases (a), (b),
// (d), (e), (g), (h); recorded from memory.
test.each([
  [56, 70, 48, 80, 0.0524, 0.3339],
  [9, 10, 3, 10, 0.1705, 0.809],
  [5, 56, 0, 29, -0.0381, 0.1926],
  [0, 10, 0, 20, -0.1611, 0.2775],
  [10, 10, 0, 20, 0.6791, 1],
  [10, 10, 0, 10, 0.6075, 1],
])('Newcombe’s worked examples: %i of %i less %i of %i', (a, m, b, n, low, high) => {
  const [lower, upper] = newcombeInterval({ met: b, of: n }, { met: a, of: m });
  expect(lower).toBeCloseTo(low, 3);
  expect(upper).toBeCloseTo(high, 3);
});

test('a take that meets what the last one missed is called better there, and nothing is claimed where little moved', () => {
  const [before, after] = [take(3, { F7: 0 }), take(3, { F7: 1 })];
  const compared = compareTakes([before, after], timeline.formBeats);
  const first = compared.kinds[0]!;
  expect([first.to, first.word]).toEqual(['F7', 'better']);
  expect(compared.soft).toMatch(/^Into F7 you met a target in \d+ of \d+, then in \d+ of \d+\.$/);
  expect(compared.bold).toMatch(/^\+\d+ points, between \+\d+ and \+\d+: better\./);
  expect(compareTakes([before, before], timeline.formBeats)).toMatchObject({ bold: 'No difference.' });
});

test('rates by change and by kind add up to the marks; rests are no part of them', () => {
  const takes = [take(5, { Eb7: 0.3 }), take(6, {}), take(7, { G7: 0.2 })];
  const { byChange, kinds, numbers } = compareTakes(takes, timeline.formBeats);
  expect(byChange).toHaveLength(8);
  takes.forEach(({ marks }, index) => {
    const [met, of] = [
      marks.filter((mark) => mark === 'target').length,
      marks.filter((mark) => mark !== 'rest').length,
    ];
    for (const rows of [byChange, kinds])
      expect([
        rows.reduce((sum, { rates }) => sum + rates[index]!.met, 0),
        rows.reduce((sum, { rates }) => sum + rates[index]!.of, 0),
      ]).toEqual([met, of]);
    expect(numbers.find(({ name }) => name === 'met on time')!.values[index]).toBe(`${met} of ${of}`);
  });
});

test('approaches: every figure is in one cell, and chromatic notes outside all figures are counted as left', () => {
  const { report } = take(9, {});
  const { rows, arrived, left } = approachTable(report);
  expect(rows.reduce((sum, { below, above, both }) => sum + below + above + both, 0)).toBe(
    report.figures.length,
  );
  expect(arrived).toBe(report.figures.length);
  const inFigures = new Set(report.figures.flatMap(({ noteIndices }) => noteIndices));
  expect(left).toBe(
    report.notes.filter((note) => note.chromatic && !inFigures.has(note.index) && note.function !== 'grace')
      .length,
  );
});

test('deviation by eighth: planted leans come back in the report', () => {
  const notes = Array.from({ length: 64 }, (_, index) => ({
    onsetBeat: index / 2 + (index % 2 ? 0.05 : -0.02) + (index % 8 === 6 ? 0.06 : 0),
    durationBeats: 0.4,
    midi: 60 + (index % 5),
  }));
  const { time } = analyse({
    chart: unwrap(readChart('| C | F |')),
    tempo: 100,
    choruses: 4,
    plan,
    notes,
  }) as Report;
  expect(time.byEighth.map(({ beat, and }) => [beat, and])).toEqual(
    [1, 2, 3, 4].flatMap((beat) => [
      [beat, false],
      [beat, true],
    ]),
  );
  const at = (beat: number, and: boolean) =>
    time.byEighth.find((one) => one.beat === beat && one.and === and)!;
  expect(at(4, false).medianMs - at(1, false).medianMs).toBeCloseTo(0.06 * 600, 6);
  expect(time.byEighth.reduce((sum, { count }) => sum + count, 0)).toBe(64);
});
