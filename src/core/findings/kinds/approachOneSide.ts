import { defineKind } from '../measure';
import { share } from '../words';

type Facts = { readonly side: 'below' | 'above' };

/** Approaches that come from one side only. */
export const approachOneSide = defineKind<Facts>({
  id: 'approach-one-side',
  name: 'approaches from one side',
  drill: 'third-from-above',
  detect: ({ report }) => {
    const all = report.figures.filter(({ kind }) => kind === 'approach-below' || kind === 'approach-above');
    const below = all.filter(({ kind }) => kind === 'approach-below').length;
    return [
      {
        where: { bars: [] },
        met: Math.min(below, all.length - below),
        of: all.length,
        limit: 0.2,
        worth: 0.25,
        facts: { side: below * 2 >= all.length ? 'below' : 'above' },
      },
    ];
  },
  say: ({ missed, of, facts: { side } }) => {
    const other = side === 'below' ? 'above' : 'below';
    return {
      title: `Approaches from ${other} too`,
      sentence: `${capital(share(missed, of, 'approach', 'approaches'))} came from ${side}.`,
      advice: `Lead into the next target from ${other}.`,
    };
  },
  example: { side: 'below' },
});

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
