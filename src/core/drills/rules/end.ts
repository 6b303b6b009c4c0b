import type { Phrase, Report } from '../../analyse';
import { readChord } from '../../music';
import { elementAt, pitchClassOf, unwrap } from '../../shared';
import { AIM_NAMES, tonesOf, type Aim } from '../aims';
import { overPhrases } from './context';
import type { RuleKind } from './ruleKind';

/** Each phrase comes to rest: on a tone that is at home, held or on a strong beat. */
export type EndRule = {
  readonly kind: 'end';
  /** On one of these tones; any that is at rest where none is said. */
  readonly tones?: readonly Aim[];
};

/** At home, or on the root of a chord that goes on. */
const isAtRest = ({ end, endInterval }: Phrase): boolean =>
  end === 'home' || (end === 'floats' && endInterval === '1');

function endsOn({ noteIndices }: Phrase, tones: readonly Aim[], report: Report): boolean {
  const last = report.notes[elementAt(noteIndices, noteIndices.length - 1)];
  if (!last || last.chord === null) return false;
  return tonesOf(unwrap(readChord(last.chord)), tones).includes(pitchClassOf(last.midi));
}

export const END: RuleKind<EndRule> = {
  id: 'end',
  judge: ({ tones }, { report }) =>
    overPhrases(report, (phrase) =>
      tones ? endsOn(phrase, tones, report) : phrase.firm && isAtRest(phrase),
    ),
  counted: () => 'phrases',
  words: ({ tones }) =>
    tones
      ? `Every phrase ends on ${tones.map((aim) => AIM_NAMES[aim]).join(' or ')}.`
      : 'Every phrase comes to rest on a chord tone, held or on a strong beat.',
  example: ({ tones }, recipe) => (tones ? { ...recipe, endsOn: tones } : { ...recipe, rests: true }),
};
