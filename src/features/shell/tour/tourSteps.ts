import { ask } from '@/audio/persistence/serverTakes';
import { commandNow } from '../commands/registry';
import type { CommandId } from '../commands/catalogue';
import { advanceTour, endTour, tourNow, type StepId } from './tourState';

export type TourStep = {
  /** Addresses on which it is shown. */
  readonly on: RegExp;
  /** What it points at. */
  readonly target: string;
  readonly side?: 'left' | 'bottom';
  readonly title: string;
  readonly words: string;
  readonly next: string;
  /** What *next* does before the step after it; false where there is nothing to go on with. */
  readonly go?: (navigate: (path: string) => void) => void | false;
  /** Done as the step is shown. */
  readonly enter?: () => void;
  /** The other answer, in place of ending the round. */
  readonly other?: { readonly words: string; readonly run: () => void };
};

const CHART = /^\/charts\/([\w-]+)$/;

function run(id: CommandId): void | false {
  const command = commandNow(id);
  if (!command) return false;
  command.run();
}

const clickOn = (target: string): void => document.querySelector<HTMLElement>(target)?.click();

function removeTake(): void {
  const takeId = tourNow()?.takeId;
  endTour();
  if (takeId) void ask(`/api/takes/${takeId}`, { method: 'DELETE' }).catch(() => undefined);
}

/** The round of a first visit on the screens themselves: choose, hear, let play, read, drill. */
export const TOUR: Readonly<Record<StepId, TourStep>> = {
  form: {
    on: /^\/charts$/,
    target: '[data-tour="form"]',
    title: 'Choose a form',
    words: 'A chart is the chords of a tune, bar by bar. This one is a blues. The list beside it has others.',
    next: 'Hear it',
  },
  band: {
    on: /^\/charts$/,
    target: '[data-tour="form"]',
    title: 'Hear the band',
    words: 'This is what you will play over: drums, bass and chords. The bar that sounds is lit.',
    next: 'Play over it',
    enter: () => run('library.hear'),
    go: () => run('library.start'),
  },
  'stand-in': {
    on: /^\/record$/,
    target: '[data-tour="stand-in"]',
    title: 'Let the stand-in play',
    words:
      'No guitar yet: a beginner stands in and plays two choruses. The solo is heard as yours will be, note by note.',
    next: 'Let it play',
    go: () => clickOn('[data-tour="stand-in"]'),
  },
  review: {
    on: /^\/takes\/[\w-]+$/,
    target: '[aria-label="Findings"]',
    side: 'left',
    title: 'Read what it says',
    words:
      'Every note was held against its chord. On the right stands what to practise first, with the bars to hear.',
    next: 'Drill it',
    go: () => run('review.drill'),
  },
  drill: {
    on: /^\/drills\/[\w-]+$/,
    target: 'main h1',
    side: 'bottom',
    title: 'Drill it',
    words:
      'A few bars, one rule, a slow tempo, and a line that passes it. Each pass moves you up the tempos.',
    next: 'Understood',
  },
  end: {
    on: /^\/(?:drills|takes)\/[\w-]+$/,
    target: 'main h1',
    side: 'bottom',
    title: 'That is all of it',
    words: 'Play, read one thing, drill it. Today brings it back when it is due. Keep the stand-in’s take?',
    next: 'Keep it',
    other: { words: 'Remove it', run: removeTake },
  },
};

/** The address that a step needs, where the screen before it leads elsewhere. */
export function detour(step: StepId, path: string): string | null {
  const chart = CHART.exec(path)?.[1];
  return step === 'stand-in' && chart !== undefined ? `/record?chart=${chart}` : null;
}

/** On from a step by its button, key or pedal. */
export function nextStep(step: StepId, navigate: (path: string) => void): void {
  const isStuck = TOUR[step].go?.(navigate) === false;
  advanceTour();
  // nothing to drill: the round ends with its last question
  if (isStuck && step === 'review') advanceTour();
}
