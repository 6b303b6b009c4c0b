import { createStore } from '@/core/shared';

/** Where the round of a first visit is: its step from 0, and the take that the stand-in player played in it. */
export type TourState = { readonly step: number; readonly takeId: string | null };

export const STEPS = ['form', 'band', 'stand-in', 'review', 'drill', 'end'] as const;
export type StepId = (typeof STEPS)[number];

const KEY = 'idle-wander-tour';
const TAKE = /^\/takes\/([\w-]+)$/;

/** What this tab remembers of the round, through reloads; null where there is none or it makes no sense. */
export function readTour(text: string | null): TourState | null {
  try {
    const { step, takeId } = JSON.parse(text ?? 'null') as Partial<TourState>;
    const isStep = Number.isInteger(step) && Number(step) >= 0 && Number(step) < STEPS.length;
    return isStep ? { step: Number(step), takeId: typeof takeId === 'string' ? takeId : null } : null;
  } catch {
    return null;
  }
}

const stored = (): TourState | null => {
  try {
    return readTour(sessionStorage.getItem(KEY));
  } catch {
    return null;
  }
};

const tour = createStore<TourState | null>(typeof window === 'undefined' ? null : stored());
export const tourNow = tour.get;
export const onTourChanged = tour.subscribe;

function become(next: TourState | null): void {
  tour.set(next);
  try {
    if (next) sessionStorage.setItem(KEY, JSON.stringify(next));
    else sessionStorage.removeItem(KEY);
  } catch {
    // a tab that may store nothing still shows the round, until it is reloaded
  }
}

export const startTour = (): void => become({ step: 0, takeId: null });
export const endTour = (): void => become(null);

/** On to the next step; past the last one the round is over. */
export function advanceTour(): void {
  const now = tour.get();
  if (now) become(now.step + 1 < STEPS.length ? { ...now, step: now.step + 1 } : null);
}

/** Remembers the take whose review is shown in the round. */
export function noteTake(path: string): void {
  const now = tour.get();
  const takeId = TAKE.exec(path)?.[1];
  if (now && takeId !== undefined && now.takeId === null) become({ ...now, takeId });
}
