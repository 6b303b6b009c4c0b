import { asc, desc, eq } from 'drizzle-orm';
import type { Drill, RuleCheck } from '@/core/drills';
import { DAY_MS, type Ladder, type DrillMemory, type LadderTry } from '@/core/scheduling';
import { database } from './db/client';
import { drillRuns, drills } from './db/schema';
import { readDrill, readPlaces, readLadder } from './db/documents';
import { Failure, notFound } from './failure';

/** What a drill came from, for people to read. */
export type DrillOrigin = { readonly takeId: string; readonly take: number; readonly sentence: string };
/**
 * What is remembered after the latest sitting, and what was before it: attempts that come later in the same
 * sitting are graded with it.
 */
export type Remembered = {
  readonly sitting: string;
  readonly before: DrillMemory | null;
  readonly now: DrillMemory;
};

export type StoredDrill = {
  readonly id: string;
  readonly chartId: string | null;
  readonly title: string;
  readonly drill: Drill;
  readonly origin: DrillOrigin | null;
  readonly ladder: Ladder;
  readonly memory: DrillMemory | null;
  readonly dueAt: number;
  /** The player has put it on that day. */ readonly isMoved: boolean;
  readonly away: boolean;
  readonly createdAt: number;
};
/** An attempt with what was heard at each place. */
export type StoredRun = LadderTry & {
  readonly id: string;
  readonly takeId: string | null;
  readonly sitting: string;
  readonly seconds: number;
  readonly places: readonly RuleCheck[];
  readonly at: number;
};

type Row = typeof drills.$inferSelect;
export const asDrill = (row: Row): StoredDrill => {
  const { drill, origin } = row.json as { drill: unknown; origin: DrillOrigin | null };
  const { id, chartId, title, dueAt, createdAt } = row;
  return {
    id,
    chartId,
    title,
    drill: readDrill(drill),
    origin,
    ladder: readLadder(row.ladder),
    memory: (row.memory as Remembered | null)?.now ?? null,
    dueAt,
    isMoved: row.movedAt !== null,
    away: row.awayAt !== null,
    createdAt,
  };
};
export const asRun = ({
  id,
  takeId,
  sitting,
  tempo,
  met,
  of,
  passed,
  seconds,
  json,
  createdAt,
}: typeof drillRuns.$inferSelect): StoredRun => ({
  id,
  takeId,
  sitting,
  tempo,
  met,
  of,
  passed,
  seconds,
  places: readPlaces(json),
  at: createdAt,
});

/** One drill that cannot be read does not take the others with it. */
function readableDrill(row: Row): StoredDrill[] {
  try {
    return [asDrill(row)];
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    console.error(`Drill ${row.id} is left out: ${error.message}`);
    return [];
  }
}

/** All drills that come back, the longest due first. */
export async function listDrills(): Promise<StoredDrill[]> {
  const rows = await database().select().from(drills).orderBy(asc(drills.dueAt), asc(drills.createdAt));
  return rows.flatMap(readableDrill);
}

export type DrillItem = {
  readonly drill: StoredDrill;
  /** Newest first. */ readonly runs: readonly StoredRun[];
  /** Whole days until it is due; none or fewer is now. */ readonly days: number;
};

/** Every drill with its attempts, the longest due first. */
export async function drillItems(now = Date.now()): Promise<DrillItem[]> {
  const [all, runs] = await Promise.all([listDrills(), latestRuns()]);
  return all.map((drill) => ({
    drill,
    runs: runs.get(drill.id) ?? [],
    days: Math.ceil((drill.dueAt - now) / DAY_MS),
  }));
}

/** What is due besides one drill, the longest due first. */
export async function dueBeside(id: string, now = Date.now()): Promise<StoredDrill | null> {
  return (await listDrills()).find((one) => one.id !== id && !one.away && one.dueAt <= now) ?? null;
}

export async function drillById(id: string): Promise<StoredDrill> {
  const [row] = await database().select().from(drills).where(eq(drills.id, id));
  if (!row) throw notFound('drill');
  return asDrill(row);
}

/** Attempts at a drill in order of time. */
export async function runsOf(drillId: string): Promise<StoredRun[]> {
  return (
    await database()
      .select()
      .from(drillRuns)
      .where(eq(drillRuns.drillId, drillId))
      .orderBy(asc(drillRuns.createdAt), asc(drillRuns.id))
  ).map(asRun);
}

/** Attempts by the drill they were at, newest first. */
export async function latestRuns(): Promise<Map<string, StoredRun[]>> {
  const rows = await database()
    .select()
    .from(drillRuns)
    .orderBy(desc(drillRuns.createdAt), desc(drillRuns.id));
  const found = new Map<string, StoredRun[]>();
  for (const row of rows) {
    const own = found.get(row.drillId) ?? [];
    found.set(row.drillId, own);
    own.push(asRun(row));
  }
  return found;
}
