import { takeRow } from '@/features/takes/takeRow';
import type { Rows } from '@/features/takes/takesList';
import type { Dates } from '@/presentation';
import { listedTakes } from '@/server/judgedTakes';
import type { TakesQuery } from '@/server/validation';

/** Rows of the list of takes as the screen shows them. */
export async function rowsOf(query: TakesQuery, dates: Dates): Promise<Rows> {
  const { total, entries } = await listedTakes(query);
  return { total, from: query.from, rows: entries.map((entry) => takeRow(entry, dates)) };
}
