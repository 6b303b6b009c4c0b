import { defineKind } from '../measure';
import { leaning, type LeanFacts } from './lean';

/** Evenly far behind the beat. */
export const leansBack = defineKind<LeanFacts>({
  id: 'leans-back',
  name: 'far behind the beat',
  contradicts: ['leans-ahead'],
  drill: 'in-time',
  detect: (context) => leaning(context, 1),
  say: ({ facts: { leanMs } }) => ({
    title: 'Closer to the beat',
    sentence: `You laid back ${Math.abs(Math.round(leanMs))} ms, evenly: more than a feel.`,
    advice: 'Play with the click alone and move up to it.',
  }),
  example: { leanMs: 75 },
});
