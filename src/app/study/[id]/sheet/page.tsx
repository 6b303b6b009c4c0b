import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { readChart } from '@/core/chart';
import { SHEET_PARTS, type SheetPart } from '@/features/study/sheetParts';
import { SheetScreen } from '@/features/study/SheetScreen';
import { chartById } from '@/server/charts';
import { planInAddress } from '@/server/validation';
import { orNotFound } from '../../../orNotFound';

type Props = { params: Promise<{ id: string }>; searchParams: Promise<Asked> };
type Asked = { plan?: string; position?: string; part?: string };
export const metadata: Metadata = { title: 'Sheet' };

/** The same sheet with each of its parts. */
function addresses(id: string, { plan, position }: Asked): Record<SheetPart, string> {
  const kept = { ...(plan && { plan }), ...(position && { position }) };
  const entries = SHEET_PARTS.map(([part]) => [
    part,
    `/study/${id}/sheet?${new URLSearchParams({ ...kept, part }).toString()}`,
  ]);
  return Object.fromEntries(entries) as Record<SheetPart, string>;
}

export default async function SheetPage({ params, searchParams }: Props) {
  const { id } = await params;
  const asked = await searchParams;
  const { plan, position } = asked;
  const chart = await orNotFound(() => chartById(id));
  if (!readChart(chart.text).ok) redirect(`/study/${id}`);
  const fret = Number(position);
  return (
    <SheetScreen
      chart={{ id, text: chart.text }}
      plan={planInAddress(plan) ?? { id: 'scale-per-chord' }}
      part={SHEET_PARTS.find(([part]) => part === asked.part)?.[0] ?? 'form'}
      addressOf={addresses(id, asked)}
      position={Number.isInteger(fret) && fret >= 1 && fret <= 20 ? fret : 5}
    />
  );
}
