import type { FindingContext } from '../finding';
import { defineKind } from '../measure';
import { mostCommon } from '../mostCommon';
import { share } from '../words';
import { ENOUGH_ONSETS } from './timing';
import { withoutThemes } from './themes';

const NEARLY_ALL = 0.8;

/** Gaps between onsets to a sixteenth, inside phrases that are not a theme's. */
function gapsOf({ report }: FindingContext): number[] {
  const themed = new Set(
    report.phrases
      .filter((phrase) => !withoutThemes(report).includes(phrase))
      .flatMap((phrase) => phrase.noteIndices),
  );
  const onsets = report.events
    .filter(({ noteIndices }) => !noteIndices.some((index) => themed.has(index)))
    .map(({ onsetBeat }) => onsetBeat);
  return onsets
    .slice(1)
    .map((onset, index) => Math.round((onset - (onsets[index] ?? onset)) * 4) / 4)
    .filter((gap) => gap > 0);
}

/** One distance from note to note. */
export const oneRhythm = defineKind<Record<string, never>>({
  id: 'one-rhythm',
  name: 'one rhythm',
  drill: 'anticipate',
  detect: (context) => {
    const gaps = gapsOf(context);
    const common = mostCommon(gaps);
    if (!common || gaps.length < ENOUGH_ONSETS) return [];
    return [
      {
        where: { bars: [] },
        met: gaps.length - common.count,
        of: gaps.length,
        limit: 0.25,
        worth: 0.35,
        ...(common.count / gaps.length < NEARLY_ALL ? { raised: false } : {}),
        facts: {},
      },
    ];
  },
  say: ({ missed, of }) => ({
    title: 'More than one rhythm',
    sentence: `You played ${share(missed, of, 'note')} at the same distance from one to the next.`,
    advice: 'Mix long and short notes in every phrase.',
  }),
  example: {},
});
