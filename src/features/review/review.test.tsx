/** @jest-environment jsdom */
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render, within } from '@testing-library/react';
import { analyse } from '@/core/analyse';
import { improvise } from '@/core/band';
import { harmonyOf, readChart, timelineOf } from '@/core/chart';
import { planOf } from '@/core/plan';
import { findingsOver, firstPageOf, marksOf } from '@/core/findings';
import { unwrap } from '@/core/shared';
import { MutedBandBoard } from './MutedBandBoard';
import { PhrasesBoard } from './PhrasesBoard';
import { TimeBoard } from './TimeBoard';
import { Coverage } from './Coverage';
import { Findings } from './Findings';
import { LandingsBoard } from './LandingsBoard';
import { SelectionCard } from './SelectionCard';

import type { Selection } from './selection';

afterEach(cleanup);
const chart = unwrap(readChart('key: Bb\n| Bb7 | Eb7 | Bb7 | G7 |\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |'));
const timeline = timelineOf(chart, 96);
const plan = { id: 'scale-per-chord' as const };
const notes = improvise({
  chart,
  tempo: 96,
  choruses: 4,
  plan,
  seed: 5,
  profile: { changes: { F7: 0.05 }, early: 0, late: 0 },
});
const report = analyse({ chart, tempo: 96, notes, choruses: 4, plan });
const marks = marksOf(report, planOf(plan, harmonyOf(chart, timeline)), chart, 96);
const request = { chart, tempo: 96, plan, report };
const firstPage = firstPageOf(request, findingsOver([request]));

test('the landings board says in a table what it draws, and a row can be chosen', () => {
  const onKind = jest.fn();
  const { getByRole, container } = render(
    <LandingsBoard report={report} marks={marks} kind={null} onKind={onKind} />,
  );
  const rows = within(getByRole('table')).getAllByRole('row');
  expect(rows).toHaveLength(7);
  expect(rows[1]!.textContent).toContain('Cm7 to F7');
  const said = rows.slice(1).flatMap((row) =>
    within(row)
      .getAllByRole('cell')
      .flatMap((cell) => cell.textContent!.split('; ').filter(Boolean)),
  );
  expect(said).toHaveLength(report.changes.length);
  fireEvent.click(container.querySelector('g.cursor-pointer')!);
  expect(onKind).toHaveBeenCalledWith('Cm7→F7');
});

test('coverage: every count is there, and what was never played is ringed by name', () => {
  const sparse = analyse({ chart, tempo: 96, notes: notes.slice(0, 12), choruses: 1, plan });
  const { getByRole, container } = render(<Coverage report={sparse} />);
  const table = getByRole('table');
  for (const cover of sparse.coverage)
    for (const { count } of Object.values(cover.byInterval))
      if (count > 0) expect(table.textContent).toContain(String(count));
  expect(container.querySelectorAll('circle').length).toBe(
    sparse.coverage.reduce((sum, cover) => sum + cover.missing.length, 0),
  );
});

test('findings are numbered and can be heard at their first bar; the next step where none is', () => {
  const [onHear, onDrill] = [jest.fn(), jest.fn()];
  const { getAllByRole, rerender, container } = render(
    <Findings page={firstPage} bars={8} onHear={onHear} onDrill={onDrill} />,
  );
  expect(getAllByRole('listitem').length).toBeGreaterThan(0);
  expect(getAllByRole('heading', { level: 3 })[0]!.textContent).toContain('over F');
  for (const button of getAllByRole('button', { name: /Hear it: chorus \d, bar \d/ }))
    fireEvent.click(button);
  expect(onHear.mock.calls.at(0)).toEqual([firstPage.practise!.where.bars[0]]);
  expect(onHear.mock.calls.at(-1)).toEqual([firstPage.strength!.bar]);
  expect(container.textContent).toContain(firstPage.practise!.advice);
  fireEvent.click(getAllByRole('button', { name: 'Drill it' })[0]!);
  expect(onDrill).toHaveBeenCalledTimes(1);
  const step = { kind: 'faster', sentence: 'Play it at 104.', tempo: 104 } as const;
  const nothing = { ...firstPage, practise: null, also: [], step };
  rerender(<Findings page={nothing} bars={8} onHear={onHear} onDrill={onDrill} />);
  expect(container.textContent).toContain('Next stepPlay it at 104.');
});

test('a card says what is selected, why and by what rule; the fix is heard at a press', () => {
  const [onClose, onHear, onFix, onSplit] = [jest.fn(), jest.fn(), jest.fn(), jest.fn()];
  const cards = (selection: Selection) =>
    render(
      <SelectionCard
        report={report}
        selection={selection}
        place="Chorus 1, bar 1"
        onClose={onClose}
        onHear={onHear}
        onFix={onFix}
        onPhrase={jest.fn()}
        onKeep={jest.fn()}
        borders={{ canSplit: true, canJoin: false, split: onSplit, join: jest.fn() }}
      />,
    );
  const note = cards({ kind: 'note', index: 0 });
  for (const words of ['What it is', 'Why it matters', 'By the rule'])
    expect(note.container.textContent).toContain(words);
  fireEvent.click(note.getByRole('button', { name: /close/ }));
  fireEvent.click(note.getByRole('button', { name: /Hear it/ }));
  fireEvent.click(note.getByRole('button', { name: /Begin a phrase here/ }));
  expect([onClose, onHear, onSplit].map(({ mock }) => mock.calls.length)).toEqual([1, 1, 1]);
  expect(note.queryByRole('button', { name: /Join with/ })).toBeNull();
  cleanup();
  const missed = report.changes.findIndex(({ fix }) => fix !== null);
  const change = cards({ kind: 'change', index: missed });
  expect(change.container.textContent).toContain('One-note fix');
  fireEvent.click(change.getByRole('button', { name: /Hear the fix/ }));
  expect(onFix).toHaveBeenCalledWith(report.changes[missed]!.fix);
  cleanup();
  for (const kind of ['figure', 'phrase', 'chorus'] as const) {
    expect(cards({ kind, index: 0 }).container.textContent!.length).toBeGreaterThan(40);
    cleanup();
  }
});

test('the muted band is counted in words and said for the ear', () => {
  const { container } = render(<MutedBandBoard report={report} timeline={timeline} />);
  const judged = report.mutedBand.segments.filter((segment) => segment.verdict !== 'silent');
  expect(container.querySelector('h2')!.textContent).toContain(
    `${judged.filter((segment) => segment.verdict === 'heard').length} of ${judged.length} heard`,
  );
  expect(container.querySelector('p.sr-only')!.textContent!.split('; ')).toHaveLength(
    report.mutedBand.segments.length,
  );
});

test('phrases: one line for each, cut where a chorus ends', () => {
  const { container } = render(<PhrasesBoard report={report} timeline={timeline} />);
  expect(container.querySelector('h2')!.textContent).toContain(`${report.phrases.length}:`);
  expect(container.querySelectorAll('g[stroke="var(--h1)"]').length).toBeGreaterThanOrEqual(
    report.phrases.length,
  );
});

test('time: every eighth that was played with its median, as a picture and as a table', () => {
  const { container, getByRole, rerender } = render(<TimeBoard report={report} />);
  expect(within(getByRole('table')).getAllByRole('row')).toHaveLength(report.time.byEighth.length + 1);
  expect(container.textContent).toMatch(/[+−]\d+ ms/);
  fireEvent.click(getByRole('button', { name: 'Time as a table' }));
  expect(container.querySelector('svg')).toBeNull();
  rerender(<TimeBoard report={analyse({ chart, tempo: 96, notes: [], plan })} />);
  expect(container.textContent).toContain('nothing to measure');
});
