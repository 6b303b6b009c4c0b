import type { Report } from '../../analyse';
import { fitsOneLocation, placesOf, reachFrom } from '../../neck';
import type { RuleCheck } from '../rule';
import { overChords } from './context';
import type { RuleKind } from './ruleKind';

/** Over each chord: nothing that one place of the neck does not hold, with all that was played before it. */
export type PlaceRule = {
  readonly kind: 'place';
  /** The lowest fret of the place; any one where it is not said. */
  readonly from?: number;
};

const ALL: readonly number[] = Array.from({ length: 12 }, (_, pc) => pc);

/** A note that leaves the place fails its chord; the place is the one that holds what came before it. */
function inOnePlace(report: Report, from?: number): RuleCheck[] {
  const held: number[] = [];
  const there =
    from === undefined
      ? null
      : new Set(placesOf(ALL, from, from + reachFrom(from) - 1).map(({ midi }) => midi));
  return overChords(report, (notes) => {
    const pitches = notes.map(({ midi }) => Math.round(midi));
    const fits = there ? pitches.every((pitch) => there.has(pitch)) : fitsOneLocation([...held, ...pitches]);
    if (fits) for (const pitch of pitches) if (!held.includes(pitch)) held.push(pitch);
    return fits;
  });
}

export const PLACE: RuleKind<PlaceRule> = {
  id: 'place',
  judge: ({ from }, { report }) => inOnePlace(report, from),
  counted: () => 'chords',
  words: ({ from }) =>
    from === undefined
      ? 'Everything in one place of the neck.'
      : `Everything in the place from fret ${from}.`,
  example: ({ from }, recipe) => (from === undefined ? recipe : { ...recipe, place: from }),
};
