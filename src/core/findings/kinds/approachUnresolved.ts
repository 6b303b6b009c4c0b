import { share } from '../words';
import { defineKind } from '../measure';

const ENOUGH_NOTES = 12;

/** Notes of neither scale that lead nowhere; what a plan means to play outside is not held against it. */
export const approachUnresolved = defineKind<Record<string, never>>({
  id: 'approach-unresolved',
  name: 'approaches left open',
  drill: 'third-from-below',
  detect: ({ report, plan }) => {
    if (plan.id === 'step-out' || plan.id === 'free') return [];
    const all = report.notes.filter(
      (note) => note.top && note.height >= 3 && !note.inPlan && note.function !== 'grace',
    );
    if (all.length < ENOUGH_NOTES) return [];
    const met = all.filter(
      (note) =>
        note.flags.includes('resolved') || note.function === 'passing' || note.function === 'neighbour',
    );
    return [{ where: { bars: [] }, met: met.length, of: all.length, limit: 0.55, worth: 0.4, facts: {} }];
  },
  say: ({ missed, of }) => ({
    title: 'Where the half steps go',
    sentence: `You left ${share(missed, of, 'outside note')} without a step to a chord tone.`,
    advice: 'Move every outside note a half step into a chord tone.',
  }),
  example: {},
});
