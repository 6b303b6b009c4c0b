import { defineKind } from '../measure';
import { share } from '../words';

/** Phrases that stop before the next chord. */
export const neverCrosses = defineKind<Record<string, never>>({
  id: 'never-crosses-changes',
  name: 'phrases within one chord',
  hides: ['no-approaches'],
  drill: 'through-the-change',
  // over one chord there is nothing to cross
  detect: ({ report: { phrases, changes } }) => [
    {
      where: { bars: [] },
      met: phrases.filter(({ changesCrossed }) => changesCrossed > 0).length,
      of: changes.length === 0 ? 0 : phrases.length,
      limit: 0.3,
      worth: 0.4,
      facts: {},
    },
  ],
  say: ({ missed, of }) => ({
    title: 'Across the change',
    sentence: `You ended ${share(missed, of, 'phrase')} before the chord changed.`,
    advice: 'Start before the change and end after it.',
  }),
  example: {},
});
