import { isLateHandover } from '../../analyse';
import { startOfBar } from './context';
import type { RuleKind } from './ruleKind';

/** Bars of chord hits and bars of line in turn, chords first unless the line is. */
export type TradeRule = { readonly kind: 'trade'; readonly bars: number; readonly first?: 'line' };

const KINDS = ['chords', 'line'] as const;
const COUNTS: Readonly<Record<number, string>> = { 1: 'A bar', 2: 'Two bars', 4: 'Four bars' };

export const TRADE: RuleKind<TradeRule> = {
  id: 'trade',
  judge: ({ bars, first }, { report, timeline }) => {
    // a bar that is taken over late is not the bar it should be
    const late = new Set(report.handovers.filter(isLateHandover).map(({ bar }) => bar));
    return report.bars
      .filter(({ kind }) => kind !== 'rest')
      .map(({ bar, kind }) => ({
        beat: startOfBar(timeline, bar - 1),
        met: kind === KINDS[(Math.floor((bar - 1) / bars) + (first ? 1 : 0)) % 2] && !late.has(bar),
      }));
  },
  counted: () => 'bars',
  words: ({ bars, first }) => {
    const count = COUNTS[bars] ?? `${bars} bars`;
    const [one, other] = first ? ['line', 'chords'] : ['chords', 'line'];
    return `${count} of ${one}, ${count.toLowerCase()} of ${other}, in turn.`;
  },
  example: ({ bars, first }, recipe) => ({
    ...recipe,
    written: { kind: 'trade', bars, ...(first && { first }) },
  }),
};
