import { defineKind } from '../measure';
import { mostCommon } from '../mostCommon';
import { share } from '../words';
import { withoutThemes } from './themes';

/** One shape in phrase after phrase, not fitted to the chords. */
export const sameShape = defineKind<Record<string, never>>({
  id: 'same-shape',
  name: 'one shape',
  drill: 'no-two-alike',
  detect: ({ report }) => {
    const phrases = withoutThemes(report);
    const common = mostCommon(phrases.flatMap(({ motif }) => motif ?? []));
    if (!common) return [];
    return [
      {
        where: { bars: [] },
        met: phrases.length - common.count,
        of: phrases.length,
        limit: 0.5,
        worth: 1.2,
        facts: {},
      },
    ];
  },
  say: ({ missed, of }) => ({
    title: 'Another shape',
    praised: 'More than one shape',
    sentence: `You gave ${share(missed, of, 'phrase')} the same shape.`,
    advice: 'Keep the rhythm and change the notes.',
  }),
  example: {},
});
