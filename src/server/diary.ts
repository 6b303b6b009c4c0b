import { DAY_MS, dayOf, diaryOf, weekOf, weekStart, type DiaryDay, type DiaryEntry } from '@/core/scheduling';
import { isPraise } from '@/core/findings';
import { eq, gte } from 'drizzle-orm';
import { database, write } from './db/client';
import { diaryWords, drillRuns, drills } from './db/schema';
import { readGoal } from './goal';
import { judgedTakes } from './judgedTakes';
import type { Dates } from '@/presentation';
import { daysBetween, ownOffset, presentWeek, weekOffset } from './practice';
import type { TakeSummary } from './takeSummaries';
import { playedSeconds } from './takes';
export type DiaryPage = {
  readonly days: readonly DiaryDay[];
  readonly words: Readonly<Record<string, string>>;
  readonly earliest: string | null;
};

export const DIARY_DAYS = 28;
/** More than anybody plays in four weeks. */
const MOST_SOLOS = 1000;

/** A take in half a sentence: what was met, and what to practise. */
export function saidOf({ met, judged, findings }: TakeSummary): string {
  const first = findings.find((finding) => !isPraise(finding));
  return `${met} of ${judged} changes met${first ? `; next: ${first.title}` : ''}`;
}

/** The diary of four weeks up to a moment. */
export async function diary(until = Date.now()): Promise<DiaryPage> {
  const start = until - DIARY_DAYS * DAY_MS;
  const reading = database()
    .select({ run: drillRuns, drill: drills })
    .from(drillRuns)
    .innerJoin(drills, eq(drills.id, drillRuns.drillId))
    .where(gte(drillRuns.createdAt, start));
  const [rows, solos, words] = await Promise.all([
    reading,
    judgedTakes({ from: 0, most: MOST_SOLOS, since: start, until: until + 1 }),
    database().select().from(diaryWords),
  ]);
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
  const played = solos.map(({ take, line }): DiaryEntry => ({
    kind: 'take',
    at: take.createdAt,
    take: take.id,
    number: take.number,
    title: take.title,
    tempo: Math.round(take.tempo),
    seconds: playedSeconds(take),
    said: saidOf(line),
  }));
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

/** The diary by week, the present one first, as it is read and printed. */
export async function diaryWeeks(
  { day: dayWords, firstWeekday }: Pick<Dates, 'day' | 'firstWeekday'>,
  now = Date.now(),
): Promise<{
  weeks: { name: string; days: DiaryDay[]; minutes: number }[];
  words: DiaryPage['words'];
  today: string;
  goal: string | null;
}> {
  const [{ days, words }, goal] = await Promise.all([diary(now), readGoal()]);
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
    const week = weekOf(new Date(`${one.day}T12:00:00`).getTime(), weekOffset(firstWeekday, now));
    weeks.set(week, [...(weeks.get(week) ?? []), one]);
  }
  const present = presentWeek(firstWeekday, now);
  const named = (week: number) => {
    if (week === present) return 'This week';
    if (week === present - 1) return 'Last week';
    return `Week of ${dayWords(weekStart(week, weekOffset(firstWeekday, now)) + DAY_MS / 2)}`;
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

export function daysLeftWords(left: number) {
  if (left === 0) return 'is today';
  if (left === 1) return 'is tomorrow';
  return `is in ${left} days`;
}
