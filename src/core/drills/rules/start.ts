import type { Phrase, Report } from '../../analyse';
import { beatsPerBar, formPositionOf, type Timeline } from '../../chart';
import { elementAt } from '../../shared';
import type { RuleCheck } from '../rule';
import { overPhrases } from './context';
import type { RuleKind } from './ruleKind';

/**
 * Each phrase begins on this beat of the bar, from 1; `2.5` is the second half of beat 2. `turn`: the next one
 * a beat later, round the bar.
 */
export type StartRule = { readonly kind: 'start'; readonly beat: number; readonly turn?: true };

/** Rule of the drill, common practice, no source: within a fifth of a beat counts as that beat. */
function startsOn({ startBeat }: Pick<Phrase, 'startBeat'>, beat: number, timeline: Timeline): boolean {
  const { bar, beatInBar } = formPositionOf(timeline, startBeat + 0.2);
  const length = elementAt(timeline.bars, bar).end - elementAt(timeline.bars, bar).start;
  const away = Math.abs(beatInBar - 0.2 - (beat - 1));
  return Math.min(away, length - away) <= 0.2 + 1e-6;
}

/**
 * Beat after beat round the bar; a phrase that came elsewhere is missed, and the next is held against where it
 * should have gone on.
 */
function inTurn(report: Report, first: number, timeline: Timeline): RuleCheck[] {
  const beats = beatsPerBar(elementAt(timeline.bars, 0).meter);
  return overPhrases(report, () => false).map(({ beat }, index) => ({
    beat,
    met: startsOn({ startBeat: beat }, ((first - 1 + index) % beats) + 1, timeline),
  }));
}

export const START: RuleKind<StartRule> = {
  id: 'start',
  judge: ({ beat, turn }, { report, timeline }) =>
    turn ? inTurn(report, beat, timeline) : overPhrases(report, (phrase) => startsOn(phrase, beat, timeline)),
  counted: () => 'phrases',
  words: ({ beat, turn }) => {
    if (turn) return 'The first phrase begins on beat 1, the next on 2, and so on round the bar.';
    return `Every phrase begins on ${Number.isInteger(beat) ? `beat ${beat}` : `the and of ${Math.floor(beat)}`}.`;
  },
  example: ({ beat, turn }, recipe) => ({
    ...recipe,
    phrase: { beat, bars: 1, rest: Math.max(1, recipe.phrase?.rest ?? 1), ...(turn && { turn }) },
  }),
};
