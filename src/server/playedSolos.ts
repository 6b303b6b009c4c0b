import { and, desc, eq, sql, type SQL } from 'drizzle-orm';
import { ENGINE_VERSION } from '@/core/analyse';
import type { Measures, Played } from '@/core/scheduling';
import { database } from './db/client';
import { takeLines, takes } from './db/schema';
import { judgedTakes } from './judgedTakes';
import { isCurrent, type TakeSummary } from './takeSummaries';
import { asTake, isReadySolo, playedSeconds, readPace, type StoredTake } from './takes';

/** A solo as practice counts it: what was measured in it, without the line that lists draw of it. */
export type PlayedSolo = Played &
  Pick<StoredTake, 'number' | 'chartId' | 'title' | 'chartText' | 'pace' | 'offsetSec' | 'choruses'> & {
    readonly hasSound: boolean;
  };

/** Whose solos: every tune's, those of one, or of the one played last. */
export type SolosOf = { readonly title: string } | 'every tune' | 'latest tune';

/** So many are counted, the newest. */
const MOST_TAKES = 400;

/** Their lines are several times as long as what is counted in them: the database takes that out. */
const measuresOfLine = sql<string | null>`json_extract(${takeLines.json}, '$.measures')`;

function ofTune(which: SolosOf): SQL | undefined {
  if (which === 'every tune') return undefined;
  if (which !== 'latest tune') return eq(takes.title, which.title);
  const latest = database()
    .select({ title: takes.title })
    .from(takes)
    .where(isReadySolo())
    .orderBy(desc(takes.createdAt), desc(takes.number))
    .limit(1);
  return eq(takes.title, latest);
}

const rowsOf = (which: SolosOf) =>
  database()
    .select({
      id: takes.id,
      number: takes.number,
      chartId: takes.chartId,
      title: takes.title,
      chartText: takes.chartText,
      createdAt: takes.createdAt,
      tempo: takes.tempo,
      choruses: takes.choruses,
      frames: takes.frames,
      rate: takes.rate,
      soundGoneAt: takes.soundGoneAt,
      plan: takes.plan,
      pace: takes.pace,
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
    .where(and(isReadySolo(), ofTune(which)))
    .orderBy(desc(takes.createdAt), desc(takes.number))
    .limit(MOST_TAKES);

type Row = Awaited<ReturnType<typeof rowsOf>>[number];

const isJudged = ({ judged, offsetSec, plan }: Row): boolean =>
  judged !== null && isCurrent(judged, { offsetSec, plan: plan as StoredTake['plan'] });

/** It was tried with this engine and cannot be judged: it is not tried again each time. */
const isGivenUp = ({ trouble }: Row): boolean => trouble?.engineVersion === ENGINE_VERSION;

/** Solos with what counts of them, newest first; those an older engine judged are judged anew. */
export async function playedSolos(which: SolosOf = 'every tune'): Promise<PlayedSolo[]> {
  let rows = await rowsOf(which);
  const late = rows.find((row) => !isJudged(row) && !isGivenUp(row));
  if (late) {
    await judgedTakes({ from: 0, most: MOST_TAKES, ...(which !== 'every tune' && { title: late.title }) });
    rows = await rowsOf(which);
  }
  return rows.flatMap((row) => {
    const { id, number, chartId, title, chartText, tempo, pace, offsetSec, choruses, key, measures } = row;
    if (!isJudged(row) || measures === null) return [];
    return [
      {
        id,
        number,
        chartId,
        title,
        chartText,
        at: row.createdAt,
        tempo,
        pace: readPace(pace),
        offsetSec,
        choruses,
        seconds: playedSeconds(row),
        measures: JSON.parse(measures) as Measures,
        key: key ?? '',
        hasSound: row.frames > 0 && row.soundGoneAt === null,
      },
    ];
  });
}

export type DrawnSolo = { readonly take: StoredTake; readonly line: TakeSummary };

/** The newest solo that was judged, with the line that is drawn of it; null where there is none. */
export async function newestDrawnSolo(): Promise<DrawnSolo | null> {
  const [row] = await database()
    .select({ take: takes, line: takeLines.json })
    .from(takes)
    .innerJoin(takeLines, eq(takeLines.takeId, takes.id))
    .where(isReadySolo())
    .orderBy(desc(takes.createdAt), desc(takes.number))
    .limit(1);
  return row ? { take: asTake(row.take), line: row.line as TakeSummary } : null;
}
