import { fireEvent, screen } from '@testing-library/react';

// what jsdom leaves out and the lists of the application use
if (typeof window !== 'undefined') {
  Element.prototype.scrollIntoView ??= () => undefined;
  Element.prototype.hasPointerCapture ??= () => false;
  Element.prototype.releasePointerCapture ??= () => undefined;
  globalThis.ResizeObserver ??= class {
    observe(): void {}
    unobserve(): void {}
    disconnect(): void {}
  };
}

/** A list is loaded when it is opened for the first time, which takes its time on a busy machine; in ms. */
const PATIENT = { timeout: 20_000 };

/** Chooses an option of one of the application's lists by its words. */
export async function chooseOption(list: string, words: string | RegExp): Promise<void> {
  fireEvent.click(screen.getByRole('combobox', { name: list }));
  const option = await screen.findByRole('option', { name: words }, PATIENT);
  fireEvent.keyDown(option, { key: 'Enter' });
}
