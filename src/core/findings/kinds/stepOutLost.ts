import { elementAt } from '../../shared';
import { barAt } from '../bars';
import { defineKind } from '../measure';
import { share } from '../words';

/** Steps outside that do not come home. */
export const stepOutLost = defineKind<Record<string, never>>({
  id: 'step-out-lost',
  name: 'no way home',
  hides: ['approach-unresolved', 'clash'],
  drill: 'step-out-come-home',
  detect: (context) => {
    const { stepOuts, notes } = context.report;
    const lost = stepOuts.filter(({ homeIndex }) => homeIndex === null);
    return [
      {
        where: {
          bars: lost.map(({ noteIndices }) =>
            barAt(context, elementAt(notes, elementAt(noteIndices, 0)).onsetBeat),
          ),
        },
        met: stepOuts.length - lost.length,
        of: stepOuts.length,
        limit: 0.65,
        worth: 0.9,
        facts: {},
      },
    ];
  },
  say: ({ missed, of }) => ({
    title: 'The way home',
    sentence: `You did not come home to a chord tone after ${share(missed, of, 'step outside', 'steps outside')}.`,
    advice: 'Choose the note to come home to before you leave.',
  }),
  example: {},
});
