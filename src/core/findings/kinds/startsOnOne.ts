import { barAt } from '../bars';
import { defineKind } from '../measure';
import { share } from '../words';
import { NEAR_ONE, startInBar } from './phraseStarts';

/** Phrases that start on the one. */
export const startsOnOne = defineKind<Record<string, never>>({
  id: 'starts-on-one',
  name: 'starts on one',
  hides: ['starts-alike'],
  drill: 'start-on-two',
  detect: (context) => {
    const { phrases } = context.report;
    const on = phrases.filter(({ startBeat }) => startInBar(context, startBeat) <= NEAR_ONE);
    return [
      {
        where: { bars: on.map(({ startBeat }) => barAt(context, startBeat)) },
        met: phrases.length - on.length,
        of: phrases.length,
        limit: 0.5,
        worth: 0.5,
        facts: {},
      },
    ];
  },
  say: ({ missed, of }) => ({
    title: 'Other places to start',
    sentence: `You started ${share(missed, of, 'phrase')} on beat one.`,
    advice: 'Start on two, then on three.',
  }),
  example: {},
});
