import { expect, jest, test } from '@jest/globals';
import { analyse } from '@/core/analyse';
import { readChart, timelineOf } from '@/core/chart';
import { corrected, playedFrom, reportPlaces, type Edit } from '@/core/correct';
import { fingeredTake, placesSaid } from '@/core/findings';
import { STANDARD_INSTRUMENT } from '@/core/neck';
import { elementAt, unwrap } from '@/core/shared';
import { wherePlayed, type HandScope } from './wherePlayed';

const chart = unwrap(readChart('key: C\ntempo: 60\n| C | F | G7 | C |\n'));
const timeline = timelineOf(chart, 60);
/** Two phrases, of two bars and of one; a beat is a second. */
const HEARD = [0, 1, 2, 3, 4, 5, 9, 10, 11].map((onsetSec, index) => ({
  onsetSec,
  offsetSec: onsetSec + 0.9,
  midi: elementAt([60, 62, 64, 65, 67, 69, 72, 71, 67], index),
}));

type Model = Parameters<typeof wherePlayed>[0];
function modelOf(edits: readonly Edit[], note: number | null, handScope: HandScope) {
  const played = playedFrom(corrected(HEARD, edits), 60, 0);
  const plan = { id: 'scale-per-chord' as const };
  const report = analyse({ chart, tempo: 60, notes: played, plan, choruses: 1, leanMs: 0 });
  const edit = jest.fn<(one: Edit) => void>();
  const model = {
    judgement: { report, timeline, places: reportPlaces(report, played) },
    corrections: { edit },
    current: note === null ? null : { kind: 'note', index: note },
    chosen: note,
    state: { handScope },
  } as unknown as Model;
  return { report, model, edit, given: () => elementAt(edit.mock.calls, 0)[0] };
}

test.each<[HandScope, number | null, number[]]>([
  ['bar', 1, [0, 1, 2, 3]],
  ['phrase', 1, [0, 1, 2, 3, 4, 5]],
  ['phrase', 7, [6, 7, 8]],
  ['take', 1, [0, 1, 2, 3, 4, 5, 6, 7, 8]],
  ['phrase', null, [0, 1, 2, 3, 4, 5, 6, 7, 8]],
])('%s, of note %p: the notes whose place is said', (scope, note, expected) => {
  const { model, given } = modelOf([], note, scope);
  wherePlayed(model, STANDARD_INSTRUMENT).set(7);
  expect(given()).toEqual({
    kind: 'position',
    id: `h${expected[0]}`,
    ids: expected.map((one) => `h${one}`),
    fret: 7,
  });
});

test('what is said holds: the fingering lies there, in the report, and the rest stays likeliest', () => {
  const edit: Edit = { kind: 'position', id: 'h0', ids: ['h0', 'h1', 'h2', 'h3', 'h4', 'h5'], fret: 12 };
  const { report, model } = modelOf([edit], 0, 'take');
  expect([placesSaid(report), placesSaid(modelOf([], 0, 'take').report)]).toEqual(['some', 'none']);
  const { touches } = fingeredTake(report);
  for (const index of [0, 1, 2, 3, 4, 5]) expect(touches[index]!.fret).toBeGreaterThanOrEqual(11);
  expect(touches[8]!.fret).toBeLessThan(9);
  expect(wherePlayed(model, STANDARD_INSTRUMENT).value).toBe('several');
  expect(
    wherePlayed({ ...model, state: { ...model.state, handScope: 'phrase' } }, STANDARD_INSTRUMENT).value,
  ).toBe(12);
});

test('the hand is moved from where it lies, fret by fret, and not off the neck', () => {
  const all = HEARD.map((_, index) => `h${index}`);
  const at = (fret: number): Edit => ({ kind: 'position', id: 'h0', ids: all, fret });
  for (const [from, by, to] of [
    [5, 1, 6],
    [1, -1, 1],
    [19, 1, 19],
  ] as const) {
    const { model, given } = modelOf([at(from)], null, 'take');
    wherePlayed(model, STANDARD_INSTRUMENT).move(by);
    expect(given()).toMatchObject({ fret: to });
  }
  const { model, given } = modelOf([], null, 'take');
  wherePlayed(model, STANDARD_INSTRUMENT).move(1);
  expect(given()).toMatchObject({ kind: 'position' });
});
