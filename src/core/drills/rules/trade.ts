import { startOfBar } from './context';
import type { RuleKind } from './ruleKind';

/** Bars of chord hits and bars of line in turn, chords first. */
export type TradeRule = { readonly kind: 'trade'; readonly bars: number };

export const TRADE: RuleKind<TradeRule> = {
  id: 'trade',
  judge: ({ bars }, { report, timeline }) =>
    report.bars
      .filter(({ kind }) => kind !== 'rest')
      .map(({ bar, kind }) => ({
        beat: startOfBar(timeline, bar - 1),
        met: kind === (Math.floor((bar - 1) / bars) % 2 === 0 ? 'chords' : 'line'),
      })),
  counted: () => 'bars',
  words: ({ bars }) =>
    bars === 1
      ? 'A bar of chords, a bar of line, in turn.'
      : `${bars} bars of chords, ${bars} bars of line, in turn.`,
  example: ({ bars }, recipe) => ({ ...recipe, written: { kind: 'trade', bars } }),
};
