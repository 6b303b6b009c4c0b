import type { PhraseBorder, Report } from '@/core/analyse';
import type { ReviewModel } from './useReviewModel';

/** What can be done to the borders of phrases at what is selected: kept as edits, so that undo takes them back. */
export type PhraseBorders = {
  readonly canSplit: boolean;
  readonly canJoin: boolean;
  readonly split: () => void;
  readonly join: () => void;
};

export function phraseBorders({
  judgement: { report, places },
  corrections,
  current,
  chosen,
  select,
}: Pick<ReviewModel, 'judgement' | 'corrections' | 'current' | 'chosen' | 'select'>): PhraseBorders {
  const at =
    current?.kind === 'phrase'
      ? current.index
      : report.phrases.findIndex(({ noteIndices }) => chosen !== null && noteIndices.includes(chosen));
  const first = report.phrases[at]?.noteIndices[0];
  const set = (note: number | undefined, border: PhraseBorder) => {
    const id = note === undefined ? undefined : places[note];
    if (id !== undefined) corrections.edit({ kind: 'phrase', id, border });
  };
  const isNote = current?.kind === 'note';
  return {
    canSplit: isNote && at >= 0 && chosen !== first,
    canJoin: at > 0 && (!isNote || chosen === first) && (isNote || current?.kind === 'phrase'),
    split: () => set(chosen ?? undefined, 'begins'),
    join: () => {
      set(first, 'goes-on');
      if (current?.kind === 'phrase') select({ kind: 'phrase', index: at - 1 });
    },
  };
}

/** One note is no phrase to be kept. */
export const canKeep = ({ phrases }: Report, index: number): boolean =>
  (phrases[index]?.noteIndices.length ?? 0) > 1;
