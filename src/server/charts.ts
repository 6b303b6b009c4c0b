import { desc, eq } from 'drizzle-orm';
import { readChart } from '@/core/chart';
import { database, write } from './db/client';
import { charts } from './db/schema';
import { notFound } from './failure';
import { newId } from './ids';

export type StoredChart = typeof charts.$inferSelect;

export const listCharts = (): Promise<StoredChart[]> => database().select().from(charts).orderBy(charts.createdAt);

export async function chartById(id: string): Promise<StoredChart> {
  const [chart] = await database().select().from(charts).where(eq(charts.id, id));
  if (!chart) throw notFound('chart');
  return chart;
}

export function createChart(text: string): Promise<StoredChart> {
  return write(async (tx) => {
    const [chart] = await tx.insert(charts).values({ id: newId(), title: titleOf(text), text }).returning();
    return chart!;
  });
}

export function updateChart(id: string, text: string): Promise<StoredChart> {
  return write(async (tx) => {
    const [chart] = await tx.update(charts).set({ text, title: titleOf(text), updatedAt: Date.now() }).where(eq(charts.id, id)).returning();
    if (!chart) throw notFound('chart');
    return chart;
  });
}

/** Takes played on a chart keep their own copy of it and stay. */
export function deleteChart(id: string): Promise<void> {
  return write(async (tx) => {
    const [gone] = await tx.delete(charts).where(eq(charts.id, id)).returning({ id: charts.id });
    if (!gone) throw notFound('chart');
  });
}

/** The chart played last, or the first of the library. */
export async function latestChart(): Promise<StoredChart | null> {
  const [chart] = await database().select().from(charts).orderBy(desc(charts.updatedAt)).limit(1);
  return chart ?? null;
}

/** By its own `title:`; a chart that cannot be read yet keeps what its title line says. */
function titleOf(text: string): string {
  const read = readChart(text);
  const title = read.ok ? read.value.title : /^\s*title\s*:(.*)$/m.exec(text)?.[1]?.trim();
  return title?.slice(0, 120) || 'Untitled';
}
