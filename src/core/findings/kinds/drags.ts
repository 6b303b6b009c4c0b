import { defineKind } from '../measure';
import { drifting, leansInWords, type DriftFacts } from './drift';

/** The take gets slower. */
export const drags = defineKind<DriftFacts>({
  id: 'drags',
  name: 'drags',
  drill: 'in-time',
  detect: (context) => drifting(context, 1),
  say: ({ facts }) => ({
    title: 'Staying with the beat',
    praised: 'Keeping the tempo',
    sentence: `You fell behind more and more${leansInWords(facts, 'behind')}.`,
    advice: 'Put the click on two and four and stay with it.',
  }),
  example: { leans: [12, 30, 55] },
});
