import { defineKind } from '../measure';
import { drifting, leansInWords, type DriftFacts } from './drift';

/** The take gets faster. */
export const rushes = defineKind<DriftFacts>({
  id: 'rushes',
  name: 'rushes',
  contradicts: ['drags'],
  drill: 'in-time',
  detect: (context) => drifting(context, -1),
  say: ({ facts }) => ({
    title: 'Sitting back',
    praised: 'Keeping the tempo',
    sentence: `You got faster and faster${leansInWords(facts, 'ahead')}.`,
    advice: 'Put the click on two and four and wait for it.',
  }),
  example: { leans: [-14, -36, -58] },
});
