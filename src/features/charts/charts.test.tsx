/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { act, cleanup, render, renderHook, screen, within } from '@testing-library/react';
import { readChart } from '@/core/chart';
import { unwrap } from '@/core/shared';
import { TypesetChart } from './TypesetChart';
import { useAutosave } from './useAutosave';
import { libraryEntry } from './library';

afterEach(cleanup);

test('the typeset chart is also a table, bar by bar', () => {
  render(
    <TypesetChart
      chart={unwrap(readChart('title: T\n[A]\n| Bb7 | % | Em7b5 A7 | N.C. |\n[B]\n| C |'))}
      wrongBar={null}
    />,
  );
  const rows = within(screen.getByRole('table')).getAllByRole('row');
  expect(rows.map((row) => row.textContent)).toEqual([
    'Bar 1B♭7',
    'Bar 2B♭7',
    'Bar 3Em7♭5, A7',
    'Bar 4no chord',
    'Bar 5C',
  ]);
});

test('a section begins a row of its own, a repeated bar is a sign, a wrong bar is framed', () => {
  const { container } = render(
    <TypesetChart chart={unwrap(readChart('[A]\n| C | % |\n[B]\n| F |'))} wrongBar={2} />,
  );
  expect([...container.querySelectorAll('text')].map((text) => text.textContent)).toEqual([
    'A',
    '1',
    'C',
    '2',
    'B',
    '3',
    'F',
  ]);
  expect(container.querySelectorAll('path')).toHaveLength(1);
  expect(container.querySelectorAll('rect[stroke="var(--now)"]')).toHaveLength(1);
});

test('repeats, endings, a meter that changes and a section’s own key stand on the page', () => {
  const { container } = render(
    <TypesetChart
      chart={unwrap(readChart('key: C\n[A]\n|: C | G |1. F :|2. C |\n[B]\nkey: Ab\nmeter: 3/4\n| Ab |'))}
      wrongBar={null}
      soundingBar={2}
    />,
  );
  const texts = [...container.querySelectorAll('text')].map((text) => text.textContent);
  expect(texts.slice(0, 1)).toEqual(['A']);
  expect(texts).toEqual(expect.arrayContaining(['1.', '2.', 'B   A♭', '3', '4']));
  expect(container.querySelectorAll('circle')).toHaveLength(4); // two dots where it opens, two where it closes
  expect(screen.getByRole('img').getAttribute('aria-label')).toBe('Chart, 5 bars written, 7 played');
});

test('a library line tells bars and key, or that the chart is still being written', () => {
  expect(libraryEntry({ id: 'x', title: 'T', text: 'key: Fm\n| Fm7 | C7 |' }).summary).toBe(
    '2 bars in F minor',
  );
  expect(libraryEntry({ id: 'x', title: 'T', text: '| Q |' }).summary).toBe('still being written');
});

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

test('autosave waits for a pause and sends the last text once', async () => {
  const save = jest.fn(async (_: string) => undefined);
  const { result } = renderHook(() => useAutosave(save));
  act(() => {
    result.current.changed('a');
    result.current.changed('ab');
  });
  expect(result.current.state.state).toBe('waiting');
  await act(async () => {
    await jest.advanceTimersByTimeAsync(600);
  });
  expect(save.mock.calls).toEqual([['ab']]);
  expect(result.current.state.state).toBe('saved');
});

test('what could not be saved is said, and sent with the next change', async () => {
  const save = jest
    .fn<(text: string) => Promise<void>>()
    .mockRejectedValueOnce(new TypeError('down'))
    .mockResolvedValue(undefined);
  const { result } = renderHook(() => useAutosave(save));
  act(() => result.current.changed('a'));
  await act(async () => {
    await jest.advanceTimersByTimeAsync(600);
  });
  expect(result.current.state).toMatchObject({
    state: 'failed',
    why: expect.stringContaining('does not answer') as unknown,
  });
  act(() => result.current.changed('b'));
  await act(async () => {
    await jest.advanceTimersByTimeAsync(600);
  });
  expect([save.mock.calls.length, result.current.state.state]).toEqual([2, 'saved']);
});

test('leaving the page sends what waits', async () => {
  const save = jest.fn(async (_: string) => undefined);
  const { result, unmount } = renderHook(() => useAutosave(save));
  act(() => result.current.changed('last words'));
  unmount();
  await jest.advanceTimersByTimeAsync(0);
  expect(save.mock.calls).toEqual([['last words']]);
});
