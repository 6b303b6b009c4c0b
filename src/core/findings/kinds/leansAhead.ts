import { defineKind } from '../measure';
import { leaning, type LeanFacts } from './lean';

/** Evenly far ahead of the beat. */
export const leansAhead = defineKind<LeanFacts>({
  id: 'leans-ahead',
  name: 'far ahead of the beat',
  drill: 'in-time',
  detect: (context) => leaning(context, -1),
  say: ({ facts: { leanMs } }) => ({
    title: 'Closer to the beat',
    sentence: `You played ${Math.abs(Math.round(leanMs))} ms ahead of the beat, evenly.`,
    advice: 'Play with the click alone and wait for it.',
  }),
  example: { leanMs: -70 },
});
