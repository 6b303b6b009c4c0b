import { and, desc, eq, isNotNull, isNull, lte, sql, sum } from 'drizzle-orm';
import { DAY_MS } from '@/core/scheduling';
import { database, write } from './db/client';
import { audioChunks, charts, takes } from './db/schema';
import { notFound } from './failure';
import { asTake, playedSeconds, type StoredTake } from './takes';

/** What is removed can be brought back for so many days. */
export const TRASH_DAYS = 30;

/** A recording with less of it past the count-in holds nothing that could be missed. */
const WORTH_KEEPING_SECONDS = 0.5;

export type TrashedTake = {
  readonly id: string;
  readonly number: number;
  readonly title: string;
  readonly removedAt: number;
  readonly seconds: number;
};

export type TrashedChart = { readonly id: string; readonly title: string; readonly removedAt: number };

export type Trash = {
  readonly takes: readonly TrashedTake[];
  readonly charts: readonly TrashedChart[];
  /** Sound that was put away to make room: of how many takes, and its bytes. */
  readonly sound: { readonly takes: number; readonly bytes: number };
};

/**
 * Puts a take in the trash. One that was stopped before anything was played is deleted.
 * @param hasMore not all of it has arrived yet: how much was played is not known, so it is not deleted
 * @returns whether it can be brought back
 */
export function removeTake(
  id: string,
  { now = Date.now(), hasMore = false }: { now?: number; hasMore?: boolean } = {},
): Promise<{ recoverable: boolean }> {
  return write(async (tx) => {
    const [take] = await tx.select().from(takes).where(eq(takes.id, id));
    if (!take) throw notFound('take');
    const [stored] = await tx
      .select({ frames: sum(audioChunks.frames) })
      .from(audioChunks)
      .where(eq(audioChunks.takeId, id));
    const played = Number(stored?.frames ?? 0) / take.rate - take.offsetSec;
    const recoverable = take.state === 'ready' || hasMore || played >= WORTH_KEEPING_SECONDS;
    if (recoverable)
      await tx
        .update(takes)
        .set({ removedAt: take.removedAt ?? now })
        .where(eq(takes.id, id));
    else await tx.delete(takes).where(eq(takes.id, id));
    return { recoverable };
  });
}

/** Deletes a take with its sound, notes and reports, for good. */
export function deleteTake(id: string): Promise<void> {
  return write(async (tx) => {
    const [gone] = await tx.delete(takes).where(eq(takes.id, id)).returning({ id: takes.id });
    if (!gone) throw notFound('take');
  });
}

/** Brings a take back out of the trash. */
export function restoreTake(id: string): Promise<StoredTake> {
  return write(async (tx) => {
    const [take] = await tx.update(takes).set({ removedAt: null }).where(eq(takes.id, id)).returning();
    if (!take) throw notFound('take');
    return asTake(take);
  });
}

/** What is in the trash, the latest first. */
export async function readTrash(): Promise<Trash> {
  const removedTakes = database()
    .select()
    .from(takes)
    .where(isNotNull(takes.removedAt))
    .orderBy(desc(takes.removedAt));
  const goneSound = database()
    .select({
      takes: sql<number>`count(distinct ${takes.id})`,
      bytes: sql<number>`coalesce(sum(length(${audioChunks.pcm})), 0)`,
    })
    .from(audioChunks)
    .innerJoin(takes, eq(takes.id, audioChunks.takeId))
    .where(isNotNull(takes.soundGoneAt));
  const ofCharts = database()
    .select({ id: charts.id, title: charts.title, removedAt: charts.removedAt })
    .from(charts)
    .where(isNotNull(charts.removedAt))
    .orderBy(desc(charts.removedAt));
  const [removed, [sound], removedCharts] = await Promise.all([removedTakes, goneSound, ofCharts]);
  return {
    charts: removedCharts.map((chart) => ({ ...chart, removedAt: chart.removedAt ?? 0 })),
    takes: removed.map(asTake).map((take) => {
      const { id, number, title, removedAt } = take;
      return { id, number, title, removedAt: removedAt ?? 0, seconds: playedSeconds(take) };
    }),
    sound: { takes: Number(sound?.takes ?? 0), bytes: Number(sound?.bytes ?? 0) },
  };
}

/** Puts the sound of ready takes older than so many days in the trash; notes and reports stay. */
export function removeOldSound(days: number, now = Date.now()): Promise<number> {
  return write(async (tx) => {
    const isOld = and(
      eq(takes.state, 'ready'),
      isNull(takes.soundGoneAt),
      lte(takes.createdAt, now - days * DAY_MS),
    );
    const gone = await tx.update(takes).set({ soundGoneAt: now }).where(isOld).returning({ id: takes.id });
    return gone.length;
  });
}

/** Brings back all sound that is in the trash. */
export function restoreSound(): Promise<number> {
  return write(async (tx) => {
    const hasSound = sql`exists (select 1 from ${audioChunks} where ${audioChunks.takeId} = ${takes.id})`;
    const back = await tx
      .update(takes)
      .set({ soundGoneAt: null })
      .where(and(isNotNull(takes.soundGoneAt), hasSound))
      .returning({ id: takes.id });
    return back.length;
  });
}

/**
 * Deletes for good what has been in the trash long enough.
 * @param days how long; 0 empties it
 */
export function emptyTrash(days = TRASH_DAYS, now = Date.now()): Promise<{ takes: number; charts: number }> {
  const until = now - days * DAY_MS;
  return write(async (tx) => {
    const gone = await tx
      .delete(takes)
      .where(and(isNotNull(takes.removedAt), lte(takes.removedAt, until)))
      .returning({ id: takes.id });
    const silent = await tx
      .select({ id: takes.id })
      .from(takes)
      .where(and(isNotNull(takes.soundGoneAt), lte(takes.soundGoneAt, until)));
    for (const { id } of silent) await tx.delete(audioChunks).where(eq(audioChunks.takeId, id));
    const goneCharts = await tx
      .delete(charts)
      .where(and(isNotNull(charts.removedAt), lte(charts.removedAt, until)))
      .returning({ id: charts.id });
    return { takes: gone.length, charts: goneCharts.length };
  });
}
