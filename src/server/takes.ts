import { and, desc, eq, isNull, max, sum, type SQL } from 'drizzle-orm';
import Joi from 'joi';
import { ENGINE_VERSION } from '@/core/analyse';
import type { DropOut } from '@/core/band';
import { readChart, timelineOf, type Pace } from '@/core/chart';
import { dropOutSchema, paceSchema, planSchema } from '@/core/formats';
import { planFromWords, type PlanWords } from '@/core/plan';
import { beatsToSeconds, present } from '@/core/shared';
import { chartById } from './charts';
import { database, write } from './db/client';
import { audioChunks, charts, notes, reports, searchedLines, takes } from './db/schema';
import { Failure, notFound } from './failure';
import { newId } from './ids';
import type { FinishBody, NewTakeBody } from './validation';

export type StoredTake = Omit<typeof takes.$inferSelect, 'plan' | 'pace' | 'dropOut'> & {
  plan: PlanWords;
  pace: Pace | null;
  dropOut: DropOut | null;
};

const storedSchema = Joi.object<Pick<StoredTake, 'plan' | 'pace' | 'dropOut'>>({
  plan: planSchema.required(),
  pace: paceSchema.allow(null).required(),
  dropOut: dropOutSchema.allow(null).required(),
});

/** Stands in where a stored plan cannot be read: every other part of the take is still there. */
const NO_PLAN: PlanWords = { id: 'scale-per-chord' };

/**
 * A row as the rest of the program knows it. One whose documents cannot be read is shown, and said to be
 * damaged.
 */
export function asTake(row: typeof takes.$inferSelect): StoredTake {
  const { plan, pace, dropOut } = row;
  const { error, value } = storedSchema.validate({ plan, pace, dropOut }, { convert: false });
  if (!error) return { ...row, ...value };
  const trouble = {
    engineVersion: ENGINE_VERSION,
    message: `Its settings cannot be read: ${error.message}.`,
  };
  return { ...row, plan: NO_PLAN, pace: null, dropOut: null, trouble };
}

/** The pace of a row; null where it has none that can be read. */
export function readPace(json: unknown): Pace | null {
  const { error, value } = paceSchema.validate(json ?? undefined, { convert: false });
  return error ? null : (value ?? null);
}

/** Which takes are ready solos: attempts at a drill are found with their drill, what was thrown away in the trash. */
export const isReadySolo = (): SQL | undefined =>
  and(eq(takes.state, 'ready'), isNull(takes.removedAt), isNull(takes.drillId));

/** Ready solos, newest first. */
export async function listTakes(): Promise<StoredTake[]> {
  return (await database().select().from(takes).where(isReadySolo()).orderBy(desc(takes.createdAt))).map(
    asTake,
  );
}

/** Takes that were cut off: sound is there, an end is not. */
export async function interruptedTakes(): Promise<StoredTake[]> {
  return (
    await database()
      .select()
      .from(takes)
      .where(and(eq(takes.state, 'recording'), isNull(takes.removedAt)))
      .orderBy(desc(takes.createdAt))
  ).map(asTake);
}

export async function takeById(id: string): Promise<StoredTake> {
  const [take] = await database()
    .select()
    .from(takes)
    .where(and(eq(takes.id, id), isNull(takes.removedAt)));
  if (!take) throw notFound('take');
  return asTake(take);
}

type Length = Pick<StoredTake, 'frames' | 'rate' | 'choruses' | 'tempo' | 'chartText'>;

/** How long a take was played: its sound, or its form where it never had any. */
export function playedSeconds({ frames, rate, choruses, tempo, chartText }: Length): number {
  if (frames > 0) return frames / rate;
  const read = readChart(chartText);
  return read.ok ? beatsToSeconds(timelineOf(read.value, tempo).formBeats * choruses, tempo) : 0;
}

/** A take by the number people say. */
export async function takeByNumber(number: number): Promise<StoredTake> {
  const [take] = await database()
    .select()
    .from(takes)
    .where(and(eq(takes.number, number), isNull(takes.removedAt)));
  if (!take) throw notFound('take');
  return asTake(take);
}

/**
 * Begins a take on a frozen copy of its chart. Refused where the chart cannot be read: there would be
 * nothing to hold the notes against.
 * A take that was begun already, by its id, is begun no second time.
 */
export async function beginTake(body: NewTakeBody): Promise<StoredTake> {
  const chart = await chartOf(body);
  const read = readChart(chart.text);
  if (!read.ok)
    throw new Failure(422, {
      ...read.problems[0],
      message: `This chart cannot be played yet. ${read.problems[0].message}`,
    });
  checkPlan(body.plan);
  return write(async (tx) => {
    const [begun] = body.id === undefined ? [] : await tx.select().from(takes).where(eq(takes.id, body.id));
    if (begun) return asTake(begun);
    const [last] = await tx.select({ number: max(takes.number) }).from(takes);
    const {
      tempo,
      choruses,
      plan,
      rate,
      source,
      pace = null,
      bits = 16,
      device = null,
      latencySec = null,
      createdAt,
      dropOut = null,
      drillId = null,
    } = body;
    const [take] = await tx
      .insert(takes)
      .values({
        id: body.id ?? newId(),
        chartId: chart.id,
        title: body.title ?? chart.title,
        number: (last?.number ?? 0) + 1,
        state: 'recording',
        source,
        chartText: chart.text,
        tempo,
        choruses,
        plan,
        rate,
        pace,
        bits,
        device,
        latencySec,
        dropOut,
        drillId,
        ...(createdAt === undefined ? {} : { createdAt: Math.min(createdAt, Date.now()) }),
      })
      .returning();
    return asTake(present(take));
  });
}

/**
 * The chart as it was played: the text that came with the take, or the stored one. A chart removed meanwhile
 * loses no take.
 */
async function chartOf({
  chartId,
  chartText,
  title,
}: NewTakeBody): Promise<{ id: string | null; title: string; text: string }> {
  if (chartText === undefined) return chartById(chartId);
  const [stored] = await database()
    .select({ id: charts.id, title: charts.title })
    .from(charts)
    .where(and(eq(charts.id, chartId), isNull(charts.removedAt)));
  return { id: stored?.id ?? null, title: stored?.title ?? title ?? 'Untitled', text: chartText };
}

function checkPlan(plan: PlanWords): void {
  const read = planFromWords(plan);
  if (!read.ok) throw new Failure(422, read.problems[0]);
}

/** Closes a take: its sound must be whole, then notes and state change together. */
export function finishTake(
  id: string,
  { frames, offsetSec, transcription }: FinishBody,
): Promise<StoredTake> {
  return write(async (tx) => {
    const [take] = await tx.select().from(takes).where(eq(takes.id, id));
    if (!take) throw notFound('take');
    // an end that was not heard of is told again
    if (take.state === 'ready' && take.frames === frames) return asTake(take);
    if (take.state === 'ready')
      throw new Failure(409, { code: 'take.closed', message: 'This take is already finished.' });
    const [stored] = await tx
      .select({ frames: sum(audioChunks.frames) })
      .from(audioChunks)
      .where(eq(audioChunks.takeId, id));
    if (Number(stored?.frames ?? 0) !== frames)
      throw new Failure(409, {
        code: 'take.incomplete',
        message: `Of ${frames} frames ${Number(stored?.frames ?? 0)} have arrived.`,
        suggestion: 'Send the missing chunks, then finish again.',
      });
    await tx
      .insert(notes)
      .values({ takeId: id, json: transcription })
      .onConflictDoUpdate({ target: notes.takeId, set: { json: transcription } });
    const [done] = await tx
      .update(takes)
      .set({ state: 'ready', frames, offsetSec })
      .where(eq(takes.id, id))
      .returning();
    return asTake(present(done));
  });
}

/** Moves beat 0, or judges by another plan; reports follow by themselves. */
export async function amendTake(
  id: string,
  change: { offsetSec?: number; plan?: PlanWords },
): Promise<StoredTake> {
  if (change.plan) checkPlan(change.plan);
  return write(async (tx) => {
    const [take] = await tx
      .update(takes)
      .set({ ...change, trouble: null })
      .where(eq(takes.id, id))
      .returning();
    if (!take) throw notFound('take');
    await tx.delete(reports).where(eq(reports.takeId, id));
    await tx.delete(searchedLines).where(eq(searchedLines.takeId, id));
    return asTake(take);
  });
}
