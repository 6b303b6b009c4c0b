import type { Counted, FindingContext } from '../finding';
import { deviations, ENOUGH_ONSETS } from './timing';

/** How far the take lay behind the beat, in ms; negative: ahead. */
export type LeanFacts = { readonly leanMs: number };

/** An even lean under this is a feel (T1.7). */
const LEAST_MS = 60;
const CLOSE_MS = 30;

/** An even lean of 60 ms or more, where the latency was measured. */
export function leaning(context: FindingContext, way: 1 | -1): Counted<LeanFacts>[] {
  const { lean } = context.report.time;
  const all = deviations(context);
  if (lean.ms === null || all.length < ENOUGH_ONSETS || Math.sign(lean.ms) !== way) return [];
  const taken = lean.takenMs;
  const met = all.filter((off) => Math.abs(off + taken) < CLOSE_MS).length;
  return [
    {
      where: { bars: [] },
      met,
      of: all.length,
      limit: 0.6,
      worth: 0.7,
      raised: lean.isMeasured && lean.isDecided && Math.abs(lean.ms) >= LEAST_MS,
      facts: { leanMs: lean.ms },
    },
  ];
}
