import { restingOnLandings } from '../evidence';
import { throughBar } from '../bars';
import { defineKind } from '../measure';
import { share } from '../words';
import { landedOn } from './landed';

/** The first note over a chord comes after its change. */
export const landingLate = defineKind<Record<string, never>>({
  id: 'landing-late',
  name: 'landings late',
  hides: ['no-approaches'],
  drill: 'one-target',
  detect: (context) => {
    const all = landedOn(context);
    const late = all.filter(({ landing }) => landing.timing === 'late');
    return [
      {
        where: { bars: late.map((change) => throughBar(context, change)) },
        met: all.length - late.length,
        of: all.length,
        rests: restingOnLandings(all, late),
        limit: 0.6,
        worth: 0.75,
        facts: {},
      },
    ];
  },
  say: ({ missed, of }) => ({
    title: 'On time at the change',
    sentence: `At ${share(missed, of, 'change')} your first note came after the chord.`,
    advice: 'Choose the next note before the bar line comes.',
  }),
  example: {},
});
