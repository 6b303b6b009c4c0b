import type { Pace } from '@/core/chart';
import {
  DAY_MS,
  progressOf,
  sessionOf,
  spreadGoal,
  weekOf,
  weekStart,
  type GoalDay,
  type Progress,
  type SessionStep,
} from '@/core/scheduling';
import { and, desc, eq, gt, gte, isNull, max } from 'drizzle-orm';
import type { CourseOffer } from './course';
import { database } from './db/client';
import { takes } from './db/schema';
import { drillItems, type DrillItem } from './drillRows';
import type { StoredGoal } from './goal';
import { newestDrawnSolo, playedSolos, type DrawnSolo, type PlayedSolo, type SolosOf } from './playedSolos';
import {
  asDueDrill,
  DRILL_MINUTES,
  practiceState,
  REST_AFTER,
  type DueItem,
  type TunePractice,
} from './practiceState';
import { isReadySolo, playedSeconds } from './takes';

/** Minutes the player's own time is ahead of UTC: the program runs on the player's machine. */
export const ownOffset = (at = Date.now()): number => -new Date(at).getTimezoneOffset();

const MONDAY = 1;

/**
 * The same for weeks that begin on another day than Monday: it begins by so much earlier.
 * @param firstWeekday 0 is Sunday
 */
export const weekOffset = (firstWeekday: number, at = Date.now()): number =>
  ownOffset(at) + ((7 + MONDAY - firstWeekday) % 7) * 24 * 60;

/** A take at one end of the weeks, with all that is needed to hear it. */
export type TakeEnd = {
  readonly id: string;
  readonly number: number;
  readonly at: number;
  readonly when: string;
  readonly chartText: string;
  readonly tempo: number;
  readonly pace: Pace | null;
  readonly offsetSec: number;
  readonly choruses: number;
};

export type TuneProgress = {
  readonly title: string;
  readonly progress: Progress;
  readonly takes: number;
  readonly minutes: number;
  /** First and last take of the tune, to be heard one after the other. */ readonly ends:
    readonly [TakeEnd, TakeEnd] | null;
};

/** The progress of a tune with what stands beside it. */
export type TuneOfSeveral = TuneProgress & {
  /** The tune it is of; null is every tune. */ readonly chosen: string | null;
  /** Tunes that were played, the latest first. */ readonly titles: readonly string[];
  /** Its drills, the longest due first. */ readonly drills: readonly DrillItem[];
};

const asEnd = (
  { id, number, at, chartText, tempo, pace, offsetSec, choruses }: PlayedSolo,
  moment: (at: number) => string,
): TakeEnd => ({
  id,
  number,
  at,
  when: moment(at),
  chartText,
  tempo,
  pace,
  offsetSec,
  choruses,
});

/** Tunes that were played, the latest first. */
async function tunesPlayed(): Promise<string[]> {
  const rows = await database()
    .select({ title: takes.title })
    .from(takes)
    .where(isReadySolo())
    .groupBy(takes.title)
    .orderBy(desc(max(takes.createdAt)));
  return rows.map(({ title }) => title);
}

/**
 * How one tune went over the weeks.
 * @param tune its title; undefined is the tune played last, null and a tune that was never played are every tune
 */
export async function progressFor(
  tune: string | null | undefined,
  moment: (at: number) => string = (at) => new Date(at).toISOString(),
  firstWeekday = MONDAY,
): Promise<TuneOfSeveral> {
  const [titles, items, played] = await Promise.all([
    tunesPlayed(),
    drillItems(),
    playedSolos(solosOf(tune)),
  ]);
  if (typeof tune === 'string' && !titles.includes(tune)) return progressFor(null, moment, firstWeekday);
  const chosen = tune === undefined ? (played[0]?.title ?? titles[0] ?? null) : tune;
  const drills = items.filter(({ drill }) => chosen === null || drill.title === chosen);
  const sounding = played.filter(({ hasSound }) => hasSound);
  const [last, first] = [sounding[0], sounding[sounding.length - 1]];
  return {
    title: chosen ?? 'Every tune',
    chosen,
    titles,
    drills,
    progress: progressOf(
      played,
      weekOffset(firstWeekday),
      drills.flatMap(({ runs }) => runs),
    ),
    takes: played.length,
    minutes: played.reduce((sum, { seconds }) => sum + seconds, 0) / 60,
    ends:
      first && last && first.id !== last.id && first.chartText === last.chartText
        ? [asEnd(first, moment), asEnd(last, moment)]
        : null,
  };
}

function solosOf(tune: string | null | undefined): SolosOf {
  if (tune === undefined) return 'latest tune';
  return tune === null ? 'every tune' : { title: tune };
}

export type Today = {
  /** The minutes there are today. */ readonly minutes: number;
  readonly goal: StoredGoal | null;
  /** Days left to the goal. */ readonly daysLeft: number | null;
  readonly spread: readonly GoalDay[];
  readonly steps: readonly SessionStep[];
  readonly items: readonly DueItem[];
  readonly tunes: readonly TunePractice[];
  readonly last: DrawnSolo | null;
  readonly minutesThisWeek: number;
  /** This week's takes against those before, by tune. */ readonly progress: Progress;
  /** The next drill of the course through a tune, where none of it waits already. */
  readonly course: CourseOffer | null;
  readonly now: number;
};

/** Everything the first screen of the day shows. */
export async function today(now = Date.now(), minutes?: number, firstWeekday = MONDAY): Promise<Today> {
  const week = weekOffset(firstWeekday, now);
  const [state, drawn, minutesThisWeek] = await Promise.all([
    practiceState(minutes),
    newestDrawnSolo(),
    minutesSince(weekStart(weekOf(now, week), week)),
  ]);
  // those that were judged anew only now have another line
  const last = drawn && drawn.take.id !== state.found[0]?.id ? await newestDrawnSolo() : drawn;
  const { goal, found, items, tunes, dueTunes, course } = state;
  const steps = sessionOf({
    minutes: state.minutes,
    now,
    restAfter: REST_AFTER,
    goal,
    course: course && { chart: course.chart, minutes: DRILL_MINUTES },
    tunes: dueTunes,
    drills: items.map(({ drill }) => asDueDrill(drill, now)),
  });
  const daysLeft = goal ? daysBetween(now, goal.date) : null;
  return {
    minutes: state.minutes,
    goal,
    daysLeft,
    spread: goal && daysLeft !== null && daysLeft >= 0 ? spreadGoal(goal, dueTunes, daysLeft) : [],
    steps,
    now,
    items,
    course,
    tunes: goal ? tunes : tunes.slice(0, 3),
    last,
    minutesThisWeek,
    progress: progressOf(
      found,
      week,
      items.flatMap(({ runs }) => runs),
    ),
  };
}

/** Whole days of the player's own time from one moment to another. */
export const daysBetween = (from: number, to: number): number =>
  Math.floor((to + ownOffset(to) * 60_000) / DAY_MS) - Math.floor((from + ownOffset(from) * 60_000) / DAY_MS);

async function minutesSince(start: number): Promise<number> {
  const { frames, rate, choruses, tempo, chartText } = takes;
  const rows = await database()
    .select({ frames, rate, choruses, tempo, chartText })
    .from(takes)
    .where(and(eq(takes.state, 'ready'), gte(takes.createdAt, start)));
  return rows.reduce((sum, take) => sum + playedSeconds(take), 0) / 60;
}

/** Attempts that have sound, of a drill: the first and the last, to be heard one after the other. */
export async function endsOf(drillId: string): Promise<readonly [string, string] | null> {
  const rows = await database()
    .select({ id: takes.id })
    .from(takes)
    .where(
      and(
        eq(takes.drillId, drillId),
        eq(takes.state, 'ready'),
        isNull(takes.removedAt),
        gt(takes.frames, 0),
        isNull(takes.soundGoneAt),
      ),
    )
    .orderBy(takes.createdAt);
  const [first, last] = [rows[0]?.id, rows[rows.length - 1]?.id];
  return first && last && first !== last ? [first, last] : null;
}

/** The week it is, in the player's own time. @param firstWeekday 0 is Sunday */
export const presentWeek = (firstWeekday: number, now = Date.now()): number =>
  weekOf(now, weekOffset(firstWeekday, now));
