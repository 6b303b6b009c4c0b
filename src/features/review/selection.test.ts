import { expect, test } from '@jest/globals';
import { analyse } from '@/core/analyse';
import { improvise } from '@/core/band';
import { readChart, timelineOf } from '@/core/chart';
import { unwrap } from '@/core/shared';
import {
  acrossChoruses,
  addressOf,
  noteOf,
  selectionFrom,
  spanOf,
  stepped,
  type Selection,
  type SelectionKind,
} from './selection';

const chart = unwrap(readChart('key: Bb\n| Bb7 | Eb7 | Bb7 | G7 |\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |'));
const timeline = timelineOf(chart, 100);
const report = analyse({
  chart,
  tempo: 100,
  choruses: 3,
  plan: { id: 'outline' },
  notes: improvise({ chart, tempo: 100, choruses: 3, plan: { id: 'outline' }, seed: 4 }),
});
const KINDS: SelectionKind[] = ['note', 'change', 'figure', 'phrase', 'chorus'];

test('every selection has an address of its own that leads back to it; others lead nowhere', () => {
  for (const kind of KINDS)
    expect(selectionFrom(addressOf({ kind, index: 0 }), report)).toEqual({ kind, index: 0 });
  for (const text of [null, '', 'note-0', 'note-99999', 'tune-1', 'change--1', 'note-1x'])
    expect(selectionFrom(text, report)).toBeNull();
});

test('stepping goes through all of a kind in order, stays at the ends, and begins where the last selection lay', () => {
  for (const kind of KINDS) {
    const walked: number[] = [];
    let now: Selection | null = null;
    for (let step = 0; step < 500; step++) {
      const next = stepped(now, kind, 1, report, timeline);
      if (next && now && next.index === now.index) break;
      now = next;
      walked.push(spanOf(next!, report, timeline)[0]);
    }
    expect(walked).toEqual([...walked].sort((a, b) => a - b));
    expect(stepped(now, kind, 1, report, timeline)).toEqual(now);
    const first = stepped(null, kind, 1, report, timeline)!;
    expect(stepped(first, kind, -1, report, timeline)).toEqual(first);
  }
  const change: Selection = { kind: 'change', index: 5 };
  const note = stepped(change, 'note', 1, report, timeline)!;
  expect(spanOf(note, report, timeline)[0]).toBeGreaterThanOrEqual(report.changes[5]!.beat - 1e-6);
});

test('down is the same place a chorus later', () => {
  const first: Selection = { kind: 'change', index: 2 };
  const later = acrossChoruses(first, 1, report, timeline)!;
  expect(report.changes[later.index]!).toMatchObject({ chorus: 2, bar: report.changes[2]!.bar });
  expect(acrossChoruses(later, -1, report, timeline)).toEqual(first);
  expect(acrossChoruses({ kind: 'chorus', index: 2 }, 1, report, timeline)).toEqual({
    kind: 'chorus',
    index: 2,
  });
});

test('a change stands for its landing, a figure for its target', () => {
  expect(noteOf({ kind: 'change', index: 0 }, report)).toBe(report.changes[0]!.landing.noteIndex);
  if (report.figures.length > 0)
    expect(noteOf({ kind: 'figure', index: 0 }, report)).toBe(report.figures[0]!.targetIndex);
});
