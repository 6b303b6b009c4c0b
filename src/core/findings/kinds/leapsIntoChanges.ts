import { restingOnLandings } from '../evidence';
import { throughBar } from '../bars';
import { defineKind } from '../measure';
import { share } from '../words';
import { landedOn } from './landed';

/** The line leaps into its landings. */
export const leapsIntoChanges = defineKind<Record<string, never>>({
  id: 'leaps-into-changes',
  name: 'leaps into changes',
  hides: ['no-approaches'],
  drill: 'nearest-note',
  detect: (context) => {
    const all = landedOn(context).filter(
      ({ connection }) => connection.kind !== null && connection.kind !== 'fresh',
    );
    const leaps = all.filter(({ connection }) => connection.kind === 'leap');
    return [
      {
        where: { bars: leaps.map((change) => throughBar(context, change)) },
        met: all.length - leaps.length,
        of: all.length,
        rests: restingOnLandings(all, leaps),
        limit: 0.5,
        worth: 0.5,
        facts: {},
      },
    ];
  },
  say: ({ missed, of }) => ({
    title: 'The nearest note',
    sentence: `You leapt into ${share(missed, of, 'change')}, though a target lay nearer.`,
    advice: 'Step to the target nearest your last note.',
  }),
  example: {},
});
