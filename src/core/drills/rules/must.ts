import { tellTaleTones } from '../../chart';
import { isDominant, readChord } from '../../music';
import { cellAt } from '../../plan';
import { elementAt, pitchClassOf, unwrap, type Beats, type PitchClass } from '../../shared';
import { AIM_NAMES, tonesOf, type Aim } from '../aims';
import { chordAt } from '../drillContext';
import { NEAR, overChords, type AttemptContext } from './context';
import type { RuleKind } from './ruleKind';

/**
 * Over each chord that is played on: at least so many notes on one of these tones. `tell-tale`: the tones of
 * the chord that the home scale lacks (T3.2), over dominants alone where that is said; a chord without any asks
 * for nothing.
 */
export type MustRule = {
  readonly kind: 'must';
  readonly of: 'tell-tale' | readonly Aim[];
  readonly over?: 'dominant';
  readonly least?: number;
};

/** The tones that are asked for over the chord sounding at a beat; none where nothing is. */
export function mustAt(
  rule: MustRule,
  { timeline, harmony, plan }: Pick<AttemptContext, 'timeline' | 'harmony' | 'plan'>,
  beat: Beats,
): readonly PitchClass[] {
  const { stretch, chorus } = chordAt({ timeline }, beat);
  const { chord } = stretch;
  if (!chord || (rule.over === 'dominant' && !isDominant(chord))) return [];
  if (rule.of !== 'tell-tale') return tonesOf(chord, rule.of);
  const telling = tellTaleTones(chord, elementAt(harmony.homeScales, stretch.index));
  const asked = rule.over === 'dominant' ? telling.filter(({ role }) => role === 'third') : telling;
  // a plan that leaves them out cannot be asked for them
  const { material } = cellAt(plan, stretch.index, chorus);
  return asked.flatMap(({ pc }) => (material.includes(pc) ? [pc] : []));
}

export const MUST: RuleKind<MustRule> = {
  id: 'must',
  judge: (rule, context) => {
    const { report } = context;
    const asked = new Map<Beats, readonly PitchClass[]>();
    const places = overChords(report, (notes) => {
      const first = elementAt(notes, 0);
      const chord = first.chord === null ? null : unwrap(readChord(first.chord));
      const at = mustAt(rule, context, first.onsetBeat + NEAR);
      // a note struck ahead of its chord belongs to the one that comes
      const tones = chord
        ? at.filter((pc) => chord.tones.some((tone) => tone.pc === pc) || rule.of !== 'tell-tale')
        : at;
      asked.set(first.onsetBeat, tones);
      return notes.filter(({ midi }) => tones.includes(pitchClassOf(midi))).length >= (rule.least ?? 1);
    });
    return places.filter(({ beat }) => (asked.get(beat) ?? []).length > 0);
  },
  counted: () => 'chords',
  words: ({ of, over, least = 1 }) => {
    if (of !== 'tell-tale')
      return `Over every chord ${least === 1 ? '' : `${least} times `}${of.map((aim) => AIM_NAMES[aim]).join(' or ')}.`;
    return over === 'dominant'
      ? 'Over every dominant its third, the raised note.'
      : 'Over every chord a note that your home scale lacks, where the chord has one.';
  },
};
