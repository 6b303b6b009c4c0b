import { reviewOf } from './reviews';
import { findLines, lineOf, type TakeLine } from './takeLines';
import type { StoredTake } from './takes';
import type { TakesQuery } from './validation';

export type JudgedLine = { readonly take: StoredTake; readonly line: TakeLine; readonly stars: number };

/** A stretch of the list of takes; a take whose line is of an older engine is judged first. */
export async function judgedLines({ from, most, ...filter }: TakesQuery): Promise<{ total: number; lines: JudgedLine[] }> {
  const { total, listed } = await findLines(filter, from, most);
  const lines: JudgedLine[] = [];
  for (const { take, line, stars } of listed) {
    const review = line === null ? await reviewOf(take.id) : null;
    lines.push({ take, line: line ?? lineOf(take, review!.report, review!.marks, review!.findings), stars });
  }
  return { total, lines };
}
