import { desc, isNull, sql } from 'drizzle-orm';
import { database } from './db/client';
import { charts, drills, takes } from './db/schema';

/** Something that can be opened by its name. */
export type Named = { readonly id: string; readonly name: string; readonly detail: string };
export type Names = {
  readonly charts: readonly Named[];
  readonly takes: readonly Named[];
  readonly drills: readonly Named[];
};

/** Takes that can be found by name: the latest ones. All are under Takes, where they can be searched. */
const MOST_TAKES = 1_000;

/** Names of every chart, take and drill, the latest first; nothing more of them is read. */
export async function listNames(): Promise<Names> {
  const drillName = sql<string>`json_extract(${drills.json}, '$.drill.name')`;
  const [chartRows, takeRows, drillRows] = await Promise.all([
    database()
      .select({ id: charts.id, title: charts.title })
      .from(charts)
      .where(isNull(charts.removedAt))
      .orderBy(desc(charts.updatedAt)),
    database()
      .select({ id: takes.id, number: takes.number, title: takes.title, createdAt: takes.createdAt })
      .from(takes)
      .where(sql`${takes.state} = 'ready' and ${takes.removedAt} is null`)
      .orderBy(desc(takes.createdAt))
      .limit(MOST_TAKES),
    database()
      .select({ id: drills.id, title: drills.title, name: drillName })
      .from(drills)
      .where(isNull(drills.awayAt))
      .orderBy(desc(drills.createdAt)),
  ]);
  return {
    charts: chartRows.map(({ id, title }) => ({ id, name: title || 'Untitled', detail: '' })),
    takes: takeRows.map(({ id, number, title, createdAt }) => ({
      id,
      name: `${title}, take ${number}`,
      detail: new Date(createdAt).toISOString().slice(0, 10),
    })),
    drills: drillRows.map(({ id, title, name }) => ({ id, name, detail: title })),
  };
}
