import { beatsToSeconds, median } from '../../shared';
import { share } from '../words';
import { defineKind } from '../measure';
import { deviations, ENOUGH_ONSETS } from './timing';

/** A note this far from its place is heard early or late. */
const OFF_MS = 25;
/**
 * From this spread on, in ms and in beats, time is uneven: both must be passed. Practised players stand some
 * 20 ms from even time, more where beats are long, and ears may scatter what was even. Rule T11.1.
 */
const [UNEVEN_MS, UNEVEN_BEATS] = [26, 0.048];

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
    const limit = Math.max(UNEVEN_MS, beatsToSeconds(UNEVEN_BEATS, context.tempo) * 1000);
    return [
      {
        where: { bars: [] },
        met: all.filter((off) => Math.abs(off - middle) < OFF_MS).length,
        of: all.length,
        limit: 0.8,
        worth: 0.5,
        ...(spreadMs < limit ? { raised: false } : {}),
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
