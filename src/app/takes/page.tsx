import type { Metadata } from 'next';
import { takeRow } from '@/features/takes/takeRow';
import { TakesScreen } from '@/features/takes/TakesScreen';
import { reviewOf } from '@/server/reviews';
import { listTakes } from '@/server/takes';

export const metadata: Metadata = { title: 'Takes' };
const SHOWN = 60;

export default async function Takes() {
  const takes = (await listTakes()).slice(0, SHOWN);
  const rows = [];
  for (const take of takes) rows.push(takeRow(await reviewOf(take.id)));
  return <TakesScreen takes={rows} />;
}
