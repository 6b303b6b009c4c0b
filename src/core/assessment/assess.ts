import { analyse } from '../analyse';
import { playedFrom } from '../correct';
import {
  findingsOver,
  firstPageOf,
  heldAgainst,
  praiseOf,
  type Finding,
  type FindingsRequest,
  type FirstPage,
} from '../findings';
import type { Judgement, TakeCase } from '../review';

/** What is said of a take in words: all that was found, and what comes first. */
export type SaidOfTake = { readonly findings: readonly Finding[]; readonly firstPage: FirstPage };

/**
 * What is found in a take, by the notes that are not in doubt (T13.5).
 * @param before the takes of the same chart before it, oldest first
 */
export function findingsIn(
  one: TakeCase,
  { chart, plan, notes, report, doubts }: Pick<Judgement, 'chart' | 'plan' | 'notes' | 'report' | 'doubts'>,
  before: readonly FindingsRequest[] = [],
): SaidOfTake {
  const { tempo, choruses, isLatencyMeasured } = one;
  const doubted = new Set(doubts.map(({ id }) => id));
  const sure =
    doubted.size === 0
      ? report
      : analyse({
          chart,
          tempo,
          plan,
          choruses,
          isLatencyMeasured,
          notes: playedFrom(
            notes.filter(({ id }) => !doubted.has(id)),
            one.pace ?? tempo,
            one.offsetSec,
          ),
        });
  const request: FindingsRequest = { chart, tempo, plan, report: sure };
  const { findings, tooFew } = findingsOver([request]);
  // one thing that got better, then what to practise
  const all = [...praiseOf([...before, request]).slice(0, 1), ...heldAgainst(findings, before)];
  return { findings: all, firstPage: firstPageOf(request, { findings: all, tooFew }) };
}
