import { elementAt } from '../../shared';
import { barAt } from '../bars';
import { defineStrength } from '../strength';

type Facts = { readonly phrases: number; readonly bars: number };

const [LEAST_REST, MOST_REST] = [0.15, 0.5];
const ENOUGH_PHRASES = 4;

/** Phrases with room between them. */
export const leftSpace = defineStrength<Facts>({
  id: 'left-space',
  detect: (context) => {
    const { phrases, summary } = context.report;
    const all = summary.choruses * context.timeline.formBeats;
    const played = phrases.reduce((sum, { startBeat, endBeat }) => sum + endBeat - startBeat, 0);
    const rest = 1 - played / all;
    if (phrases.length < ENOUGH_PHRASES || rest < LEAST_REST || rest > MOST_REST) return null;
    return {
      bar: barAt(context, elementAt(phrases, 1).startBeat),
      score: 0.45,
      facts: { phrases: phrases.length, bars: summary.choruses * context.timeline.bars.length },
    };
  },
  say: ({ phrases, bars }) =>
    `You left room to breathe: ${phrases} phrases in ${bars} bars, with rests between.`,
  examples: [
    { phrases: 11, bars: 24 },
    { phrases: 4, bars: 12 },
    { phrases: 40, bars: 96 },
  ],
});
