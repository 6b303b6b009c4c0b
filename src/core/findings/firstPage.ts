import type { Finding, FindingsRequest } from './finding';
import { contextOf, type Findings } from './over';
import { nextStepOf, type NextStep } from './nextStep';
import type { Strength } from './strength';
import { STRENGTHS } from './strengths';

/**
 * What is said first of a take (T13.6): one true strength, then one thing to practise, or a next step where
 * nothing is wrong; then what else was noticed, and what is not certain.
 */
export type FirstPage = {
  readonly strength: Strength | null;
  /** What got better with this take, or was kept at a faster tempo. */
  readonly progress: Finding | null;
  readonly practise: Finding | null;
  readonly step: NextStep | null;
  readonly also: readonly Finding[];
  readonly uncertain: readonly Finding[];
};

/** Findings of less weight are never the one thing to practise. */
const WORTH_PRACTISING = 0.1;
const [MOST_ALSO, MOST_UNCERTAIN] = [5, 4];

export const isPraise = ({ kind }: Pick<Finding, 'kind'>): boolean => kind === 'improved' || kind === 'kept';

/** The first page of one take. */
export function firstPageOf(request: FindingsRequest, { findings, tooFew }: Findings): FirstPage {
  const context = contextOf([request]);
  const weak = findings.filter((finding) => !isPraise(finding));
  const practise = weak.find(({ weight }) => weight >= WORTH_PRACTISING) ?? null;
  return {
    strength: strongest(STRENGTHS.flatMap((one) => one.find(context) ?? [])),
    progress: findings.find(isPraise) ?? null,
    practise,
    step: practise ? null : nextStepOf(context),
    also: weak.filter((finding) => finding !== practise).slice(0, MOST_ALSO),
    uncertain: tooFew.filter(({ certainty }) => certainty === 'likely').slice(0, MOST_UNCERTAIN),
  };
}

const strongest = (all: readonly Strength[]): Strength | null =>
  all.reduce<Strength | null>((best, one) => (best && best.score >= one.score ? best : one), null);
