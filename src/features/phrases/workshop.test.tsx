/** @jest-environment jsdom */
import type { ReactNode } from 'react';
import { AppRouterContext } from 'next/dist/shared/lib/app-router-context.shared-runtime';
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { readPhrase } from '@/core/phrases';
import { unwrap } from '@/core/shared';
import type { StoredPhrase } from '@/server/phrases';
import { chooseOption } from '../../../tests/support/controls';
import { CellView } from './CellView';
import { JoinView } from './JoinView';
import { NameAndTags } from './NameAndTags';
import { NewPhrase } from './NewPhrase';
import { PlayedAgain } from './PlayedAgain';
import { TransferView } from './TransferView';
import type { Bench } from './bench';

const push = jest.fn();
const refresh = jest.fn();
const inRouter = {
  wrapper: ({ children }: { children: ReactNode }) => (
    <AppRouterContext.Provider value={{ push, refresh, prefetch: () => undefined } as never}>
      {children}
    </AppRouterContext.Provider>
  ),
};

const requests: { url: string; method: string; body: unknown }[] = [];
let answers: Record<string, unknown> = {};
beforeEach(() => {
  requests.length = 0;
  answers = {};
  globalThis.fetch = jest.fn(async (url: unknown, init?: RequestInit) => {
    const body = init?.body ? JSON.parse(String(init.body)) : undefined;
    requests.push({ url: String(url), method: init?.method ?? 'GET', body });
    const answer = answers[String(url)] ?? { id: 'made' };
    return { ok: true, status: 200, json: async () => answer, headers: new Headers() } as unknown as Response;
  }) as typeof fetch;
});
afterEach(() => {
  cleanup();
  jest.clearAllMocks();
});

const phraseOf = (chords: string, line: string) => unwrap(readPhrase({ chords, line, tempo: 100 }));
const storedAs = (id: string, name: string, phrase = phraseOf('Cm7', 'Eb4:1/2 F G Bb')): StoredPhrase => ({
  id,
  name,
  tags: ['cell'],
  phrase,
  source: 'typed',
  take: null,
  createdAt: 0,
});
const CHART = {
  id: 'c',
  title: 'Quay',
  text: 'title: Quay\nkey: Cm\ntempo: 100\n\n| Cm7 | F7 | Bbmaj7 | Cm7 |\n',
};
function benchOf(stored = storedAs('p', 'Four notes')) {
  const [keep, hear, say, place] = [jest.fn(), jest.fn(), jest.fn(), jest.fn()];
  const state = { id: null, phase: 'silent', beat: 0, trouble: null } as const;
  const hearing = { state, hear, stop: jest.fn() } as unknown as Bench['hearing'];
  return { bench: { stored, hearing, chart: CHART, keep, place, say } as Bench, keep, hear, place };
}

test('over a form: each way says what it keeps, is heard, and becomes a drill of the phrase', async () => {
  const { bench, hear } = benchOf();
  render(<TransferView bench={bench} chart={CHART} />, inRouter);
  expect(screen.getByText(/The same degrees of every chord/).textContent).toContain('4 statements');
  fireEvent.click(screen.getByRole('radio', { name: 'exactly' }));
  expect(screen.getByText(/Every interval as it was/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /hear it/ }));
  expect(hear).toHaveBeenCalledTimes(1);
  fireEvent.click(screen.getByRole('button', { name: /drill it/ }));
  await waitFor(() => expect(push).toHaveBeenCalledWith('/drills/made'));
  expect(requests[0]).toMatchObject({
    url: '/api/drills',
    method: 'POST',
    body: { chartId: 'c', kind: 'own-phrase', tempo: 100 },
  });
});

test('as a cell: moved by the step that is chosen, told, kept; what leaves the form is refused with a way out', async () => {
  const { bench, keep } = benchOf();
  render(<CellView bench={bench} chart={CHART} />);
  expect(screen.getByText(/comes home|stays inside|outside the scales/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Keep it: the moving cell' }));
  expect(keep).toHaveBeenCalledWith('Four notes, moving', expect.objectContaining({ tempo: 100 }));
  await chooseOption('Times', '5');
  expect(screen.getByRole('status').textContent).toMatch(/Move it fewer times/);
});

test('joined with another phrase, which is chosen; alone it says what is missing', () => {
  const { bench, keep } = benchOf();
  const { rerender } = render(<JoinView bench={bench} others={[]} />);
  expect(screen.getByText(/Keep a second phrase first/)).toBeTruthy();
  rerender(<JoinView bench={bench} others={[storedAs('q', 'The other')]} />);
  fireEvent.click(screen.getByRole('button', { name: 'Keep it: both phrases' }));
  const [name, made] = keep.mock.calls[0] as [string, { notes: unknown[] }];
  expect([name, made.notes.length]).toEqual(['Four notes and The other', 8]);
});

test('where it was played: searched, told by take, and said where it is too short or nothing answers', async () => {
  const take = { id: 't', number: 7, title: 'Quay', createdAt: 0 };
  answers['/api/phrases/p/found'] = {
    takes: [{ ...take, found: [{ at: 0, beat: 0, how: 'exact', changed: [] }] }],
  };
  const { unmount } = render(<PlayedAgain stored={storedAs('p', 'x')} />);
  await waitFor(() => expect(screen.getByRole('status').textContent).toBe('Played once in 1 take.'));
  expect(screen.getByRole('link', { name: 'Quay, take 7' }).getAttribute('href')).toBe('/takes/t');
  unmount();
  const short = render(<PlayedAgain stored={storedAs('p', 'x', phraseOf('C', 'C4 E4'))} />);
  expect(screen.getByRole('status').textContent).toMatch(/three or more/);
  short.unmount();
  globalThis.fetch = jest.fn(async () => Promise.reject(new Error('away'))) as unknown as typeof fetch;
  render(<PlayedAgain stored={storedAs('p', 'x')} />);
  await waitFor(() => expect(screen.getByRole('status').textContent).toBe('The server does not answer.'));
});

test('a phrase is written: checked while it is typed, told where it is wrong, kept and opened', async () => {
  render(<NewPhrase />, inRouter);
  const type = (label: string, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  type('Chords', 'Cm7');
  type('Notes', 'C4 Eb H');
  expect(screen.getByRole('status').textContent).toMatch(/^Column 7: “H” is no note/);
  fireEvent.click(screen.getByRole('button', { name: 'Keep it' }));
  expect(requests).toEqual([]);
  type('Notes', 'C4 Eb G');
  type('Name', '  Up  ');
  fireEvent.click(screen.getByRole('button', { name: 'Keep it' }));
  await waitFor(() => expect(push).toHaveBeenCalledWith('/phrases/made'));
  expect(requests[0]!.body).toMatchObject({ name: 'Up', source: 'typed', phrase: { tempo: 100 } });
});

test('name and tags are saved when they are left, and only where something changed', async () => {
  render(<NameAndTags stored={storedAs('p', 'Four notes')} />, inRouter);
  fireEvent.blur(screen.getByLabelText('Name'));
  expect(requests).toEqual([]);
  fireEvent.change(screen.getByLabelText('Tags'), { target: { value: 'minor, cell , minor' } });
  fireEvent.blur(screen.getByLabelText('Tags'));
  await waitFor(() => expect(screen.getByRole('status').textContent).toBe('Saved.'));
  expect(requests[0]).toMatchObject({
    url: '/api/phrases/p',
    method: 'PATCH',
    body: { name: 'Four notes', tags: ['minor', 'cell'] },
  });
  expect(refresh).toHaveBeenCalled();
});
