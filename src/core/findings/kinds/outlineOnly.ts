import { defineKind } from '../measure';
import { share } from '../words';

/** Chord tones and nothing between them. */
export const outlineOnly = defineKind<Record<string, never>>({
  id: 'outline-only',
  name: 'chord tones only',
  hides: ['no-approaches', 'stays-on-ground'],
  drill: 'scale-runs',
  detect: ({ report, plan }) => {
    if (plan.id === 'outline' || plan.id === 'single-target') return [];
    const all = report.notes.filter((note) => note.function !== 'grace' && note.chord !== null);
    const other = all.filter(({ tier }) => tier !== 'chord');
    return [{ where: { bars: [] }, met: other.length, of: all.length, limit: 0.1, worth: 0.5, facts: {} }];
  },
  say: ({ missed, of }) => ({
    title: 'Between the chord tones',
    sentence: `You played chord tones only: ${share(missed, of, 'note')}, and nothing that joins them.`,
    advice: 'Join two chord tones by step.',
  }),
  example: {},
});
