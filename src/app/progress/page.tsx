import type { Metadata } from 'next';
import { typeset } from '@/core/music';
import { fastestPassed } from '@/core/scheduling';
import { ProgressScreen } from '@/features/progress/ProgressScreen';
import { momentIn } from '@/presentation';
import { datesOfRequest } from '@/server/datesOfRequest';
import { listCharts } from '@/server/charts';
import { progressFor, presentWeek } from '@/server/practice';
import { elementAt } from '@/core/shared';

export const metadata: Metadata = { title: 'Progress' };
export const dynamic = 'force-dynamic';

export default async function ProgressPage({ searchParams }: { searchParams: Promise<{ tune?: string }> }) {
  const { tune } = await searchParams;
  const dates = await datesOfRequest();
  const [{ chosen, titles, drills, ...progress }, charts] = await Promise.all([
    progressFor(tune, momentIn(dates), dates.firstWeekday),
    listCharts(),
  ]);
  return (
    <ProgressScreen
      key={chosen ?? ''}
      tune={progress}
      titles={titles}
      chosen={chosen}
      thisWeek={presentWeek(dates.firstWeekday)}
      chartId={charts.find(({ title }) => title === chosen)?.id ?? null}
      drills={drills
        .filter(({ runs }) => runs.length > 0)
        .map(({ drill, runs }) => ({
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
