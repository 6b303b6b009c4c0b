import { createStore } from '@/core/shared';

/** A short notice at the foot of the screen, with at most one thing to do about it. */
export type Toast = {
  readonly id: number;
  readonly words: string;
  readonly action?: { readonly label: string; readonly run: () => void };
};

const MOST = 3;
export const toasts = createStore<readonly Toast[]>([]);
let made = 0;

export function notify(words: string, action?: Toast['action']): void {
  const toast: Toast = { id: ++made, words, ...(action ? { action } : {}) };
  toasts.set([...toasts.get(), toast].slice(-MOST));
}

export const dismiss = (id: number): void => toasts.set(toasts.get().filter((toast) => toast.id !== id));
