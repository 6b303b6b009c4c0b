import { Failure } from './failure';
import { reviewOf } from './reviews';
import { findTakeSummaries, takeSummaryOf, type ListedTake, type TakeSummary } from './takeSummaries';
import type { StoredTake } from './takes';
import type { TakesQuery } from './validation';

export type JudgedTakeSummary = {
  readonly take: StoredTake;
  readonly line: TakeSummary;
  readonly stars: number;
};

/**
 * A take of the list with its line, or with the reason why it has none: one bad take never hides the others.
 */
export type TakeListEntry = Omit<JudgedTakeSummary, 'line'> & {
  readonly line: TakeSummary | null;
  readonly trouble: string | null;
};

/** Part of the list of takes; a take whose line is of an older engine is judged first. */
export async function listedTakes({
  from,
  most,
  ...filter
}: TakesQuery): Promise<{ total: number; entries: TakeListEntry[] }> {
  const { total, listed } = await findTakeSummaries(filter, from, most);
  const entries: TakeListEntry[] = [];
  for (const one of listed) entries.push(await entryOf(one));
  return { total, entries };
}

async function entryOf({ take, line, stars }: ListedTake): Promise<TakeListEntry> {
  if (line) return { take, line, stars, trouble: null };
  try {
    const { report, marks, findings } = await reviewOf(take.id);
    return { take, line: takeSummaryOf(take, report, marks, findings), stars, trouble: null };
  } catch (error) {
    if (!(error instanceof Failure)) console.error(error);
    const trouble = error instanceof Failure ? error.problem.message : 'This take cannot be read.';
    return { take, line: null, stars, trouble };
  }
}

/** The takes of a part of the list that can be judged. */
export async function judgedTakes(query: TakesQuery): Promise<JudgedTakeSummary[]> {
  const { entries } = await listedTakes(query);
  return entries.flatMap(({ take, line, stars }) => (line ? [{ take, line, stars }] : []));
}
