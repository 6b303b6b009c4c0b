import type { Metadata } from 'next';
import { takeRow } from '@/features/takes/takeRow';
import { TakesScreen } from '@/features/takes/TakesScreen';
import { reviewOf } from '@/server/reviews';
import { lineOf, listLines } from '@/server/takeLines';

type Props = { searchParams: Promise<{ before?: string }> };
export const metadata: Metadata = { title: 'Takes' };
const SHOWN = 40;

export default async function Takes({ searchParams }: Props) {
  const { before } = await searchParams;
  const listed = await listLines(SHOWN + 1, before !== undefined && /^\d{1,9}$/.test(before) ? Number(before) : undefined);
  const rows = [];
  for (const { take, line } of listed.slice(0, SHOWN)) {
    const review = line === null ? await reviewOf(take.id) : null;
    rows.push(takeRow(take, line ?? lineOf(take, review!.report, review!.marks)));
  }
  return <TakesScreen takes={rows} older={listed.length > SHOWN ? rows[rows.length - 1]!.number : null} />;
}
