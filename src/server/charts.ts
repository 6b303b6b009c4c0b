import { and, desc, eq, inArray, isNull } from 'drizzle-orm';
import { readChart } from '@/core/chart';
import { database, write } from './db/client';
import { charts, chartVersions } from './db/schema';
import { notFound } from './failure';
import { newId } from './ids';
import { present } from '@/core/shared';

export type StoredChart = typeof charts.$inferSelect;

export const listCharts = (): Promise<StoredChart[]> =>
  database().select().from(charts).where(isNull(charts.removedAt)).orderBy(charts.createdAt);

export async function chartById(id: string): Promise<StoredChart> {
  const [chart] = await database().select().from(charts).where(isKept(id));
  if (!chart) throw notFound('chart');
  return chart;
}

/** The chart of this id, unless it is in the trash. */
const isKept = (id: string) => and(eq(charts.id, id), isNull(charts.removedAt));

export function createChart(text: string): Promise<StoredChart> {
  return write(async (tx) => {
    const [chart] = await tx
      .insert(charts)
      .values({ id: newId(), title: titleOf(text), text })
      .returning();
    return present(chart);
  });
}

/** A text that stood this long is worth coming back to. */
const STOOD_MS = 60_000;
const MOST_VERSIONS = 50;

/** Less text than this is quickly written again. */
const WORTH_KEEPING = 20;

/** Whether most of a text has gone: emptied by a slip while typing, or pasted over. */
const isMostlyGone = (before: string, after: string): boolean =>
  before.trim().length >= WORTH_KEEPING && after.trim().length < before.trim().length / 2;

/**
 * Changes a chart's text. What stood for a minute or more, and what is mostly gone now, is kept as a version first;
 * the oldest go beyond fifty.
 * @param always keeps the version however short it stood: for changes a player may want to take back
 */
export function updateChart(id: string, text: string, always = false): Promise<StoredChart> {
  return write(async (tx) => {
    const [before] = await tx.select().from(charts).where(isKept(id));
    if (!before) throw notFound('chart');
    const stood = always || Date.now() - before.updatedAt >= STOOD_MS;
    if (before.text !== text && (stood || isMostlyGone(before.text, text))) {
      await tx
        .insert(chartVersions)
        .values({ id: newId(), chartId: id, text: before.text, createdAt: before.updatedAt });
      const kept = await tx
        .select({ id: chartVersions.id })
        .from(chartVersions)
        .where(eq(chartVersions.chartId, id))
        .orderBy(desc(chartVersions.createdAt));
      const old = kept.slice(MOST_VERSIONS).map((version) => version.id);
      if (old.length > 0) await tx.delete(chartVersions).where(inArray(chartVersions.id, old));
    }
    const [chart] = await tx
      .update(charts)
      .set({ text, title: titleOf(text), updatedAt: Date.now() })
      .where(eq(charts.id, id))
      .returning();
    return present(chart);
  });
}

export type ChartVersion = { readonly id: string; readonly text: string; readonly createdAt: number };

/** What a chart said before, newest first. */
export const versionsOf = (chartId: string): Promise<ChartVersion[]> =>
  database()
    .select({ id: chartVersions.id, text: chartVersions.text, createdAt: chartVersions.createdAt })
    .from(chartVersions)
    .where(eq(chartVersions.chartId, chartId))
    .orderBy(desc(chartVersions.createdAt));

/** Turns a chart back to an earlier text; what it said until now stays as a version. */
export async function restoreVersion(chartId: string, versionId: string): Promise<StoredChart> {
  const [version] = await database()
    .select()
    .from(chartVersions)
    .where(and(eq(chartVersions.id, versionId), eq(chartVersions.chartId, chartId)));
  if (!version) throw notFound('version');
  return updateChart(chartId, version.text, true);
}

/** Puts a chart in the trash. Takes played on it keep their own copy of it and stay. */
export function removeChart(id: string, now = Date.now()): Promise<void> {
  return write(async (tx) => {
    const [gone] = await tx
      .update(charts)
      .set({ removedAt: now })
      .where(isKept(id))
      .returning({ id: charts.id });
    if (!gone) throw notFound('chart');
  });
}

/** Brings a chart back out of the trash, with all it said before. */
export function restoreChart(id: string): Promise<StoredChart> {
  return write(async (tx) => {
    const [chart] = await tx.update(charts).set({ removedAt: null }).where(eq(charts.id, id)).returning();
    if (!chart) throw notFound('chart');
    return chart;
  });
}

/** The chart played last, or the first of the library. */
export async function latestChart(): Promise<StoredChart | null> {
  const [chart] = await database()
    .select()
    .from(charts)
    .where(isNull(charts.removedAt))
    .orderBy(desc(charts.updatedAt))
    .limit(1);
  return chart ?? null;
}

/** By its own `title:`; a chart that cannot be read yet keeps what its title line says. */
function titleOf(text: string): string {
  const read = readChart(text);
  const title = read.ok ? read.value.title : /^\s*title\s*:(.*)$/m.exec(text)?.[1]?.trim();
  return title?.slice(0, 120) || 'Untitled';
}
