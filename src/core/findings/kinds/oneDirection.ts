import { defineKind } from '../measure';
import { share } from '../words';

type Facts = { readonly way: 'up' | 'down' };

const ENOUGH_MOVES = 24;

/** A line that nearly always goes one way. */
export const oneDirection = defineKind<Facts>({
  id: 'one-direction',
  name: 'one direction',
  drill: 'arpeggio-up-scale-down',
  detect: ({ report: { line } }) => {
    const of = line.rising + line.falling;
    if (of < ENOUGH_MOVES) return [];
    return [
      {
        where: { bars: [] },
        met: Math.min(line.rising, line.falling),
        of,
        limit: 0.33,
        worth: 1,
        facts: { way: line.rising > line.falling ? 'up' : 'down' },
      },
    ];
  },
  say: ({ missed, of, facts: { way } }) => ({
    title: way === 'up' ? 'Coming down too' : 'Going up too',
    sentence: `Your line went ${way} in ${share(missed, of, 'move')}.`,
    advice: way === 'up' ? 'Answer every rise with a fall.' : 'Answer every fall with a rise.',
  }),
  example: { way: 'up' },
});
