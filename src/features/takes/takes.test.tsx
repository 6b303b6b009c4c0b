/** @jest-environment jsdom */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { AppRouterContext } from 'next/dist/shared/lib/app-router-context.shared-runtime';
import type { TakeSummary } from '@/server/takeSummaries';
import type { StoredTake } from '@/server/takes';
import { TakeProfile } from '@/ui/form/TakeProfile';
import { takeRow } from './takeRow';
import { TakesScreen } from './TakesScreen';
import { chooseOption } from '../../../tests/support/controls';

afterEach(cleanup);
// no server: what is asked for never comes
window.scrollTo = () => undefined;
globalThis.fetch = () => new Promise(() => undefined);
const TAKE: StoredTake = {
  id: 'a',
  chartId: null,
  title: 'T',
  number: 4,
  state: 'ready',
  source: 'file',
  chartText: '| C7 | F7 |',
  tempo: 119.6,
  pace: null,
  dropOut: null,
  drillId: null,
  choruses: 2,
  plan: { id: 'outline' },
  planId: 'outline',
  rate: 44_100,
  bits: 24,
  frames: 1,
  offsetSec: 0,
  device: null,
  latencySec: null,
  soundGoneAt: null,
  removedAt: null,
  trouble: null,
  createdAt: Date.now(),
};
const LINE: TakeSummary = {
  met: 2,
  judged: 3,
  heard: 1,
  segments: 4,
  key: 'C major',
  measures: { places: {}, kinds: [], tones: [], approaches: [] },
  findings: [{ kind: 'landing-late', title: 'Late' }],
  profile: {
    beats: 16,
    notes: [
      [0, 1, 0],
      [1, 2, 3],
      [4, 4.5, 2],
    ],
    landings: [
      [4, 'target'],
      [8, 'rest'],
      [12, 'target-late'],
    ],
  },
};

test('a line of the list says what was counted, its tempo whole, and when', () => {
  const row = takeRow({ take: TAKE, line: LINE, stars: 0, trouble: null });
  expect(row).toMatchObject({
    number: 4,
    tempo: 120,
    planId: 'outline',
    line: { met: 2, judged: 3, heard: 1, segments: 4 },
  });
  expect(row.when).toMatch(/^today \d/);
});

test('the list says how many there are, can be chosen from by anything, and a choice has an address', async () => {
  const facets = {
    titles: ['T'],
    plans: ['outline'],
    keys: ['C major'],
    measures: { kinds: [], tones: [], approaches: [] },
    findings: [{ kind: 'landing-late', name: 'landings late', count: 3 }],
  };
  render(
    <AppRouterContext.Provider value={{ prefetch: () => undefined } as never}>
      <TakesScreen
        first={{
          total: 3,
          from: 0,
          rows: [
            takeRow({ take: TAKE, line: LINE, stars: 3, trouble: null }),
            takeRow({
              take: { ...TAKE, id: 'b', number: 3 },
              line: null,
              stars: 0,
              trouble: 'This take cannot be judged.',
            }),
          ],
        }}
        filter={{ title: 'T' }}
        facets={facets}
        charts={[]}
      />
    </AppRouterContext.Provider>,
  );
  expect(screen.getByRole('heading', { level: 1 }).textContent).toContain('3 takes match');
  expect(screen.getByText('This take cannot be judged.')).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Remove take 3' })).toBeTruthy();
  await chooseOption('any finding', 'landings late, 3');
  expect(Object.fromEntries(new URLSearchParams(window.location.search))).toEqual({
    title: 'T',
    finding: 'landing-late',
  });
  fireEvent.click(screen.getByRole('button', { name: 'Show all' }));
  expect(window.location.search).toBe('');
});

test('the small profile draws every note and every change', () => {
  const { container } = render(<TakeProfile profile={LINE.profile} />);
  expect(
    [...container.querySelectorAll('path.notes')].reduce(
      (sum, path) => sum + (path.getAttribute('d')!.match(/M/g)?.length ?? 0),
      0,
    ),
  ).toBe(LINE.profile.notes.length);
  // a target, one at rest (two ends), and one met late (dotted, then solid)
  expect(
    [...container.querySelectorAll('path.landings')].reduce(
      (sum, path) => sum + (path.getAttribute('d')!.match(/M/g)?.length ?? 0),
      0,
    ),
  ).toBe(5);
  expect(screen.queryByRole('img')).toBeNull(); // it decorates; the counts beside it say the same
});
