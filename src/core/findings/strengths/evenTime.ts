import { barAt } from '../bars';
import { ENOUGH_ONSETS } from '../kinds/timing';
import { defineStrength } from '../strength';

type Facts = { readonly leanMs: number };

const EVEN_MS = 22;
/** A lean the ear begins to feel. */
const FELT_MS = 20;

/** The time is even; where it leans, how. */
export const evenTime = defineStrength<Facts>({
  id: 'even-time',
  detect: (context) => {
    const { spreadMs, lean } = context.report.time;
    const [first] = context.report.phrases;
    if (spreadMs === null || context.report.events.length < ENOUGH_ONSETS || spreadMs > EVEN_MS || !first)
      return null;
    return {
      bar: barAt(context, first.startBeat),
      score: 0.5 + 0.3 * (1 - spreadMs / EVEN_MS),
      facts: { leanMs: lean.isDecided ? (lean.ms ?? 0) : 0 },
    };
  },
  say: ({ leanMs }) => {
    if (Math.abs(leanMs) < FELT_MS) return 'Your time was even from the first note to the last.';
    const size = Math.abs(Math.round(leanMs));
    return leanMs > 0
      ? `You laid back ${size} ms, evenly.`
      : `You sat ${size} ms on top of the beat, evenly.`;
  },
  examples: [{ leanMs: 0 }, { leanMs: 45 }, { leanMs: -30 }],
});
