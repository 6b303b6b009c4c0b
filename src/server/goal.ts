import { and, eq, inArray, isNull } from 'drizzle-orm';
import type { Goal } from '@/core/scheduling';
import { database, write } from './db/client';
import { charts, settings } from './db/schema';
import { Failure } from './failure';
import { goalBody, type GoalBody } from './validation';

/** What the player is getting ready for, and how many minutes a day there are for it. */
export type StoredGoal = Goal & {
  /** The date in the player's own time. */ readonly day: string;
  readonly minutes: number;
};

const NAME = 'goal';

/** The last moment of a day where this program runs: a goal is met on its day. */
const endOf = (day: string): number => new Date(`${day}T23:59:59`).getTime();

export async function readGoal(): Promise<StoredGoal | null> {
  const [kept] = await database().select().from(settings).where(eq(settings.name, NAME));
  const { error, value } = goalBody.validate(kept?.json);
  if (error || !value || 'none' in value) return null;
  return {
    words: value.words,
    day: value.day,
    date: endOf(value.day),
    charts: value.charts,
    minutes: value.minutes,
  };
}

/** Keeps a goal, or that there is none. Its tunes must be there. */
export async function writeGoal(goal: GoalBody): Promise<StoredGoal | null> {
  await write(async (tx) => {
    const wanted = 'none' in goal ? [] : goal.charts;
    const found = await tx
      .select({ id: charts.id })
      .from(charts)
      .where(and(inArray(charts.id, wanted), isNull(charts.removedAt)));
    if (found.length < wanted.length)
      throw new Failure(422, {
        code: 'goal.charts',
        message: 'A tune of this goal is not among the charts.',
        suggestion: 'Choose its tunes again.',
      });
    await tx
      .insert(settings)
      .values({ name: NAME, json: goal })
      .onConflictDoUpdate({ target: settings.name, set: { json: goal } });
  });
  return readGoal();
}
