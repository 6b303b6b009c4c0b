import type { Metadata } from 'next';
import { typeset } from '@/core/music';
import { fastestPassed } from '@/core/scheduling';
import { ProgressScreen } from '@/features/progress/ProgressScreen';
import { momentIn } from '@/presentation';
import { datesOfRequest } from '@/server/datesOfRequest';
import { listCharts } from '@/server/charts';
import { drillItems } from '@/server/drillRows';
import { progressFor, presentWeek, tunesPlayed } from '@/server/practice';
import { elementAt } from '@/core/shared';

export const metadata: Metadata = { title: 'Progress' };
export const dynamic = 'force-dynamic';

export default async function ProgressPage({ searchParams }: { searchParams: Promise<{ tune?: string }> }) {
  const { tune } = await searchParams;
  const dates = await datesOfRequest();
  const titles = await tunesPlayed();
  // the tune played last, unless another one, or every one, was asked for
  let chosen: string | null;
  if (tune === undefined) chosen = titles[0] ?? null;
  else if (titles.includes(tune)) chosen = tune;
  else chosen = null;
  const [items, progress, charts] = await Promise.all([
    drillItems(),
    progressFor(chosen, momentIn(dates), dates.firstWeekday),
    listCharts(),
  ]);
  const drills = items.filter(
    ({ drill, runs }) => runs.length > 0 && (chosen === null || drill.title === chosen),
  );
  return (
    <ProgressScreen
      key={chosen ?? ''}
      tune={progress}
      titles={titles}
      chosen={chosen}
      thisWeek={presentWeek(dates.firstWeekday)}
      chartId={charts.find(({ title }) => title === chosen)?.id ?? null}
      drills={drills.map(({ drill, runs }) => ({
        id: drill.id,
        name: typeset(drill.drill.name),
        title: drill.title,
        fastest: fastestPassed(runs),
        now: elementAt(drill.ladder.rungs, drill.ladder.at),
        tries: runs.length,
      }))}
    />
  );
}
