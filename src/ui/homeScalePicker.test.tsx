/** @jest-environment jsdom */
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { HomeScalePicker } from './HomeScalePicker';

afterEach(cleanup);

test('a scale is considered before it is chosen: under the pointer, under the keyboard, readable in the field', async () => {
  Object.assign(globalThis, {
    ResizeObserver: class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  });
  const [considered, chosen] = [jest.fn(), jest.fn()];
  render(<HomeScalePicker value={undefined} fallback="C major" onConsider={considered} onChange={chosen} />);
  fireEvent.click(screen.getByRole('button', { name: 'Home scale' }));
  fireEvent.pointerEnter(await screen.findByRole('button', { name: /^dorian/ }));
  expect(considered).toHaveBeenLastCalledWith('C dorian');
  fireEvent.focus(screen.getByRole('button', { name: 'G' }));
  expect(considered).toHaveBeenLastCalledWith('G major');
  const field = screen.getByLabelText('Scale by name or degrees');
  fireEvent.change(field, { target: { value: 'Eb lyd' } });
  expect(considered).toHaveBeenLastCalledWith('G major');
  fireEvent.change(field, { target: { value: 'Eb lydian' } });
  expect(considered).toHaveBeenLastCalledWith('Eb lydian');
  expect(chosen).not.toHaveBeenCalled();
  fireEvent.keyDown(field, { key: 'Enter' });
  expect(chosen).toHaveBeenCalledWith('Eb lydian');
});
