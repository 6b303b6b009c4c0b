import { elementAt } from '../../shared';
import { barAt } from '../bars';
import { defineKind } from '../measure';
import { share } from '../words';

const MOSTLY = 0.6;

/** Phrases that end on a note that wants to go on. */
export const endsAsking = defineKind<Record<string, never>>({
  id: 'ends-asking',
  name: 'ends asking',
  drill: 'end-at-rest',
  detect: (context) => {
    const { notes, phrases } = context.report;
    const asking = phrases.filter(({ end }) => end === 'asks');
    const lastOf = (indices: readonly number[]) =>
      elementAt(notes, elementAt(indices, indices.length - 1)).onsetBeat;
    return [
      {
        where: { bars: asking.map(({ noteIndices }) => barAt(context, lastOf(noteIndices))) },
        met: phrases.length - asking.length,
        of: phrases.length,
        limit: 0.55,
        worth: 0.45,
        ...(asking.length < MOSTLY * phrases.length ? { raised: false } : {}),
        facts: {},
      },
    ];
  },
  say: ({ missed, of }) => ({
    title: 'Phrases that ask',
    praised: 'Phrases that come to rest',
    sentence: `You ended ${share(missed, of, 'phrase')} on a note that wants to go on.`,
    advice: 'End on the root, the third or the fifth.',
  }),
  example: {},
});
