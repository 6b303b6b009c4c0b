import { and, desc, eq, inArray, lt } from 'drizzle-orm';
import { ENGINE_VERSION, type GateMark, type Report } from '@/core/analyse';
import { readChart, timelineOf } from '@/core/chart';
import { planKey } from '@/core/plan';
import { certain } from '@/core/vocabulary';
import { database, type Transaction } from './db/client';
import { takeLines, takes } from './db/schema';
import { asTake, type StoredTake } from './takes';

/** What the list shows of a take: its counts, and its walk drawn small as [onset, end, height] and [beat, mark]. */
export type TakeLine = {
  readonly met: number; readonly judged: number; readonly heard: number; readonly segments: number;
  readonly profile: { readonly beats: number; readonly notes: readonly (readonly [number, number, number])[]; readonly gates: readonly (readonly [number, GateMark])[] };
};

const round = (beat: number): number => Math.round(beat * 100) / 100;

export function lineOf(take: Pick<StoredTake, 'chartText' | 'tempo'>, report: Report, marks: readonly GateMark[]): TakeLine {
  const judged = report.mutedBand.segments.filter((segment) => segment.verdict !== 'silent');
  return {
    met: report.summary.targetsMet, judged: report.summary.judgedChanges, heard: judged.filter((segment) => segment.verdict === 'heard').length, segments: judged.length,
    profile: {
      beats: timelineOf(certain(readChart(take.chartText)), take.tempo).formBeats * report.summary.choruses,
      notes: report.notes.filter((note) => note.top).map((note) => [round(note.onsetBeat), round(note.onsetBeat + note.durationBeats), note.height]),
      gates: report.changes.map((change, index) => [change.beat, marks[index]!]),
    },
  };
}

/** Keeps a take's line beside its report. */
export async function keepLine(tx: Transaction, take: StoredTake, line: TakeLine): Promise<void> {
  const values = { takeId: take.id, engineVersion: ENGINE_VERSION, offsetSec: take.offsetSec, planId: planKey(take.plan), json: line };
  await tx.insert(takeLines).values(values).onConflictDoUpdate({ target: takeLines.takeId, set: values });
}

export type ListedTake = { readonly take: StoredTake; /** Null where it has to be judged first. */ readonly line: TakeLine | null };

/**
 * Ready takes with their lines, newest first.
 * @param before only takes with a smaller number
 */
export async function listLines(most: number, before?: number): Promise<ListedTake[]> {
  const rows = (await database().select().from(takes).where(before === undefined ? eq(takes.state, 'ready') : and(eq(takes.state, 'ready'), lt(takes.number, before))).orderBy(desc(takes.createdAt)).limit(most)).map(asTake);
  const lines = rows.length === 0 ? [] : await database().select().from(takeLines).where(inArray(takeLines.takeId, rows.map(({ id }) => id)));
  const byTake = new Map(lines.map((line) => [line.takeId, line]));
  return rows.map((take) => {
    const kept = byTake.get(take.id);
    const current = kept?.engineVersion === ENGINE_VERSION && kept.offsetSec === take.offsetSec && kept.planId === planKey(take.plan);
    return { take, line: current ? (kept.json as TakeLine) : null };
  });
}
