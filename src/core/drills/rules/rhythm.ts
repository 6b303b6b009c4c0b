import { elementAt, type Beats } from '../../shared';
import { overBars } from './context';
import type { RuleKind } from './ruleKind';

/** In each bar that is played in: mostly notes of one value. */
export type RhythmRule = { readonly kind: 'rhythm'; readonly value: 'quarters' | 'eighths' | 'triplets' };

const LENGTHS: Readonly<Record<RhythmRule['value'], Beats>> = { quarters: 1, eighths: 0.5, triplets: 1 / 3 };
/** Three notes in four, and a swung eighth is an eighth. */
const MOSTLY = 0.75;

export const RHYTHM: RuleKind<RhythmRule> = {
  id: 'rhythm',
  judge: ({ value }, { report, timeline }) => {
    const lasts = (index: number): Beats =>
      (report.notes[index + 1]?.onsetBeat ?? Infinity) - elementAt(report.notes, index).onsetBeat;
    const fits = (index: number) => {
      const beats = lasts(index);
      const length = LENGTHS[value];
      return value === 'eighths' ? beats > 0.3 && beats < 0.72 : Math.abs(beats - length) <= 0.25 * length;
    };
    return overBars(report, timeline, (indices) => {
      // the last note of a phrase may ring
      const moving = indices.filter((index) => lasts(index) < 1.4);
      return moving.length > 0 && moving.filter(fits).length >= MOSTLY * moving.length - 1e-9;
    });
  },
  counted: () => 'bars',
  words: ({ value }) => `In every bar mostly ${value}.`,
  example: ({ value }, recipe) => ({
    ...recipe,
    rhythm: value === 'eighths' ? 'running' : value,
    plain: true,
  }),
};
