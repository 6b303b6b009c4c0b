import { and, desc, eq, sql } from 'drizzle-orm';
import { ENGINE_VERSION } from '@/core/analyse';
import type { Measures, Played } from '@/core/scheduling';
import { database } from './db/client';
import { takeLines, takes } from './db/schema';
import { judgedTakes } from './judgedTakes';
import { isCurrent, type TakeSummary } from './takeSummaries';
import { asTake, isReadySolo, playedSeconds, type StoredTake } from './takes';

/** A solo as practice counts it: what was measured in it, without the line that lists draw of it. */
export type PlayedSolo = Played &
  Pick<StoredTake, 'number' | 'chartId' | 'chartText'> & { readonly hasSound: boolean };

/** So many are counted, the newest. */
const MOST_TAKES = 400;

/** Their lines are several times as long as what is counted in them: the database takes that out. */
const measuresOfLine = sql<string | null>`json_extract(${takeLines.json}, '$.measures')`;

const rowsOf = (title: string | undefined) =>
  database()
    .select({
      id: takes.id,
      number: takes.number,
      chartId: takes.chartId,
      chartText: takes.chartText,
      createdAt: takes.createdAt,
      tempo: takes.tempo,
      choruses: takes.choruses,
      frames: takes.frames,
      rate: takes.rate,
      soundGoneAt: takes.soundGoneAt,
      plan: takes.plan,
      offsetSec: takes.offsetSec,
      trouble: takes.trouble,
      key: takeLines.key,
      measures: measuresOfLine,
      judged: {
        engineVersion: takeLines.engineVersion,
        offsetSec: takeLines.offsetSec,
        planId: takeLines.planId,
      },
    })
    .from(takes)
    .leftJoin(takeLines, eq(takeLines.takeId, takes.id))
    .where(and(isReadySolo(), title === undefined ? undefined : eq(takes.title, title)))
    .orderBy(desc(takes.createdAt), desc(takes.number))
    .limit(MOST_TAKES);

type Row = Awaited<ReturnType<typeof rowsOf>>[number];

const isJudged = ({ judged, offsetSec, plan }: Row): boolean =>
  judged !== null && isCurrent(judged, { offsetSec, plan: plan as StoredTake['plan'] });

/** It was tried with this engine and cannot be judged: it is not tried again each time. */
const isGivenUp = ({ trouble }: Row): boolean => trouble?.engineVersion === ENGINE_VERSION;

/** Solos with what counts of them, newest first; those an older engine judged are judged anew. */
export async function playedSolos(title?: string): Promise<PlayedSolo[]> {
  let rows = await rowsOf(title);
  if (rows.some((row) => !isJudged(row) && !isGivenUp(row))) {
    await judgedTakes({ from: 0, most: MOST_TAKES, ...(title === undefined ? {} : { title }) });
    rows = await rowsOf(title);
  }
  return rows.flatMap((row) => {
    const { id, number, chartId, chartText, tempo, createdAt: at, key, measures } = row;
    if (!isJudged(row) || measures === null) return [];
    return [
      {
        id,
        number,
        chartId,
        chartText,
        at,
        tempo,
        seconds: playedSeconds(row),
        measures: JSON.parse(measures) as Measures,
        key: key ?? '',
        hasSound: row.frames > 0 && row.soundGoneAt === null,
      },
    ];
  });
}

/** A solo with the line that is drawn of it; null where there is none. */
export async function drawnSolo(
  id: string | undefined,
): Promise<{ readonly take: StoredTake; readonly line: TakeSummary } | null> {
  if (id === undefined) return null;
  const [row] = await database()
    .select({ take: takes, line: takeLines.json })
    .from(takes)
    .innerJoin(takeLines, eq(takeLines.takeId, takes.id))
    .where(eq(takes.id, id));
  return row ? { take: asTake(row.take), line: row.line as TakeSummary } : null;
}
