import { format } from 'date-fns';
import { and, desc, eq, gt, gte, isNull } from 'drizzle-orm';
import { changesOf, readChart, timelineOf, type Pace } from '@/core/chart';
import {
  DAY_MS,
  dayOf,
  diaryOf,
  progressOf,
  sessionOf,
  spreadGoal,
  retentionOf,
  weekOf,
  weekStart,
  type DiaryDay,
  type DiaryEntry,
  type DueTune,
  type GoalDay,
  type Played,
  type Progress,
  type SessionStep,
} from '@/core/scheduling';
import { listCharts, type StoredChart } from './charts';
import { database, write } from './db/client';
import { diaryWords, drillRuns, drills, takes } from './db/schema';
import { latestRuns, listDrills, type StoredDrill, type StoredRun } from './drillRows';
import { readGoal, type StoredGoal } from './goal';
import { judgedTakes } from './judgedTakes';
import type { TakeSummary } from './takeSummaries';
import { asTake, playedSeconds, type StoredTake } from './takes';

/** Minutes the player's own time is ahead of UTC: the program runs on the player's machine. */
export const ownOffset = (at = Date.now()): number => -new Date(at).getTimezoneOffset();

/** A sitting at a drill takes about so long: four attempts with their counts. */
const DRILL_MINUTES = 4;
const TAKE_MINUTES = 5;
const REST_AFTER = 25;
const USUAL_MINUTES = 30;
const MOST_TAKES = 400;

type JudgedSolo = { readonly take: StoredTake; readonly line: TakeSummary };

/** Solos with what counts of them, newest first; those an older engine judged are judged anew. */
async function solos(title?: string): Promise<JudgedSolo[]> {
  return judgedTakes({ from: 0, most: MOST_TAKES, ...(title === undefined ? {} : { title }) });
}

const asPlayed = ({ take, line }: JudgedSolo): Played => ({
  id: take.id,
  at: take.createdAt,
  tempo: take.tempo,
  seconds: playedSeconds(take),
  measures: line.measures,
  key: line.key,
});

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

const asEnd = (
  { id, number, createdAt, chartText, tempo, pace, offsetSec, choruses }: StoredTake,
  moment: (at: number) => string,
): TakeEnd => ({
  id,
  number,
  at: createdAt,
  when: moment(createdAt),
  chartText,
  tempo,
  pace,
  offsetSec,
  choruses,
});

/** Tunes that were played, the latest first. */
export async function tunesPlayed(): Promise<string[]> {
  return [
    ...new Set(
      (
        await database()
          .select({ title: takes.title })
          .from(takes)
          .where(and(eq(takes.state, 'ready'), isNull(takes.removedAt), isNull(takes.drillId)))
          .orderBy(desc(takes.createdAt))
      ).map(({ title }) => title),
    ),
  ];
}

/** How one tune went over the weeks; all of them where none is named. */
export async function progressFor(
  title: string | null,
  moment: (at: number) => string = (at) => new Date(at).toISOString(),
): Promise<TuneProgress> {
  const found = await solos(title ?? undefined);
  const played = found.map(asPlayed);
  const sounding = found.filter(({ take }) => take.frames > 0 && take.soundGoneAt === null);
  const [last, first] = [sounding[0]?.take, sounding[sounding.length - 1]?.take];
  return {
    title: title ?? 'Every tune',
    progress: progressOf(played, ownOffset()),
    takes: played.length,
    minutes: played.reduce((sum, { seconds }) => sum + seconds, 0) / 60,
    ends:
      first && last && first.id !== last.id && first.chartText === last.chartText
        ? [asEnd(first, moment), asEnd(last, moment)]
        : null,
  };
}

/** How far a tune has come: kinds of change that were held in its last takes, of how many it has. */
export type TunePractice = {
  readonly chart: string;
  readonly title: string;
  readonly held: number;
  readonly of: number;
  readonly tempo: number | null;
  readonly takes: number;
  readonly lastPlayed: number | null;
};

const HELD = 0.75;
const LATEST = 3;

function tuneOf(chart: StoredChart, found: readonly JudgedSolo[]): TunePractice {
  const own = found.filter(({ take }) => take.chartId === chart.id);
  const latest = own.slice(0, LATEST);
  const kinds = new Map<string, { met: number; of: number }>();
  const read = readChart(chart.text);
  if (read.ok)
    for (const { from, to } of changesOf(timelineOf(read.value, 100), 1))
      kinds.set(`${from.symbol}→${to.symbol}`, { met: 0, of: 0 });
  for (const { line } of latest)
    for (const { from, to, met, of } of line.measures.kinds) {
      const row = kinds.get(`${from}→${to}`);
      if (row) kinds.set(`${from}→${to}`, { met: row.met + met, of: row.of + of });
    }
  const held = [...kinds.values()].filter(({ met, of }) => of >= 3 && met / of >= HELD).length;
  return {
    chart: chart.id,
    title: chart.title,
    held,
    of: kinds.size,
    tempo: latest[0] ? Math.round(latest[0].take.tempo) : null,
    takes: own.length,
    lastPlayed: own[0]?.take.createdAt ?? null,
  };
}

export type DueItem = { readonly drill: StoredDrill; readonly runs: readonly StoredRun[] };
export type Today = {
  /** The minutes there are today. */ readonly minutes: number;
  readonly goal: StoredGoal | null;
  /** Days left to the goal. */ readonly daysLeft: number | null;
  readonly spread: readonly GoalDay[];
  readonly steps: readonly SessionStep[];
  readonly items: readonly DueItem[];
  readonly tunes: readonly TunePractice[];
  readonly last: JudgedSolo | null;
  readonly minutesThisWeek: number;
  /** This week's takes against those before, by tune. */ readonly progress: Progress;
  readonly now: number;
};

/** Everything the first screen of the day shows. */
export async function today(now = Date.now(), minutes?: number): Promise<Today> {
  const [goal, charts, all, found] = [
    await readGoal(),
    await listCharts(),
    (await listDrills()).filter(({ away }) => !away),
    await solos(),
  ];
  const runs = await latestRuns(all.map(({ id }) => id));
  const tunes = charts.map((chart) => tuneOf(chart, found));
  const wanted = goal
    ? tunes.filter(({ chart }) => goal.charts.includes(chart))
    : tunes.filter(({ takes: played }) => played > 0);
  const dueTunes = wanted.map(({ chart, lastPlayed, held, of }): DueTune => ({
    chart,
    lastPlayed,
    minutes: TAKE_MINUTES,
    held,
    of,
  }));
  const steps = sessionOf({
    minutes: minutes ?? goal?.minutes ?? USUAL_MINUTES,
    now,
    restAfter: REST_AFTER,
    goal,
    tunes: dueTunes,
    drills: all.map(({ id, chartId, dueAt, memory }) => ({
      id,
      chart: chartId,
      dueAt,
      minutes: DRILL_MINUTES,
      still: retentionOf(memory, now),
    })),
  });
  const daysLeft = goal ? daysBetween(now, goal.date) : null;
  return {
    minutes: minutes ?? goal?.minutes ?? USUAL_MINUTES,
    goal,
    daysLeft,
    spread: goal && daysLeft !== null && daysLeft >= 0 ? spreadGoal(goal, dueTunes, daysLeft) : [],
    steps,
    now,
    items: all.map((drill) => ({ drill, runs: runs.get(drill.id) ?? [] })),
    tunes: goal ? wanted : wanted.slice(0, 3),
    last: found[0] ?? null,
    minutesThisWeek: await minutesSince(weekStart(weekOf(now, ownOffset(now)), ownOffset(now))),
    progress: progressOf(found.map(asPlayed), ownOffset(now)),
  };
}

/** Whole days of the player's own time from one moment to another. */
const daysBetween = (from: number, to: number): number =>
  Math.floor((to + ownOffset(to) * 60_000) / DAY_MS) - Math.floor((from + ownOffset(from) * 60_000) / DAY_MS);

async function minutesSince(start: number): Promise<number> {
  const rows = await database()
    .select()
    .from(takes)
    .where(and(eq(takes.state, 'ready'), gte(takes.createdAt, start)));
  return rows.map(asTake).reduce((sum, take) => sum + playedSeconds(take), 0) / 60;
}

export type DiaryPage = {
  readonly days: readonly DiaryDay[];
  readonly words: Readonly<Record<string, string>>;
  readonly earliest: string | null;
};

const DIARY_DAYS = 28;

/** A take in half a sentence: what was met, and what to practise. */
function saidOf({ met, judged, findings }: TakeSummary): string {
  const first = findings.find(({ kind }) => kind !== 'improved' && kind !== 'kept');
  return `${met} of ${judged} changes met${first ? `; next: ${first.title}` : ''}`;
}

/** The diary of four weeks up to a moment. */
export async function diary(until = Date.now()): Promise<DiaryPage> {
  const start = until - DIARY_DAYS * DAY_MS;
  const rows = await database()
    .select({ run: drillRuns, drill: drills })
    .from(drillRuns)
    .innerJoin(drills, eq(drills.id, drillRuns.drillId))
    .where(gte(drillRuns.createdAt, start));
  const tries = rows
    .filter(({ run }) => run.createdAt <= until)
    .map(({ run, drill }): DiaryEntry => ({
      kind: 'try',
      at: run.createdAt,
      drill: drill.id,
      name: (drill.json as { drill: { name: string } }).drill.name,
      title: drill.title,
      tempo: run.tempo,
      met: run.met,
      of: run.of,
      passed: run.passed,
      seconds: run.seconds,
    }));
  const played = (await solos())
    .filter(({ take }) => take.createdAt >= start && take.createdAt <= until)
    .map(({ take, line }): DiaryEntry => ({
      kind: 'take',
      at: take.createdAt,
      take: take.id,
      number: take.number,
      title: take.title,
      tempo: Math.round(take.tempo),
      seconds: playedSeconds(take),
      said: saidOf(line),
    }));
  const words = await database().select().from(diaryWords);
  const days = diaryOf([...tries, ...played], ownOffset());
  return {
    days,
    words: Object.fromEntries(words.map(({ day, text }) => [day, text])),
    earliest: days[days.length - 1]?.day ?? null,
  };
}

/** Keeps the player's words on a day; no words are none. */
export async function keepDiary(day: string, text: string): Promise<{ day: string; text: string }> {
  await write(async (tx) => {
    if (text.trim() === '') await tx.delete(diaryWords).where(eq(diaryWords.day, day));
    else
      await tx
        .insert(diaryWords)
        .values({ day, text, updatedAt: Date.now() })
        .onConflictDoUpdate({ target: diaryWords.day, set: { text, updatedAt: Date.now() } });
  });
  return { day, text };
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

/** The week it is, in the player's own time. */
export const presentWeek = (now = Date.now()): number => weekOf(now, ownOffset(now));

/** The diary by week, the present one first, as it is read and printed. */
export async function diaryWeeks(now = Date.now()): Promise<{
  weeks: { name: string; days: DiaryDay[]; minutes: number }[];
  words: DiaryPage['words'];
  today: string;
  goal: string | null;
}> {
  const [{ days, words }, goal] = [await diary(now), await readGoal()];
  const today = dayOf(now, ownOffset(now));
  // what was written on a day without a note is a day too
  const written = Object.keys(words)
    .filter(
      (day) =>
        !days.some((one) => one.day === day) && day >= dayOf(now - DIARY_DAYS * DAY_MS, ownOffset(now)),
    )
    .map((day): DiaryDay => ({ day, minutes: 0, lines: [] }));
  const all = [
    ...days,
    ...written,
    ...(days.some(({ day }) => day === today) || written.some(({ day }) => day === today)
      ? []
      : [{ day: today, minutes: 0, lines: [] }]),
  ].sort((a, b) => b.day.localeCompare(a.day));
  const weeks = new Map<number, DiaryDay[]>();
  for (const one of all) {
    const week = weekOf(new Date(`${one.day}T12:00:00`).getTime(), ownOffset(now));
    weeks.set(week, [...(weeks.get(week) ?? []), one]);
  }
  const present = presentWeek(now);
  const named = (week: number) => {
    if (week === present) return 'This week';
    if (week === present - 1) return 'Last week';
    return `Week of ${format(weekStart(week, ownOffset(now)) + DAY_MS / 2, 'd MMMM')}`;
  };
  const left = goal ? daysBetween(now, goal.date) : -1;
  return {
    weeks: [...weeks].map(([week, list]) => ({
      name: named(week),
      days: list,
      minutes: list.reduce((sum, { minutes }) => sum + minutes, 0),
    })),
    words,
    today,
    goal:
      goal && left >= 0
        ? `${goal.words.charAt(0).toUpperCase()}${goal.words.slice(1)} ${daysLeftWords(left)}.`
        : null,
  };
}

function daysLeftWords(left: number) {
  if (left === 0) return 'is today';
  if (left === 1) return 'is tomorrow';
  return `is in ${left} days`;
}
