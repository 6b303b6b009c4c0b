import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { readChart } from '@/core/chart';
import { PrintChart } from '@/features/charts/PrintChart';
import { chartById } from '@/server/charts';
import { orNotFound } from '../../../orNotFound';

type Props = { params: Promise<{ id: string }> };
export const metadata: Metadata = { title: 'Chart' };

export default async function PrintPage({ params }: Props) {
  const { id } = await params;
  const chart = await orNotFound(() => chartById(id));
  if (!readChart(chart.text).ok) redirect(`/charts/${id}`);
  return <PrintChart id={id} text={chart.text} />;
}
