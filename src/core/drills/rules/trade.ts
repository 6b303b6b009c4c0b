import { isLateHandover } from '../../analyse';
import { startOfBar } from './context';
import type { RuleKind } from './ruleKind';

/**
 * Bars of chord hits and bars of line in turn, chords first unless the line is. `bars` of what comes first, `then` of
 * the other, as many where it is left out.
 */
export type TradeRule = {
  readonly kind: 'trade';
  readonly bars: number;
  readonly then?: number;
  readonly first?: 'line';
};

/** What is played in a bar (from 0) of such a turn. */
export function tradedIn(
  { bars, then = bars, first }: Omit<TradeRule, 'kind'>,
  bar: number,
): 'chords' | 'line' {
  const isFirst = bar % (bars + then) < bars;
  return isFirst === (first === 'line') ? 'line' : 'chords';
}

const COUNTS: Readonly<Record<number, string>> = {
  1: 'A bar',
  2: 'Two bars',
  3: 'Three bars',
  4: 'Four bars',
};

const countOf = (bars: number): string => COUNTS[bars] ?? `${bars} bars`;

export const TRADE: RuleKind<TradeRule> = {
  id: 'trade',
  judge: (rule, { report, timeline }) => {
    // a bar that is taken over late is not the bar it should be
    const late = new Set(report.handovers.filter(isLateHandover).map(({ bar }) => bar));
    return report.bars
      .filter(({ kind }) => kind !== 'rest')
      .map(({ bar, kind }) => ({
        beat: startOfBar(timeline, bar - 1),
        met: kind === tradedIn(rule, bar - 1) && !late.has(bar),
      }));
  },
  counted: () => 'bars',
  words: ({ bars, then = bars, first }) => {
    const [one, other] = first ? ['line', 'chords'] : ['chords', 'line'];
    return `${countOf(bars)} of ${one}, ${countOf(then).toLowerCase()} of ${other}, in turn.`;
  },
  example: (rule, recipe) => ({ ...recipe, written: rule }),
};
