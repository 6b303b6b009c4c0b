import { readChart } from '@/core/chart';
import { courseOf, type CourseStanding, type CourseStep, type DrillKind } from '@/core/drills';
import { isLearnt } from '@/core/scheduling';
import type { DueItem, TunePractice } from './practiceState';

/** A drill that the course through a tune comes to next. */
export type CourseOffer = { readonly chart: string; readonly title: string; readonly step: CourseStep };

/** How far the drills of one chart have come: learnt where the top of its ladder was passed. */
function standingIn(items: readonly DueItem[], chart: string): (kind: DrillKind) => CourseStanding {
  return (kind) => {
    const own = items.filter(({ drill }) => drill.chartId === chart && drill.drill.kind === kind);
    if (own.length === 0) return 'new';
    return own.some(({ drill, runs }) => isLearnt(drill.ladder, runs)) ? 'learnt' : 'begun';
  };
}

/** So many drills of a tune that are begun are enough: its course waits for them. */
const MOST_BEGUN = 3;

/** The next new drill of the first tune whose course is not full of begun ones. */
export function courseOffer(
  tunes: readonly TunePractice[],
  items: readonly DueItem[],
  textOf: (chart: string) => string | undefined,
): CourseOffer | null {
  for (const { chart, title } of tunes) {
    const read = readChart(textOf(chart) ?? '');
    if (!read.ok) continue;
    const { levels } = courseOf(standingIn(items, chart), read.value);
    const open = levels.find(({ isDone }) => !isDone);
    const step = open?.steps.find(({ standing }) => standing === 'new');
    const begun = levels.flatMap(({ steps }) => steps).filter(({ standing }) => standing === 'begun').length;
    if (step && begun < MOST_BEGUN) return { chart, title, step };
  }
  return null;
}
