import { changesOf, readChart, timelineOf } from '@/core/chart';
import { afterSitting, DAY_MS, HELD, retentionOf, type DueDrill, type DueTune } from '@/core/scheduling';
import { elementAt } from '@/core/shared';
import { courseOffer, type CourseOffer } from './course';
import { listCharts, type StoredChart } from './charts';
import { latestRuns, listDrills, type StoredDrill, type StoredRun } from './drillRows';
import { readGoal, type StoredGoal } from './goal';
import { playedSolos, type PlayedSolo } from './playedSolos';

/** A sitting at a drill takes about so long: four attempts with their counts. */
export const DRILL_MINUTES = 4;
const TAKE_MINUTES = 5;
export const REST_AFTER = 25;
const USUAL_MINUTES = 30;

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

const LATEST = 3;

function tuneOf(chart: StoredChart, found: readonly PlayedSolo[]): TunePractice {
  const own = found.filter(({ chartId }) => chartId === chart.id);
  const latest = own.slice(0, LATEST);
  const kinds = new Map<string, { met: number; of: number }>();
  const read = readChart(chart.text);
  if (read.ok)
    for (const { from, to } of changesOf(timelineOf(read.value, 100), 1))
      kinds.set(`${from.symbol}→${to.symbol}`, { met: 0, of: 0 });
  for (const { measures } of latest)
    for (const { from, to, met, of } of measures.kinds) {
      const row = kinds.get(`${from}→${to}`);
      if (row) kinds.set(`${from}→${to}`, { met: row.met + met, of: row.of + of });
    }
  const held = [...kinds.values()].filter(({ met, of }) => of >= 3 && met / of >= HELD).length;
  return {
    chart: chart.id,
    title: chart.title,
    held,
    of: kinds.size,
    tempo: latest[0] ? Math.round(latest[0].tempo) : null,
    takes: own.length,
    lastPlayed: own[0]?.at ?? null,
  };
}

export type DueItem = { readonly drill: StoredDrill; readonly runs: readonly StoredRun[] };
const asDueTune = ({ chart, lastPlayed, held, of }: TunePractice): DueTune => ({
  chart,
  lastPlayed,
  minutes: TAKE_MINUTES,
  held,
  of,
});

/** When a drill would come back after a sitting in which it was passed where it stands. */
function wellPlayed({ ladder, memory }: StoredDrill, now: number): number {
  const passed = { tempo: elementAt(ladder.rungs, ladder.at), met: 1, of: 1, passed: true };
  return afterSitting(ladder, memory, [passed], Math.max(now, memory?.lastReview ?? 0)).dueAt;
}

/** @param now when the chance that it is still passed is asked */
export const asDueDrill = (drill: StoredDrill, now: number): DueDrill => ({
  id: drill.id,
  chart: drill.chartId,
  dueAt: drill.dueAt,
  minutes: DRILL_MINUTES,
  still: retentionOf(drill.memory, now),
  waitsForItsDay: drill.isMoved,
  backAfter: Math.round((wellPlayed(drill, now) - now) / DAY_MS),
});

export type PracticeState = {
  /** The minutes there are a day. */ readonly minutes: number;
  readonly goal: StoredGoal | null;
  readonly found: readonly PlayedSolo[];
  readonly items: readonly DueItem[];
  /** The tunes of the goal; without one, those that were played. */ readonly tunes: readonly TunePractice[];
  readonly dueTunes: readonly DueTune[];
  /** The next drill of the course through a tune, where none of it waits already. */
  readonly course: CourseOffer | null;
};

/** All that a day's practice is chosen from. */
export async function practiceState(minutes?: number): Promise<PracticeState> {
  const [goal, charts, drillsKept, runs, found] = await Promise.all([
    readGoal(),
    listCharts(),
    listDrills(),
    latestRuns(),
    playedSolos(),
  ]);
  const all = drillsKept.filter(({ away }) => !away);
  const every = charts.map((chart) => tuneOf(chart, found));
  const tunes = goal
    ? every.filter(({ chart }) => goal.charts.includes(chart))
    : every.filter(({ takes }) => takes > 0);
  const items = all.map((drill): DueItem => ({ drill, runs: runs.get(drill.id) ?? [] }));
  return {
    minutes: minutes ?? goal?.minutes ?? USUAL_MINUTES,
    goal,
    found,
    items,
    tunes,
    dueTunes: tunes.map(asDueTune),
    course: courseOffer(tunes, items, (id) => charts.find((chart) => chart.id === id)?.text),
  };
}
