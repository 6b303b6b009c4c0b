import { describe, expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { readChart } from '../chart';
import { improvise, type StandInProfile } from '../band';
import { analyse, type PlayedNote } from '../analyse';
import { findingsOf, findingsOver, type FindingsRequest } from './index';
import { poolReports } from './pool';

const chart = unwrap(
  readChart('key: Bb\n| Bb7 | Eb7 | Bb7 | % |\n| Eb7 | % | Bb7 | G7 |\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |'),
);
const plan = { id: 'scale-per-chord' as const };
const GOOD: Partial<StandInProfile> = { meet: 0.95, early: 0, late: 0, outside: 0 };
const judged = (notes: PlayedNote[], tempo = 96, choruses = 3): FindingsRequest => ({
  chart,
  tempo,
  plan,
  report: analyse({ chart, tempo, notes, choruses, plan }),
});
const take = (seed: number, profile: Partial<StandInProfile> = {}, tempo = 96): FindingsRequest =>
  judged(improvise({ chart, tempo, choruses: 3, plan, seed, profile: { ...GOOD, ...profile } }), tempo);

describe('takes laid one after the other', () => {
  const takes = [take(1), take(2), take(3)];
  const { report, takes: pooled, takeAt } = poolReports(takes);
  test('counts add up', () => {
    const sum = (of: (one: FindingsRequest['report']) => number) =>
      takes.reduce((total, one) => total + of(one.report), 0);
    expect([
      report.notes.length,
      report.changes.length,
      report.phrases.length,
      report.figures.length,
      report.summary.targetsMet,
      report.line.steps,
    ]).toEqual([
      sum((one) => one.notes.length),
      sum((one) => one.changes.length),
      sum((one) => one.phrases.length),
      sum((one) => one.figures.length),
      sum((one) => one.summary.targetsMet),
      sum((one) => one.line.steps),
    ]);
    report.coverage.forEach(({ count, byInterval }, index) => {
      expect(count).toBe(sum((one) => one.coverage[index]!.count));
      expect(Object.values(byInterval).reduce((total, cell) => total + cell.count, 0)).toBe(count);
    });
  });
  test('indices point at the notes they pointed at', () => {
    report.notes.forEach((note, index) => expect(note.index).toBe(index));
    for (const { landing, beat } of report.changes)
      if (landing.noteIndex !== null && landing.timing === 'on')
        expect(Math.abs(report.notes[landing.noteIndex]!.onsetBeat - beat)).toBeLessThan(0.2);
    for (const figure of report.figures)
      expect(figure.targetIndex).toBeGreaterThan(Math.max(...figure.noteIndices));
    for (const phrase of report.phrases)
      expect(report.notes[phrase.noteIndices[0]!]!.onsetBeat).toBeCloseTo(phrase.startBeat, 9);
  });
  test('bars and beats go on counting', () => {
    expect(pooled.map(({ firstBar, fromBeat }) => [firstBar, fromBeat])).toEqual([
      [0, 0],
      [36, 144],
      [72, 288],
    ]);
    expect([takeAt(0), takeAt(143.9), takeAt(144), takeAt(400)].map((one) => pooled.indexOf(one))).toEqual([
      0, 0, 1, 2,
    ]);
    expect(report.changes.map(({ beat }) => beat)).toEqual(
      [...report.changes.map(({ beat }) => beat)].sort((a, b) => a - b),
    );
  });
  test('one take stays as it is', () => expect(poolReports(takes.slice(0, 1)).report).toBe(takes[0]!.report));
});

test('what one take has too little of, several tell', () => {
  const weak = [1, 2, 3].map((seed) => take(seed, { changes: { F7: 0.05 } }));
  const alone = findingsOver(weak.slice(0, 1));
  const all = findingsOver(weak);
  const first = all.findings.find(({ kind }) => kind === 'target-missed');
  expect(first).toMatchObject({ where: { change: 'Cm7→F7' } });
  expect(first!.of).toBeGreaterThan(alone.findings.find(({ kind }) => kind === 'target-missed')?.of ?? 0);
  expect(first!.sentence).toMatch(/^In 3 takes: from Cm7 into F7 you (never )?landed on/);
  expect(first!.where.takes!.map(({ take: number }) => number)).toEqual([1, 2, 3]);
  expect(first!.where.takes!.flatMap(({ bars }) => bars)).toHaveLength(first!.of - first!.met);
  for (const { bars } of first!.where.takes!) for (const bar of bars) expect(bar).toBeLessThanOrEqual(36);
  expect(first!.where.bars).toEqual(first!.where.takes!.find(({ take: number }) => number === 3)!.bars);
});

test('under five places, or where the interval reaches over the limit, it is too few to judge', () => {
  const { findings, tooFew } = findingsOver([
    judged(improvise({ chart, tempo: 96, choruses: 1, plan, seed: 5, profile: { meet: 0.3 } }), 96, 1),
  ]);
  expect(findings.filter(({ kind }) => kind === 'target-missed')).toEqual([]);
  expect(tooFew.map(({ kind }) => kind)).toContain('target-missed');
  for (const one of tooFew) expect(one.of < 5 || one.interval[1] > one.met / one.of).toBe(true);
});

describe('what got better', () => {
  test('comes first when it is new, with both counts', () => {
    const { findings } = findingsOver([take(1, { meet: 0.1 }), take(2, { meet: 0.1 }), take(3, { meet: 1 })]);
    expect(findings[0]).toMatchObject({ kind: 'improved' });
    expect(findings[0]!.sentence).toMatch(/: better than before, \d+ of \d+ now, \d+ of \d+ then\.$/);
    const [now, of] = /(\d+) of (\d+) now/.exec(findings[0]!.sentence)!.slice(1).map(Number);
    expect([findings[0]!.met, findings[0]!.of]).toEqual([now, of]);
  });
  test('a second take like the first has improved in nothing', () => {
    for (const seed of [1, 2, 3, 4])
      expect([
        seed,
        findingsOver([take(seed), take(seed + 10)]).findings.filter(({ kind }) => kind === 'improved'),
      ]).toEqual([seed, []]);
  });
  test('kept at a faster tempo, once; at the same tempo nothing is said', () => {
    const long = (seed: number, tempo: number) =>
      judged(improvise({ chart, tempo, choruses: 6, plan, seed, profile: { ...GOOD, meet: 1 } }), tempo, 6);
    const kept = findingsOver([long(1, 96), long(2, 120)]).findings.filter(({ kind }) => kind === 'kept');
    expect(kept).toHaveLength(1);
    expect(kept[0]!.sentence).toMatch(/you kept it at 120, \d+ of \d+; before at 96\.$/);
    expect(findingsOver([long(1, 96), long(2, 96)]).findings.filter(({ kind }) => kind === 'kept')).toEqual(
      [],
    );
  });
});

test('no takes, no findings; one take is the same either way', () => {
  expect(findingsOver([])).toEqual({ findings: [], tooFew: [] });
  const one = take(7, { meet: 0.3 });
  expect(findingsOver([one]).findings).toEqual(findingsOf(one));
});

test('every finding says its fact in the second person or of the music, without blame, and carries a drill', () => {
  for (const seed of [1, 2, 3, 4, 5])
    for (const one of findingsOf(take(seed, { meet: 0.2, outside: 0.4, breathe: 0, spreadMs: 60 }))) {
      expect(one.sentence).toMatch(/^[A-Z\d].*\.$/);
      expect(one.sentence).not.toMatch(/wrong|bad|fail|mistake|error|should|must|!/i);
      expect(one.advice).toMatch(/^[A-Z].*\.$/);
      expect(one.drill!.tempo).toBeGreaterThanOrEqual(40);
      expect(one.interval[0]).toBeLessThanOrEqual(one.met / one.of + 1e-9);
      expect(one.interval[1]).toBeGreaterThanOrEqual(one.met / one.of - 1e-9);
    }
});
