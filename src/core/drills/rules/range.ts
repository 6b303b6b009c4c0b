import type { Report } from '../../analyse';
import { formPositionOf, type Timeline } from '../../chart';
import type { Semitones } from '../../shared';
import type { RuleCheck } from '../rule';
import { NEAR, startOfBar } from './context';
import type { RuleKind } from './ruleKind';

/** In every four bars more than so many semitones from the lowest note to the highest. */
export type RangeRule = { readonly kind: 'range'; readonly semitones: Semitones };

function placesInRange(report: Report, timeline: Timeline, semitones: Semitones): RuleCheck[] {
  const groups = new Map<number, number[]>();
  for (const { onsetBeat, midi } of report.notes) {
    if (onsetBeat < -NEAR) continue;
    const { chorus, bar } = formPositionOf(timeline, Math.max(0, onsetBeat) + 1e-6);
    const group = Math.floor((chorus * timeline.bars.length + bar) / 4);
    groups.set(group, [...(groups.get(group) ?? []), midi]);
  }
  return [...groups].map(([group, pitches]) => ({
    beat: startOfBar(timeline, group * 4),
    met: Math.max(...pitches) - Math.min(...pitches) > semitones,
  }));
}

export const RANGE: RuleKind<RangeRule> = {
  id: 'range',
  judge: ({ semitones }, { report, timeline }) => placesInRange(report, timeline, semitones),
  counted: () => 'bars',
  words: ({ semitones }) => {
    const size = semitones === 12 ? 'an octave' : `${semitones} half steps`;
    return `In every four bars more than ${size} from lowest to highest.`;
  },
};
