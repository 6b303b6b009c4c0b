import { newcombeInterval, wilsonInterval, type Rate } from '../findings';
import { elementAt } from '../shared';
import { DAY_MS, type Timestamp } from './due';
import type { Measures } from './measures';

/** z of a two-sided 90 % interval: the range the true share lies in nine times in ten. */
const NINE_IN_TEN = 1.644854;
/** Fewer are too few to judge. */
export const FEWEST = 5;
/** A tempo is held where at least four in five were met there (common practice, no source). */
export const HELD = 0.8;

/** A take as progress sees it. */
export type Played = {
  readonly id: string;
  readonly at: Timestamp;
  readonly tempo: number;
  readonly seconds: number;
  readonly measures: Measures;
  /** The key the form stood in; empty where none is told. */ readonly key: string;
};

/**
 * Monday at midnight is where a week begins (ISO 8601); the player's own time is `offsetMinutes` ahead of UTC.
 */
export function weekOf(at: Timestamp, offsetMinutes: number): number {
  const local = at + offsetMinutes * 60_000;
  return Math.floor((local / DAY_MS + 3) / 7);
}
export const weekStart = (week: number, offsetMinutes: number): Timestamp =>
  (week * 7 - 3) * DAY_MS - offsetMinutes * 60_000;

export type WeekRate = Rate & { readonly week: number; readonly interval: readonly [number, number] };
export type ProgressVerdict =
  'better' | 'probably better' | 'as before' | 'probably worse' | 'worse' | 'too few to judge' | 'first week';

/** An attempt at a drill. */
export type Attempted = { readonly at: Timestamp; readonly seconds: number; readonly passed: boolean };

/** One thing over the weeks it was played in, oldest first. */
export type Course = {
  readonly weeks: readonly WeekRate[];
  /** First week against the last, with Newcombe's 95 % interval of the difference. */
  readonly verdict: ProgressVerdict;
  readonly difference: number | null;
  readonly between: readonly [number, number] | null;
  /** The fastest tempo at which it was met four times in five; null where there is none, or too little. */
  readonly heldAt: number | null;
  readonly plateau: ProgressPlateau | null;
};
export type KindCourse = Course & { readonly from: string; readonly to: string };

/** It has stood still below four in five: over how many weeks, and what else may be tried. */
export type ProgressPlateau = { readonly weeks: number; readonly advice: 'slower' | 'smaller' | 'other' };

type Dated = Rate & { readonly at: Timestamp; readonly tempo: number };

function courseOf(dated: readonly Dated[], offsetMinutes: number): Course {
  const weeks = new Map<number, { met: number; of: number }>();
  for (const { at, met, of } of dated) {
    const week = weekOf(at, offsetMinutes);
    const row = weeks.get(week) ?? { met: 0, of: 0 };
    weeks.set(week, { met: row.met + met, of: row.of + of });
  }
  const rows = [...weeks]
    .sort(([a], [b]) => a - b)
    .filter(([, { of }]) => of > 0)
    .map(([week, rate]): WeekRate => ({
      week,
      ...rate,
      interval: wilsonInterval(rate.met, rate.of, NINE_IN_TEN),
    }));
  return { weeks: rows, ...verdictOf(rows), heldAt: heldAt(dated), plateau: plateauOf(rows, dated) };
}

/** Better where the 95 % interval of the difference leaves zero; probably, where the 80 % interval does. */
function verdictOf(rows: readonly WeekRate[]): Pick<Course, 'verdict' | 'difference' | 'between'> {
  const [first, last] = [rows[0], rows[rows.length - 1]];
  if (!first || !last) return { verdict: 'too few to judge', difference: null, between: null };
  if (first === last)
    return { verdict: last.of < FEWEST ? 'too few to judge' : 'first week', difference: null, between: null };
  const between = newcombeInterval(first, last);
  const difference = last.met / last.of - first.met / first.of;
  if (first.of < FEWEST || last.of < FEWEST) return { verdict: 'too few to judge', difference, between };
  const likely = newcombeInterval(first, last, 1.281552);
  const verdict = adviceFor(between, likely);
  return { verdict, difference, between };
}

/**
 * The latest landings at each tempo decide, so many at least: what was not held a month ago may be held now.
 */
function heldAt(dated: readonly Dated[]): number | null {
  const tempi = new Map<number, { met: number; of: number }>();
  for (const { tempo, met, of } of [...dated].reverse()) {
    const rounded = Math.round(tempo);
    const row = tempi.get(rounded) ?? { met: 0, of: 0 };
    if (row.of < FEWEST) tempi.set(rounded, { met: row.met + met, of: row.of + of });
  }
  const held = [...tempi]
    .filter(([, { met, of }]) => of >= FEWEST && met / of >= HELD)
    .map(([tempo]) => tempo);
  return held.length === 0 ? null : Math.max(...held);
}

const PLATEAU_WEEKS = 3;
const PLATEAU_COUNT = 30;

/**
 * Three weeks or more, thirty times or more, none of them surely better than the first of them, and still
 * surely under four in five.
 * What to try: slower, where it was played faster than its slowest; else smaller, where it is met less than
 * half the time; else another way.
 */
function plateauOf(rows: readonly WeekRate[], dated: readonly Dated[]): ProgressPlateau | null {
  for (let from = 0; rows.length - from >= PLATEAU_WEEKS; from++) {
    const span = rows.slice(from);
    const all = span.reduce((sum, { met, of }) => ({ met: sum.met + met, of: sum.of + of }), {
      met: 0,
      of: 0,
    });
    const rises =
      span.slice(1).some((row) => newcombeInterval(elementAt(span, 0), row, NINE_IN_TEN)[0] > 0) ||
      newcombeInterval(half(span, 0), half(span, 1), NINE_IN_TEN)[0] > 0;
    if (all.of < PLATEAU_COUNT || rises || wilsonInterval(all.met, all.of)[1] >= HELD) continue;
    const tempi = dated.map(({ tempo }) => tempo);
    const latest = elementAt(dated, dated.length - 1).tempo;
    return {
      weeks: span.length,
      advice: probablyWords(latest, tempi, all),
    };
  }
  return null;
}

function half(rows: readonly WeekRate[], which: 0 | 1): Rate {
  const middle = Math.floor(rows.length / 2);
  return (which === 0 ? rows.slice(0, middle) : rows.slice(rows.length - middle)).reduce(
    (sum, { met, of }) => ({ met: sum.met + met, of: sum.of + of }),
    { met: 0, of: 0 },
  );
}

export type Progress = {
  readonly kinds: readonly KindCourse[];
  readonly tones: readonly (Course & { readonly name: string })[];
  readonly approaches: readonly (Course & { readonly name: string })[];
  /** Takes by key, most played first; notes by the fret under the index finger. */
  readonly keys: readonly { readonly key: string; readonly takes: number; readonly fastest: number }[];
  readonly places: readonly { readonly fret: number; readonly notes: number }[];
  /** Every week from the first that was played in to the last: minutes, takes, and attempts at drills. */
  readonly weeks: readonly {
    readonly week: number;
    readonly minutes: number;
    readonly takes: number;
    readonly attempts: number;
    readonly passed: number;
    readonly fastest: number | null;
  }[];
};

/**
 * How things went over the weeks, from the takes of one chart or of several. Never one average: counts, with
 * the range they leave open.
 */
export function progressOf(
  takes: readonly Played[],
  offsetMinutes: number,
  attempts: readonly Attempted[] = [],
): Progress {
  const inTime = [...takes].sort((a, b) => a.at - b.at);
  const collect = <T extends Rate>(rows: (measures: Measures) => readonly T[], name: (row: T) => string) => {
    const found = new Map<string, { row: T; dated: Dated[] }>();
    for (const { at, tempo, measures } of inTime)
      for (const row of rows(measures)) {
        const entry = found.get(name(row)) ?? { row, dated: [] };
        found.set(name(row), entry);
        entry.dated.push({ at, tempo, met: row.met, of: row.of });
      }
    return [...found.entries()];
  };
  return {
    kinds: collect(
      ({ kinds }) => kinds,
      ({ from, to }) => `${from}→${to}`,
    )
      .map(([, { row, dated }]) => ({ from: row.from, to: row.to, ...courseOf(dated, offsetMinutes) }))
      .sort(byMeaning),
    tones: collect(
      ({ tones }) => tones,
      ({ tone }) => tone,
    ).map(([name, { dated }]) => ({ name, ...courseOf(dated, offsetMinutes) })),
    approaches: collect(
      ({ approaches }) => approaches,
      ({ name }) => name,
    ).map(([name, { dated }]) => ({ name, ...courseOf(dated, offsetMinutes) })),
    keys: keysOf(inTime),
    places: placesOf(inTime),
    weeks: weeksOf(inTime, offsetMinutes, attempts),
  };
}

const RANK: Record<ProgressVerdict, number> = {
  better: 0,
  'probably better': 1,
  'as before': 2,
  'first week': 2,
  'probably worse': 3,
  worse: 4,
  'too few to judge': 5,
};
export const lastRate = ({ weeks }: Course): number => {
  const last = weeks[weeks.length - 1];
  return last ? last.met / last.of : 0;
};
/** What moved most surely first; among equals what is met most. */
const byMeaning = (a: KindCourse, b: KindCourse): number =>
  RANK[a.verdict] - RANK[b.verdict] ||
  lastRate(b) - lastRate(a) ||
  a.from.localeCompare(b.from) ||
  a.to.localeCompare(b.to);

function keysOf(takes: readonly Played[]): Progress['keys'] {
  const names = [...new Set(takes.flatMap(({ key }) => (key === '' ? [] : [key])))];
  return names
    .map((key) => {
      const own = takes.filter((take) => take.key === key);
      return { key, takes: own.length, fastest: Math.max(...own.map(({ tempo }) => tempo)) };
    })
    .sort((a, b) => b.takes - a.takes || a.key.localeCompare(b.key));
}

function placesOf(takes: readonly Played[]): Progress['places'] {
  const counts = new Map<number, number>();
  for (const { measures } of takes)
    for (const [fret, notes] of Object.entries(measures.places))
      counts.set(Number(fret), (counts.get(Number(fret)) ?? 0) + notes);
  return [...counts].sort(([a], [b]) => a - b).map(([fret, notes]) => ({ fret, notes }));
}

function weeksOf(
  takes: readonly Played[],
  offsetMinutes: number,
  attempts: readonly Attempted[],
): Progress['weeks'] {
  const played = [...takes, ...attempts].map(({ at }) => weekOf(at, offsetMinutes));
  if (played.length === 0) return [];
  const [first, last] = [Math.min(...played), Math.max(...played)];
  return Array.from({ length: last - first + 1 }, (_, index) => {
    const inside = takes.filter(({ at }) => weekOf(at, offsetMinutes) === first + index);
    const tried = attempts.filter(({ at }) => weekOf(at, offsetMinutes) === first + index);
    return {
      week: first + index,
      minutes: [...inside, ...tried].reduce((sum, { seconds }) => sum + seconds, 0) / 60,
      takes: inside.length,
      attempts: tried.length,
      passed: tried.filter(({ passed }) => passed).length,
      fastest: inside.length === 0 ? null : Math.max(...inside.map(({ tempo }) => tempo)),
    };
  });
}
export function adviceFor(between: readonly [number, number], likely: readonly [number, number]) {
  if (between[0] > 0) return 'better';
  if (between[1] < 0) return 'worse';
  if (likely[0] > 0) return 'probably better';
  if (likely[1] < 0) return 'probably worse';
  return 'as before';
}

export function probablyWords(latest: number, tempi: number[], all: { met: number; of: number }) {
  if (latest > Math.min(...tempi) * 1.05) return 'slower';
  if (all.met / all.of < 0.5) return 'smaller';
  return 'other';
}
