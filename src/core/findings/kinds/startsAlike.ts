import { defineKind } from '../measure';
import { mostCommon } from '../mostCommon';
import { share } from '../words';
import { startInBar } from './phraseStarts';
import { withoutThemes } from './themes';

/** Phrases that start in one place of the bar. */
export const startsAlike = defineKind<Record<string, never>>({
  id: 'starts-alike',
  name: 'starts alike',
  drill: 'start-on-three',
  detect: (context) => {
    const phrases = withoutThemes(context.report);
    const common = mostCommon(
      phrases.map(({ startBeat }) => Math.round(startInBar(context, startBeat) * 2) / 2),
    );
    if (!common) return [];
    return [
      {
        where: { bars: [] },
        met: phrases.length - common.count,
        of: phrases.length,
        limit: 0.5,
        worth: 0.5,
        facts: {},
      },
    ];
  },
  say: ({ missed, of }) => ({
    title: 'Other places to start',
    sentence: `You started ${share(missed, of, 'phrase')} in the same place of the bar.`,
    advice: 'Start each phrase on another beat.',
  }),
  example: {},
});
