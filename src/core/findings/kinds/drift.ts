import { listed } from '../words';
import type { Counted, FindingContext } from '../finding';
import { ENOUGH_ONSETS, onsetsOf } from './timing';

/** How far each chorus lay behind the beat, in ms; negative: ahead. */
export type DriftFacts = { readonly leans: readonly number[] };

/** Less than this over a whole take is nobody's rushing. */
const LEAST_MS = 30;
const MOST_NAMED = 4;

/** A lean that grows within a take or from chorus to chorus (T1.7). */
export function drifting(context: FindingContext, way: 1 | -1): Counted<DriftFacts>[] {
  const { drift, byChorus } = context.report.time;
  const onsets = onsetsOf(context).length;
  if (drift === null || onsets < ENOUGH_ONSETS || Math.sign(drift.ms) !== way) return [];
  return [
    {
      where: { bars: [] },
      met: drift.steady,
      of: drift.of,
      limit: 0.9,
      worth: 0.9,
      raised: drift.isSure && Math.abs(drift.ms) >= LEAST_MS,
      facts: { leans: byChorus.flatMap(({ leanMs }) => (leanMs === null ? [] : [Math.round(leanMs)])) },
    },
  ];
}

/** `: 14, 36, then 58 ms ahead`, chorus by chorus; nothing of a single chorus. */
export function leansInWords({ leans }: DriftFacts, side: 'ahead' | 'behind'): string {
  const shown = leans.map((lean) => (side === 'ahead' ? -lean : lean)).filter((lean) => lean > 0);
  if (leans.length < 2 || shown.length < leans.length || leans.length > MOST_NAMED) return '';
  return `: ${listed(shown.map(String), 'then')} ms ${side}`;
}
