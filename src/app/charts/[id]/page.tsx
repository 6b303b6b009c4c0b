import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { ChartsScreen } from '@/features/charts/ChartsScreen';
import { libraryEntry } from '@/features/charts/library';
import { listCharts } from '@/server/charts';

type Props = { params: Promise<{ id: string }> };
export const metadata: Metadata = { title: 'Charts' };

export default async function ChartPage({ params }: Props) {
  const { id } = await params;
  const charts = await listCharts();
  const chart = charts.find((one) => one.id === id);
  if (!chart) notFound();
  return <ChartsScreen key={id} library={charts.map(libraryEntry)} chart={{ id, text: chart.text }} />;
}
