import type { LandingMark, Report } from '@/core/analyse';
import type { FindingsRequest } from '@/core/findings';
import { findingsIn, type SaidOfTake } from '@/core/assessment';
import { readCase, judgeTake, reportOf, type TakeCase } from '@/core/review';

/** A take before this one on the same chart; its report where it is known already. */
export type EarlierCase = { readonly one: TakeCase; readonly report: Report | null };

/** All that decides what is said of a take: the take itself and those before it, oldest first. */
export type JudgingRequest = { readonly own: TakeCase; readonly earlier: readonly EarlierCase[] };

/** What is said of it. */
export type JudgedTake = SaidOfTake & {
  readonly report: Report;
  readonly marks: readonly LandingMark[];
};

/** Judges a take; what it did better than the takes before it comes first among its findings. */
export function judgeRequest({ own, earlier }: JudgingRequest): JudgedTake {
  const judged = judgeTake(own);
  const { report, marks } = judged;
  const before = earlier.map(({ one, report: known }): FindingsRequest => ({
    ...readCase(one),
    tempo: one.tempo,
    report: known ?? reportOf(one),
  }));
  return { report, ...findingsIn(own, judged, before), marks };
}
