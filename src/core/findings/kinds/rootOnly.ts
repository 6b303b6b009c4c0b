import { restingOnLandings } from '../evidence';
import { throughBar } from '../bars';
import { defineKind } from '../measure';
import { share } from '../words';
import { landedOn } from './landed';

/** Most landings are roots, where the plan offers more. */
export const rootOnly = defineKind<Record<string, never>>({
  id: 'root-only',
  name: 'roots only',
  hides: ['tone-missed', 'target-missed', 'targets-missed'],
  drill: 'ladder-thirds',
  detect: (context) => {
    if (context.plan.cells.every(({ targets }) => targets.length === 1)) return [];
    const all = landedOn(context);
    const roots = all.filter(({ landing }) => landing.interval === '1');
    return [
      {
        where: { bars: roots.map((change) => throughBar(context, change)) },
        met: all.length - roots.length,
        of: all.length,
        rests: restingOnLandings(all, roots),
        limit: 0.5,
        worth: 0.9,
        facts: {},
      },
    ];
  },
  say: ({ missed, of }) => ({
    title: 'Beyond the root',
    sentence: `You landed on the root at ${share(missed, of, 'change')}.`,
    advice: 'Land on the third or the seventh: they tell the chord.',
  }),
  example: {},
});
