import { median } from '../../shared';
import { share } from '../words';
import { defineKind } from '../measure';
import { deviations, ENOUGH_ONSETS } from './timing';

const UNEVEN_MS = 25;

/** Onsets scattered round their places. */
export const uneven = defineKind<Record<string, never>>({
  id: 'uneven',
  name: 'uneven time',
  drill: 'in-time',
  detect: (context) => {
    const { spreadMs } = context.report.time;
    const all = deviations(context);
    if (spreadMs === null || all.length < ENOUGH_ONSETS) return [];
    const middle = median(all) ?? 0;
    return [
      {
        where: { bars: [] },
        met: all.filter((off) => Math.abs(off - middle) < UNEVEN_MS).length,
        of: all.length,
        limit: 0.8,
        worth: 0.5,
        ...(spreadMs < UNEVEN_MS ? { raised: false } : {}),
        facts: {},
      },
    ];
  },
  say: ({ missed, of }) => ({
    title: 'Even time',
    sentence: `Your time was uneven: ${share(missed, of, 'note')} came early or late.`,
    advice: 'Play even eighths with a click.',
  }),
  example: {},
});
