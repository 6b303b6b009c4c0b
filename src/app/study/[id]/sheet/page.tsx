import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { readChart } from '@/core/chart';
import { SheetScreen } from '@/features/study/SheetScreen';
import { chartById } from '@/server/charts';
import { planInAddress } from '@/server/validation';
import { orNotFound } from '../../../orNotFound';

type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ plan?: string; position?: string }> };
export const metadata: Metadata = { title: 'Sheet' };

export default async function SheetPage({ params, searchParams }: Props) {
  const { id } = await params;
  const { plan, position } = await searchParams;
  const chart = await orNotFound(() => chartById(id));
  if (!readChart(chart.text).ok) redirect(`/study/${id}`);
  const fret = Number(position);
  return (
    <SheetScreen
      chart={{ id, text: chart.text }}
      plan={planInAddress(plan) ?? { id: 'scale-per-chord' }}
      position={Number.isInteger(fret) && fret >= 1 && fret <= 20 ? fret : 5}
    />
  );
}
