import { elementAt, type Beats } from '../../shared';
import { overBars } from './context';
import type { RuleKind } from './ruleKind';

/** In each bar that is played in: notes on the upbeats. */
export type UpbeatsRule = { readonly kind: 'upbeats' };

const isUpbeat = (beat: Beats): boolean => Math.abs(beat - Math.floor(beat) - 0.5) <= 0.22;

export const UPBEATS: RuleKind<UpbeatsRule> = {
  id: 'upbeats',
  judge: (_, { report, timeline }) =>
    overBars(report, timeline, (indices) => {
      const off = indices.filter((index) => isUpbeat(elementAt(report.notes, index).onsetBeat));
      return off.length * 2 >= indices.length;
    }),
  counted: () => 'bars',
  words: () => 'At least half of every bar’s notes on the upbeats.',
};
