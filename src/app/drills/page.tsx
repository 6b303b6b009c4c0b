import type { Metadata } from 'next';
import { readChart } from '@/core/chart';
import { DRILL_KINDS } from '@/core/drills';
import { DrillsScreen } from '@/features/drills/DrillsScreen';
import { listCharts } from '@/server/charts';
import { drillItems } from '@/server/drillRows';

export const metadata: Metadata = { title: 'Drills' };

export default async function DrillsPage({
  searchParams,
}: {
  searchParams: Promise<{ chart?: string; course?: string }>;
}) {
  const [kept, items] = await Promise.all([listCharts(), drillItems()]);
  const charts = kept
    .filter(({ text }) => readChart(text).ok)
    .map(({ id, title, text }) => ({ id, title, text }));
  const { chart, course } = await searchParams;
  return (
    <DrillsScreen
      charts={charts}
      chartId={charts.find(({ id }) => id === chart)?.id ?? null}
      courseStep={DRILL_KINDS.find((kind) => kind === course) ?? null}
      items={items}
    />
  );
}
