import { barAt } from '../bars';
import { defineKind } from '../measure';
import { share } from '../words';

/** Chord hits that are neither the chart's chord nor a substitute for it (T12.5). */
export const chordHitWrong = defineKind<Record<string, never>>({
  id: 'chord-hit-wrong',
  name: 'chord hits off',
  drill: 'chords-and-line',
  detect: (context) => {
    const hits = context.report.events.filter(({ fit }) => fit !== undefined);
    const wrong = hits.filter(({ fit }) => fit === 'wrong');
    return [
      {
        where: { bars: wrong.map(({ onsetBeat }) => barAt(context, onsetBeat)) },
        met: hits.length - wrong.length,
        of: hits.length,
        limit: 0.7,
        worth: 0.8,
        facts: {},
      },
    ];
  },
  say: ({ missed, of, inBars }) => ({
    title: 'Hits that match',
    sentence: `You hit another chord than the chart’s in ${share(missed, of, 'hit')}${missed > 0 ? inBars : ''}.`,
    advice: 'Hit only the third and the seventh of each chord.',
  }),
  example: {},
});
