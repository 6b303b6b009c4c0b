/** @jest-environment jsdom */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, render } from '@testing-library/react';
import { useWakeLock } from './useWakeLock';

function Awake({ isWanted }: { isWanted: boolean }) {
  useWakeLock(isWanted);
  return null;
}
const calls: string[] = [];
const visible = (state: 'visible' | 'hidden') => {
  Object.defineProperty(document, 'visibilityState', { configurable: true, value: state });
  document.dispatchEvent(new Event('visibilitychange'));
};
const wakeLock = (request: () => Promise<unknown>) =>
  Object.defineProperty(navigator, 'wakeLock', { configurable: true, value: { request } });
const settled = () => new Promise((resolve) => setTimeout(resolve));

afterEach(() => {
  cleanup();
  calls.length = 0;
});

test('the screen stays on while it is wanted, is asked for again when the page is back, and let go of at the end', async () => {
  wakeLock(() => {
    calls.push('ask');
    return Promise.resolve({ release: () => Promise.resolve(calls.push('let go')) });
  });
  const { rerender } = render(<Awake isWanted={false} />);
  await settled();
  expect(calls).toEqual([]);
  rerender(<Awake isWanted />);
  await settled();
  visible('hidden');
  visible('visible');
  await settled();
  expect(calls).toEqual(['ask', 'ask']);
  rerender(<Awake isWanted={false} />);
  await settled();
  expect(calls).toEqual(['ask', 'ask', 'let go']);
});

test('a refusal is no trouble, and one that comes too late is given back', async () => {
  wakeLock(() => Promise.reject(new Error('low battery')));
  render(<Awake isWanted />);
  await settled();
  cleanup();
  let give: (lock: unknown) => void = () => undefined;
  wakeLock(() => new Promise((resolve) => (give = resolve)));
  render(<Awake isWanted />);
  cleanup();
  give({ release: () => Promise.resolve(calls.push('let go')) });
  await settled();
  expect(calls).toEqual(['let go']);
});
