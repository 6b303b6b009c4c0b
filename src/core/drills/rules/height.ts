import { elementAt } from '../../shared';
import { overBars } from './context';
import type { RuleKind } from './ruleKind';

/** In each bar: no higher than this, or at least once as high. */
export type HeightRule = { readonly kind: 'height'; readonly most?: number; readonly least?: number };

const AT_MOST = [
  'Only chord tones.',
  'Chord tones and colours, no higher.',
  'Nothing outside the scale.',
] as const;
const AT_LEAST = ['on the ground', 'a colour or higher', 'off the chord', 'leading in', 'outside'] as const;

export const HEIGHT: RuleKind<HeightRule> = {
  id: 'height',
  judge: ({ most = Infinity, least = -Infinity }, { report, timeline }) =>
    overBars(report, timeline, (indices) => {
      const heights = indices.map((index) => elementAt(report.notes, index).height);
      return heights.every((height) => height <= most) && heights.some((height) => height >= least);
    }),
  counted: () => 'bars',
  words: ({ most, least = 0 }) =>
    most === undefined ? `In every bar once ${AT_LEAST[least]}.` : (AT_MOST[most] ?? 'Anything.'),
};
