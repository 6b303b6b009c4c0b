import { and, desc, eq, isNull, lt, ne, sql } from 'drizzle-orm';
import { ENGINE_VERSION, type LandingMark, type Report } from '@/core/analyse';
import type { Edit, SecondsNote, TakeWords } from '@/core/correct';
import { planKey, type PlanWords } from '@/core/plan';
import type { SaidOfTake } from '@/core/assessment';
import type { TakeCase } from '@/core/review';
import { database, write } from './db/client';
import { reports, takeLines, takes, type TakeTrouble } from './db/schema';
import { editsOf, heardIn, wordsOf } from './corrections';
import { Failure, notFound } from './failure';
import type { EarlierCase, JudgedTake } from './judging/judgeRequest';
import { judgingThread } from './judging/judgingThread';
import { storeTakeSummary, takeSummaryOf } from './takeSummaries';
import { asTake, takeById, type StoredTake } from './takes';

/** Everything a review shows: derived, and kept only to be quick. */
export type Review = SaidOfTake & {
  readonly take: StoredTake;
  readonly heard: readonly SecondsNote[];
  readonly edits: readonly Edit[];
  readonly words: TakeWords;
  readonly report: Report;
  readonly marks: readonly LandingMark[];
  /** How surely the take holds a played line; null for takes heard before that was asked. */ readonly certainty:
    number | null;
  /** It was judged by an older engine before, and has been judged again by today's rules. */
  readonly isJudgedAnew?: boolean;
};

/** The review of a take by its plan; made anew where the engine is newer than what is kept. */
export async function reviewOf(takeId: string): Promise<Review> {
  const take = await takeById(takeId);
  if (take.state !== 'ready') throw notFound('take');
  const stored = await keptOf(take, take.plan);
  const transcription = await heardIn(takeId);
  const edits = await editsOf(takeId);
  const own = {
    take,
    heard: transcription?.notes ?? [],
    edits,
    words: await wordsOf(takeId),
    certainty: transcription?.certainty ?? null,
  };
  if (stored) return { ...own, ...stored };
  if (!transcription) throw notFound('take');
  const made = { ...(await judge(take)), ...((await wasJudgedBefore(take)) && { isJudgedAnew: true }) };
  const values = {
    takeId,
    planId: planKey(take.plan),
    engineVersion: ENGINE_VERSION,
    offsetSec: take.offsetSec,
    json: made,
  };
  await write(async (tx) => {
    await tx
      .insert(reports)
      .values(values)
      .onConflictDoUpdate({ target: [reports.takeId, reports.planId], set: values });
    await storeTakeSummary(tx, take, takeSummaryOf(take, made.report, made.marks, made.findings));
  });
  return { ...own, ...made };
}

/**
 * A review as an answer; null where the take is not ready. What is kept is text already: where it is current it is
 * sent as it is, for reading two megabytes only to write them out again takes longer than all the rest. All is asked
 * at once: the report that was made last is the one wanted, unless the plan was changed since.
 */
export async function reviewResponse(id: string): Promise<Response | Review | null> {
  const asking = database()
    .select({
      planId: reports.planId,
      engineVersion: reports.engineVersion,
      offsetSec: reports.offsetSec,
      text: sql<string>`${reports.json}`,
    })
    .from(reports)
    .innerJoin(takeLines, and(eq(takeLines.takeId, reports.takeId), eq(takeLines.planId, reports.planId)))
    .where(eq(reports.takeId, id));
  const [take, [kept], transcription, edits, words] = await Promise.all([
    takeById(id),
    asking,
    heardIn(id),
    editsOf(id),
    wordsOf(id),
  ]);
  if (take.state !== 'ready') return null;
  if (
    kept?.engineVersion !== ENGINE_VERSION ||
    kept.planId !== planKey(take.plan) ||
    kept.offsetSec !== take.offsetSec ||
    !kept.text.startsWith('{"report":{"schema":"idle-wander/report@1"')
  )
    return reviewOf(id);
  const own = JSON.stringify({
    take,
    heard: transcription?.notes ?? [],
    edits,
    words,
    certainty: transcription?.certainty ?? null,
  });
  return new Response(`${own.slice(0, -1)},${kept.text.slice(1)}`, {
    headers: { 'content-type': 'application/json' },
  });
}

/**
 * What was judged before; it is derived, by this program and from what it checked: where it is not this
 * engine's it is simply made anew.
 */
async function keptOf(take: StoredTake, plan: PlanWords): Promise<JudgedTake | null> {
  const [kept] = await database()
    .select()
    .from(reports)
    .where(and(eq(reports.takeId, take.id), eq(reports.planId, planKey(plan))));
  const stored = kept?.json as JudgedTake | undefined;
  const isCurrent =
    kept?.engineVersion === ENGINE_VERSION &&
    kept.offsetSec === take.offsetSec &&
    stored?.report?.schema === 'idle-wander/report@1' &&
    Array.isArray(stored.findings) &&
    stored.firstPage !== undefined;
  return isCurrent && stored ? stored : null;
}

/** Was this take judged by older rules? What is made anew says so, for its counts may differ from those seen then. */
async function wasJudgedBefore(take: StoredTake): Promise<boolean> {
  const kept = await database()
    .select({
      engineVersion: reports.engineVersion,
      anew: sql<number | null>`json_extract(${reports.json}, '$.isJudgedAnew')`,
    })
    .from(reports)
    .where(eq(reports.takeId, take.id));
  return kept.some(({ engineVersion, anew }) => engineVersion < ENGINE_VERSION || anew === 1);
}

/** So many takes of the same form before this one are what it may have bettered. */
const LOOK_BACK = 4;

/**
 * Judges a take in a thread of its own. A take that cannot be judged is written down as such, so that it is
 * not tried again by this
 * engine: its sound and notes stay, and it can be removed.
 */
async function judge(take: StoredTake): Promise<JudgedTake> {
  const own = await caseOf(take, take.plan);
  if (!own) throw notFound('take');
  if (take.trouble?.engineVersion === ENGINE_VERSION) throw unjudged(take.trouble.message);
  const earlier: EarlierCase[] = [];
  for (const before of await earlierTakes(take)) {
    const one = before.trouble ? null : await caseOf(before, take.plan);
    if (one) earlier.push({ one, report: (await keptOf(before, take.plan))?.report ?? null });
  }
  const answer = await judgingThread().judge({ own, earlier });
  if ('judged' in answer) return answer.judged;
  const trouble: TakeTrouble = { engineVersion: ENGINE_VERSION, message: answer.error };
  await write(async (tx) => void (await tx.update(takes).set({ trouble }).where(eq(takes.id, take.id))));
  throw unjudged(trouble.message);
}

const unjudged = (why: string): Failure =>
  new Failure(422, {
    code: 'take.unjudged',
    message: `This take cannot be judged. ${why}`,
    suggestion: 'Its sound and notes are safe: export it, or remove it.',
  });

/** Takes of the same chart text played before, oldest first. */
async function earlierTakes({ chartText, number }: StoredTake): Promise<StoredTake[]> {
  const rows = await database()
    .select()
    .from(takes)
    .where(
      and(
        eq(takes.state, 'ready'),
        eq(takes.chartText, chartText),
        isNull(takes.removedAt),
        isNull(takes.drillId),
        lt(takes.number, number),
      ),
    )
    .orderBy(desc(takes.number))
    .limit(LOOK_BACK);
  return rows.map(asTake).reverse();
}

/** All that decides what is said of a take, by a plan; null where its notes are gone. */
async function caseOf(take: StoredTake, plan: PlanWords): Promise<TakeCase | null> {
  const heard = await heardIn(take.id);
  const { chartText, tempo, pace, choruses, offsetSec, latencySec } = take;
  return (
    heard && {
      chartText,
      tempo,
      pace,
      choruses,
      plan,
      offsetSec,
      isLatencyMeasured: latencySec !== null,
      heard: heard.notes,
      edits: await editsOf(take.id),
    }
  );
}

const MOST_KIN = 60;

/** Other takes of the same form, newest first: what a take can be held beside. */
export async function siblingsOf(id: string): Promise<StoredTake[]> {
  const chartText = database().select({ chartText: takes.chartText }).from(takes).where(eq(takes.id, id));
  const rows = await database()
    .select()
    .from(takes)
    .where(
      and(
        eq(takes.state, 'ready'),
        eq(takes.chartText, chartText),
        isNull(takes.removedAt),
        isNull(takes.drillId),
        ne(takes.id, id),
      ),
    )
    .orderBy(desc(takes.number))
    .limit(MOST_KIN);
  return rows.map(asTake);
}
