import type { Report } from '../../analyse';
import type { Timeline } from '../../chart';
import { elementAt } from '../../shared';
import { NEAR, overBars } from './context';
import type { RuleKind } from './ruleKind';

/** In each bar: onsets no more than so many milliseconds from the grid, in the middle. */
export type TimeRule = { readonly kind: 'time'; readonly withinMs: number };

/** An even lean up to this is a feel (T1.7). */
const FEEL_MS = 30;

/**
 * How far the middle onset of some notes lies from the beat or its half, swung as the take is, in
 * milliseconds; null without any near one.
 */
function inTime({ notes, time }: Report, { tempo }: Timeline, indices: readonly number[]): number | null {
  // a lean within the feel is nobody's lateness; a larger one is what this drill is about
  const lean = Math.abs(time.lean.takenMs) > FEEL_MS ? time.lean.takenMs : 0;
  const second = time.swing === null ? 0.5 : time.swing / (1 + time.swing);
  const away = indices
    .flatMap((index) => {
      const inBeat = elementAt(notes, index).onsetBeat - Math.floor(elementAt(notes, index).onsetBeat);
      const nearest = [0, second, 1]
        .map((line) => inBeat - line)
        .reduce((best, one) => (Math.abs(one) < Math.abs(best) ? one : best));
      return Math.abs(nearest) <= NEAR ? [Math.abs((nearest * 60_000) / tempo + lean)] : [];
    })
    .sort((a, b) => a - b);
  return away.length === 0 ? null : elementAt(away, away.length >> 1);
}

export const TIME: RuleKind<TimeRule> = {
  id: 'time',
  judge: ({ withinMs }, { report, timeline }) =>
    overBars(report, timeline, (indices) => (inTime(report, timeline, indices) ?? Infinity) <= withinMs),
  counted: () => 'bars',
  words: ({ withinMs }) => `In every bar the middle of your onsets within ${withinMs} ms of the beat.`,
};
