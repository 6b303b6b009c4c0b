import { defineKind } from '../measure';
import { share } from '../words';

const ENOUGH_MOVES = 24;

/** Leaps and hardly a step. */
export const leapsOnly = defineKind<Record<string, never>>({
  id: 'leaps-only',
  name: 'leaps only',
  hides: ['leaps-into-changes'],
  drill: 'nearest-note',
  detect: ({ report: { line } }) => {
    const of = line.steps + line.skips + line.leaps;
    if (of < ENOUGH_MOVES) return [];
    return [{ where: { bars: [] }, met: of - line.leaps, of, limit: 0.5, worth: 0.9, facts: {} }];
  },
  say: ({ missed, of }) => ({
    title: 'Steps between the leaps',
    sentence: `You leapt a fourth or more in ${share(missed, of, 'move')}.`,
    advice: 'Play two steps after every leap.',
  }),
  example: {},
});
