import Joi from 'joi';
import { and, desc, eq, lt } from 'drizzle-orm';
import { analyse, ENGINE_VERSION, type Report } from '@/core/analyse';
import { harmonyOf, readChart, timelineOf, type Chart } from '@/core/chart';
import { notesSchema, readReport, toBeats } from '@/core/formats';
import { planFromWords, planKey, planOf, type PlanChoice, type PlanWords } from '@/core/plan';
import { findingsOf, marksOf, praiseOf, type Finding, type FindingsRequest } from '@/core/practise';
import { certain } from '@/core/vocabulary';
import type { GateMark } from '@/core/analyse';
import { database, write } from './db/client';
import { notes, reports, takes } from './db/schema';
import { notFound } from './failure';
import { keepLine, lineOf } from './takeLines';
import { asTake, takeById, type StoredTake } from './takes';

/** Everything a review shows: derived, and kept only to be quick. */
export type Review = { readonly take: StoredTake; readonly report: Report; readonly findings: readonly Finding[]; readonly marks: readonly GateMark[]; /** How surely the take holds a played line; null for takes heard before that was asked. */ readonly certainty: number | null };
type Kept = Pick<Review, 'report' | 'findings' | 'marks'>;

/** The review of a take by its plan; made anew where the engine is newer than what is kept. */
export async function reviewOf(takeId: string): Promise<Review> {
  const take = await takeById(takeId);
  if (take.state !== 'ready') throw notFound('take');
  const [kept] = await database().select().from(reports).where(and(eq(reports.takeId, takeId), eq(reports.planId, planKey(take.plan))));
  const stored = kept?.json as Kept | undefined;
  const isCurrent = kept?.engineVersion === ENGINE_VERSION && kept.offsetSec === take.offsetSec;
  // what is kept is derived: where it cannot be read as a report it is simply made anew
  const certainty = await certaintyOf(takeId);
  if (stored && isCurrent && readReport(stored.report).ok) return { take, ...stored, certainty };
  const made = await judge(take);
  const values = { takeId, planId: planKey(take.plan), engineVersion: ENGINE_VERSION, offsetSec: take.offsetSec, json: made };
  await write(async (tx) => {
    await tx.insert(reports).values(values).onConflictDoUpdate({ target: [reports.takeId, reports.planId], set: values });
    await keepLine(tx, take, lineOf(take, made.report, made.marks));
  });
  return { take, ...made, certainty };
}

async function certaintyOf(takeId: string): Promise<number | null> {
  const [heard] = await database().select({ json: notes.json }).from(notes).where(eq(notes.takeId, takeId));
  return (heard?.json as { certainty?: number } | undefined)?.certainty ?? null;
}

export const planChoice = (plan: PlanWords): PlanChoice => certain(planFromWords(plan));

/** So many takes of the same form before this one are what it may have bettered. */
const LOOK_BACK = 4;

/** The take's own findings, what it did better than the takes before it first. */
async function judge(take: StoredTake): Promise<Kept> {
  const plan = planChoice(take.plan);
  const own = await heardBy(take, plan);
  if (!own) throw notFound('take');
  const before = await Promise.all((await earlierTakes(take)).map((earlier) => heardBy(earlier, plan)));
  // one thing that went well, then what to practise
  const praise = praiseOf([...before.flatMap((one) => one ?? []), own]).slice(0, 1);
  const { chart, tempo, report } = own;
  const timeline = timelineOf(chart, tempo);
  return { report, findings: [...praise, ...findingsOf(own)], marks: marksOf(report, planOf(plan, harmonyOf(chart, timeline), timeline), chart, tempo) };
}

/** Takes of the same chart text played before, oldest first. */
async function earlierTakes({ chartText, number }: StoredTake): Promise<StoredTake[]> {
  const rows = await database().select().from(takes).where(and(eq(takes.state, 'ready'), eq(takes.chartText, chartText), lt(takes.number, number))).orderBy(desc(takes.number)).limit(LOOK_BACK);
  return rows.map(asTake).reverse();
}

/** A take's notes held against its chart by a plan; null where its notes are gone. */
async function heardBy(take: StoredTake, plan: PlanChoice): Promise<FindingsRequest | null> {
  const [heard] = await database().select({ json: notes.json }).from(notes).where(eq(notes.takeId, take.id));
  if (!heard) return null;
  const chart: Chart = certain(readChart(take.chartText));
  const { tempo, choruses, offsetSec, pace } = take;
  const played = toBeats(Joi.attempt(heard.json, notesSchema), pace ?? tempo, offsetSec);
  // what sounds long before the count-in is over is tuning up, not a pickup
  return { chart, tempo, plan, report: analyse({ chart, tempo, plan, choruses, notes: played.filter((note) => note.onsetBeat >= -8) }) };
}
