import { isLateHandover } from '../../analyse';
import { defineKind } from '../measure';
import { times } from '../../music';

/** Between chords and line: the new kind comes in late, or the music stops for two beats. */
export const handoverLate = defineKind<Record<string, never>>({
  id: 'handover-late',
  name: 'handovers late',
  drill: 'chords-and-line',
  detect: ({ report: { handovers } }) => {
    const late = handovers.filter(isLateHandover);
    return [
      {
        where: { bars: late.map(({ bar }) => bar) },
        met: handovers.length - late.length,
        of: handovers.length,
        limit: 0.7,
        worth: 0.8,
        facts: {},
      },
    ];
  },
  say: ({ missed, of }) => ({
    title: 'Between chords and line',
    sentence: `Between chords and line you ${missed === 0 ? 'never came in late' : `came in late ${times(missed)}`} in ${of}.`,
    advice: 'Leave the last beat of the bar free to get ready.',
  }),
  example: {},
});
