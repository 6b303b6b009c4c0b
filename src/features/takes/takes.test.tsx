/** @jest-environment jsdom */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import { analyse } from '@/core/analyse';
import { improvise } from '@/core/band';
import { harmonyOf, readChart, timelineOf } from '@/core/chart';
import { planOf } from '@/core/plan';
import { marksOf } from '@/core/practise';
import { certain } from '@/core/vocabulary';
import type { Review } from '@/server/reviews';
import { TakeProfile } from './TakeProfile';
import { takeRow } from './takeRow';

afterEach(cleanup);
const TEXT = 'title: T\nkey: Bb\n| Bb7 | Eb7 | Cm7 F7 | Bb7 |';
const chart = certain(readChart(TEXT));
const plan = { id: 'outline' as const };

function review(): Review {
  const notes = improvise({ chart, tempo: 120, choruses: 2, plan, seed: 3 });
  const report = analyse({ chart, tempo: 120, notes, choruses: 2, plan });
  const take = {
    id: 'a', chartId: null, title: 'T', number: 4, state: 'ready' as const, source: 'file' as const, chartText: TEXT, tempo: 120, choruses: 2, plan, rate: 44_100, frames: 1, offsetSec: 0, createdAt: Date.now(),
  };
  return { take, report, certainty: 0.9, findings: [], marks: marksOf(report, planOf(plan, harmonyOf(chart, timelineOf(chart, 120))), chart, 120) };
}

test('a line of the list counts what its review counts', () => {
  const made = review();
  const row = takeRow(made);
  expect(row).toMatchObject({ number: 4, tempo: 120, planId: 'outline', met: made.report.summary.targetsMet, judged: made.report.summary.judgedChanges });
  expect(row.segments).toBe(made.report.mutedBand.segments.filter((segment) => segment.verdict !== 'silent').length);
  expect(row.heard).toBeLessThanOrEqual(row.segments);
  expect(row.profile.beats).toBe(32);
  expect(row.profile.gates).toHaveLength(made.report.changes.length);
  expect(row.when).toMatch(/^today \d/);
});

test('the small profile draws every note and every change', () => {
  const { profile } = takeRow(review());
  const { container } = render(<TakeProfile profile={profile} />);
  expect(container.querySelectorAll('rect')).toHaveLength(profile.notes.length);
  expect(container.querySelectorAll('line').length).toBeGreaterThanOrEqual(profile.gates.length);
  expect(screen.queryByRole('img')).toBeNull(); // it decorates; the counts beside it say the same
});
