import { expect, jest, test } from '@jest/globals';
import { analyse } from '@/core/analyse';
import { readChart } from '@/core/chart';
import { heardId, type Edit } from '@/core/correct';
import { judgeTake, type TakeCase } from '@/core/review';
import { unwrap } from '@/core/shared';
import { canKeep, phraseBorders } from './phraseBorders';
import type { Selection } from './selection';

const TEXT = 'key: C\ntempo: 120\n| Dm7 | G7 | Cmaj7 | % |';
// two phrases of four notes with a bar of rest between them, and one note alone
const BEATS = [0, 0.5, 1, 1.5, 6, 6.5, 7, 7.5, 12];
const takeOf = (edits: readonly Edit[] = []): TakeCase => ({
  chartText: TEXT,
  tempo: 120,
  pace: null,
  choruses: 1,
  plan: { id: 'outline' },
  offsetSec: 0,
  isLatencyMeasured: true,
  edits,
  heard: BEATS.map((beat, index) => ({
    onsetSec: beat / 2,
    offsetSec: beat / 2 + 0.24,
    midi: 60 + index,
    confidence: 1,
  })),
});

function bordersAt(current: Selection | null, chosen: number | null, edits: readonly Edit[] = []) {
  const judgement = judgeTake(takeOf(edits));
  const [edit, select] = [jest.fn(), jest.fn()];
  const corrections = { edits, undone: [], keeping: 'kept', edit } as never;
  return { ...phraseBorders({ judgement, corrections, current, chosen, select }), edit, select, judgement };
}
const starts = (edits: readonly Edit[]) =>
  judgeTake(takeOf(edits)).report.phrases.map(({ startBeat }) => startBeat);

test('a phrase begins at the selected note, where it does not begin already', () => {
  const inside = bordersAt({ kind: 'note', index: 2 }, 2);
  expect([inside.canSplit, inside.canJoin]).toEqual([true, false]);
  inside.split();
  expect(inside.edit).toHaveBeenCalledWith({ kind: 'phrase', id: heardId(2), border: 'begins' });
  const first = bordersAt({ kind: 'note', index: 4 }, 4);
  expect([first.canSplit, first.canJoin]).toEqual([false, true]);
});

test('a phrase joins the one before it, and that one is selected then', () => {
  const second = bordersAt({ kind: 'phrase', index: 1 }, 4);
  expect([second.canSplit, second.canJoin]).toEqual([false, true]);
  second.join();
  expect(second.edit).toHaveBeenCalledWith({ kind: 'phrase', id: heardId(4), border: 'goes-on' });
  expect(second.select).toHaveBeenCalledWith({ kind: 'phrase', index: 0 });
  expect(bordersAt({ kind: 'phrase', index: 0 }, 0).canJoin).toBe(false);
});

test('where nothing or something else is selected, nothing can be done', () => {
  for (const selection of [
    null,
    { kind: 'chorus', index: 0 } as const,
    { kind: 'change', index: 0 } as const,
  ]) {
    const { canSplit, canJoin } = bordersAt(selection, null);
    expect([canSplit, canJoin]).toEqual([false, false]);
  }
});

test('borders are edits of the take: judged with it, each the last word on its note, and taken back with undo', () => {
  const begin: Edit = { kind: 'phrase', id: heardId(2), border: 'begins' };
  const join: Edit = { kind: 'phrase', id: heardId(4), border: 'goes-on' };
  expect(starts([])).toEqual([0, 6, 12]);
  expect(starts([begin])).toEqual([0, 1, 6, 12]);
  expect(starts([begin, join])).toEqual([0, 1, 12]);
  expect(starts([begin, join, { ...begin, border: null }])).toEqual([0, 12]);
  // a border on a note that is gone does nothing
  expect(starts([{ kind: 'delete', id: heardId(2) }, begin])).toEqual([0, 6, 12]);
});

test('a phrase of one note is not kept', () => {
  const { report } = judgeTake(takeOf());
  expect([0, 1, 2, 9].map((index) => canKeep(report, index))).toEqual([true, true, false, false]);
});

test('another plan judges the same notes as a first judgement would', () => {
  const plans = ['outline', 'home-scale', 'scale-per-chord'] as const;
  const one = takeOf();
  const again = plans.map((id) => judgeTake({ ...one, plan: { id } }).report);
  plans.forEach((id, index) => {
    const fresh = analyse({
      chart: unwrap(readChart(TEXT)),
      tempo: 120,
      choruses: 1,
      isLatencyMeasured: true,
      plan: { id },
      notes: BEATS.map((beat, at) => ({
        onsetBeat: beat,
        durationBeats: 0.48,
        midi: 60 + at,
        confidence: 1,
      })),
    });
    expect(again[index]!.notes.map(({ height, tier }) => [height, tier])).toEqual(
      fresh.notes.map(({ height, tier }) => [height, tier]),
    );
    expect(again[index]!.summary).toEqual(fresh.summary);
  });
});
