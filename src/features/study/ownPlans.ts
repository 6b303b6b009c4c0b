'use client';
import { useSyncExternalStore } from 'react';
import { isPlanWords, type PlanWords } from '@/core/plan';
import { createStore } from '@/core/shared';

const NAME = 'idle-wander-plans';
const MOST = 20;
const NONE: readonly PlanWords[] = [];

/** Plans out of whatever the browser kept; what cannot be read is left out. */
export function readOwnPlans(text: string | null): readonly PlanWords[] {
  try {
    const kept: unknown = JSON.parse(text ?? '[]');
    return Array.isArray(kept) ? kept.filter(isPlanWords).slice(-MOST) : NONE;
  } catch {
    return NONE;
  }
}

/** What the browser kept; nothing on the server, and where the browser keeps nothing for pages. */
function kept(): readonly PlanWords[] {
  if (typeof window === 'undefined') return NONE;
  try {
    return readOwnPlans(window.localStorage.getItem(NAME));
  } catch {
    return NONE;
  }
}

const store = createStore(kept());

/** Plans the player made and kept in this browser, the newest last. */
export const useOwnPlans = (): readonly PlanWords[] =>
  useSyncExternalStore(store.subscribe, store.get, () => NONE);

export function keepOwnPlans(plans: readonly PlanWords[]): void {
  const last = plans.slice(-MOST);
  store.set(last);
  try {
    window.localStorage.setItem(NAME, JSON.stringify(last));
  } catch {
    // a browser that keeps nothing: they hold until the page is left
  }
}
