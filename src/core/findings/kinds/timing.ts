import { beatsToSeconds, type Beats } from '../../shared';
import type { FindingContext } from '../finding';

/** Fewer onsets show no time feel. */
export const ENOUGH_ONSETS = 24;

/** Onsets of the take, where its lean has been taken out. */
export const onsetsOf = ({ report }: FindingContext): Beats[] =>
  report.events.map(({ onsetBeat }) => onsetBeat);

/** Milliseconds early or late of the nearest place of the beat; the second eighth where the take's swing puts it. */
export function deviations(context: FindingContext): number[] {
  const { swing } = context.report.time;
  const second = swing === null ? 0.5 : swing / (1 + swing);
  return onsetsOf(context).map((onset) => {
    const inBeat = onset - Math.floor(onset);
    const off = [0, second, 1]
      .map((line) => inBeat - line)
      .reduce((best, one) => (Math.abs(one) < Math.abs(best) ? one : best));
    return beatsToSeconds(off, context.tempoAt(onset)) * 1000;
  });
}
