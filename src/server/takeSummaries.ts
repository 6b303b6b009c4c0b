import { and, count, desc, eq, exists, gte, isNull, lt, lte, or, sql, type SQL } from 'drizzle-orm';
import { ENGINE_VERSION, type LandingMark, type Report } from '@/core/analyse';
import { harmonyOf, readChart, timelineOf } from '@/core/chart';
import { keyName } from '@/core/music';
import { measuresOf, type Measures } from '@/core/scheduling';
import { planKey } from '@/core/plan';
import { findingName, type Finding, type FindingKind } from '@/core/findings';
import { unwrap, elementAt } from '@/core/shared';
import { database, type Transaction } from './db/client';
import { takeFindings, takeLines, takes, takeWords } from './db/schema';
import { asTake, isReadySolo, type StoredTake } from './takes';
import type { TakeFilter } from './validation';

/**
 * What the list shows of a take: its counts, and its walk drawn small as [onset, end, height] and [beat,
 * mark].
 */
export type TakeSummary = {
  readonly met: number;
  readonly judged: number;
  readonly heard: number;
  readonly segments: number;
  /** The key the form stands in, and what was found, as far as it is worth saying: to choose takes by. */
  readonly key: string;
  readonly findings: readonly { readonly kind: FindingKind; readonly title: string }[];
  /** What counts for progress. */
  readonly measures: Measures;
  readonly profile: {
    readonly beats: number;
    readonly notes: readonly (readonly [number, number, number])[];
    readonly landings: readonly (readonly [number, LandingMark])[];
  };
};

/** Findings of less weight, or further down, are not what a take is looked for by. */
const WORTH_SAYING = 0.05;
const MOST_FINDINGS = 4;

const round = (beat: number): number => Math.round(beat * 100) / 100;

export function takeSummaryOf(
  take: Pick<StoredTake, 'chartText' | 'tempo'>,
  report: Report,
  marks: readonly LandingMark[],
  findings: readonly Finding[],
): TakeSummary {
  const chart = unwrap(readChart(take.chartText));
  const timeline = timelineOf(chart, take.tempo);
  const key = chart.key ?? harmonyOf(chart, timeline).regions[0]?.key;
  const judged = report.mutedBand.segments.filter((segment) => segment.verdict !== 'silent');
  return {
    met: report.summary.targetsMet,
    judged: report.summary.judgedChanges,
    heard: judged.filter((segment) => segment.verdict === 'heard').length,
    segments: judged.length,
    key: key ? keyName(key) : '',
    findings: findings
      .filter(({ weight }) => weight >= WORTH_SAYING)
      .slice(0, MOST_FINDINGS)
      .map(({ kind, title }) => ({ kind, title })),
    measures: measuresOf(report),
    profile: {
      beats: timeline.formBeats * report.summary.choruses,
      notes: report.notes
        .filter((note) => note.top)
        .map((note) => [round(note.onsetBeat), round(note.onsetBeat + note.durationBeats), note.height]),
      landings: report.changes.map((change, index) => [change.beat, elementAt(marks, index)]),
    },
  };
}

/** Keeps a take's line beside its report. */
export async function storeTakeSummary(tx: Transaction, take: StoredTake, line: TakeSummary): Promise<void> {
  const values = {
    takeId: take.id,
    engineVersion: ENGINE_VERSION,
    offsetSec: take.offsetSec,
    planId: planKey(take.plan),
    json: line,
  };
  await tx.insert(takeLines).values(values).onConflictDoUpdate({ target: takeLines.takeId, set: values });
  await tx.delete(takeFindings).where(eq(takeFindings.takeId, take.id));
  const kinds = [...new Set(line.findings.map(({ kind }) => kind))];
  if (kinds.length > 0)
    await tx.insert(takeFindings).values(kinds.map((kind) => ({ takeId: take.id, kind })));
}

type LineRow = Pick<typeof takeLines.$inferSelect, 'engineVersion' | 'offsetSec' | 'planId'>;

/** Was a line made by this engine, of the take as it stands now? */
export const isCurrent = (line: LineRow, take: Pick<StoredTake, 'offsetSec' | 'plan'>): boolean =>
  line.engineVersion === ENGINE_VERSION &&
  line.offsetSec === take.offsetSec &&
  line.planId === planKey(take.plan);

export type ListedTake = {
  readonly take: StoredTake;
  /** Null where it has to be judged first. */ readonly line: TakeSummary | null;
  readonly stars: number;
};

function wanted(filter: TakeFilter): SQL | undefined {
  const like = filter.text ? `%${filter.text.toLowerCase().replace(/[\\%_]/g, '\\$&')}%` : null;
  return and(
    isReadySolo(),
    like
      ? or(
          sql`lower(${takes.title}) like ${like} escape '\\'`,
          sql`${takeWords.search} like ${like} escape '\\'`,
        )
      : undefined,
    filter.title ? eq(takes.title, filter.title) : undefined,
    filter.plan ? eq(takes.planId, filter.plan) : undefined,
    filter.key ? eq(takeLines.key, filter.key) : undefined,
    filter.finding
      ? exists(
          database()
            .select({ one: sql`1` })
            .from(takeFindings)
            .where(and(eq(takeFindings.takeId, takes.id), eq(takeFindings.kind, filter.finding))),
        )
      : undefined,
    filter.slowest === undefined ? undefined : gte(takes.tempo, filter.slowest - 0.5),
    filter.fastest === undefined ? undefined : lte(takes.tempo, filter.fastest + 0.5),
    filter.since === undefined ? undefined : gte(takes.createdAt, filter.since),
    filter.until === undefined ? undefined : lt(takes.createdAt, filter.until),
    filter.stars ? gte(takeWords.stars, filter.stars) : undefined,
  );
}

/** Ready takes with their lines, newest first, from one place of the list on; and how many there are. */
export async function findTakeSummaries(
  filter: TakeFilter,
  from: number,
  most: number,
): Promise<{ total: number; listed: ListedTake[] }> {
  const chosen = wanted(filter);
  const counting = database()
    .select({ total: count() })
    .from(takes)
    .leftJoin(takeLines, eq(takeLines.takeId, takes.id))
    .leftJoin(takeWords, eq(takeWords.takeId, takes.id))
    .where(chosen);
  const reading = database()
    .select({
      take: takes,
      line: takeLines,
      stars: takeWords.stars,
    })
    .from(takes)
    .leftJoin(takeLines, eq(takeLines.takeId, takes.id))
    .leftJoin(takeWords, eq(takeWords.takeId, takes.id))
    .where(chosen)
    .orderBy(desc(takes.createdAt), desc(takes.number))
    .limit(most)
    .offset(from);
  const [[counted], rows] = await Promise.all([counting, reading]);
  return {
    total: counted?.total ?? 0,
    listed: rows.map(({ take: row, line, stars }) => {
      const take = asTake(row);
      const own = line && isCurrent(line, take) ? (line.json as TakeSummary) : null;
      return { take, line: own, stars: stars ?? 0 };
    }),
  };
}

export type TakeFacets = {
  readonly titles: readonly string[];
  readonly plans: readonly string[];
  readonly keys: readonly string[];
  readonly findings: readonly { readonly kind: string; readonly name: string; readonly count: number }[];
};

/** What there is to choose by. */
export async function takeFacets(): Promise<TakeFacets> {
  const titles = database()
    .select({ title: takes.title })
    .from(takes)
    .where(and(eq(takes.state, 'ready'), isNull(takes.removedAt)))
    .groupBy(takes.title)
    .orderBy(takes.title);
  const plans = database()
    .select({ plan: takes.planId })
    .from(takes)
    .where(and(eq(takes.state, 'ready'), isNull(takes.removedAt)))
    .groupBy(takes.planId);
  const keys = database()
    .select({ key: takeLines.key })
    .from(takeLines)
    .groupBy(takeLines.key)
    .orderBy(takeLines.key);
  const findings = database()
    .select({ kind: takeFindings.kind, count: count() })
    .from(takeFindings)
    .groupBy(takeFindings.kind)
    .orderBy(desc(count()));
  const [byTitle, byPlan, byKey, byFinding] = await Promise.all([titles, plans, keys, findings]);
  return {
    titles: byTitle.map(({ title }) => title),
    plans: byPlan.flatMap(({ plan }) => plan ?? []),
    keys: byKey.flatMap(({ key }) => (key ? [key] : [])),
    findings: byFinding.map(({ kind, count: takesWithIt }) => ({
      kind,
      name: findingName(kind as FindingKind),
      count: takesWithIt,
    })),
  };
}
