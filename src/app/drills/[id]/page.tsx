import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { DrillScreen } from '@/features/drills/DrillScreen';
import { drillById, dueBeside, runsOf } from '@/server/drillRows';
import { Failure } from '@/server/failure';
import { knownId } from '@/server/ids';
import { endsOf } from '@/server/practice';

export const metadata: Metadata = { title: 'Drill' };

export default async function DrillPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ go?: string }>;
}) {
  const { id } = await params;
  const drill = await drillById(knownId(id, 'drill')).catch((error: unknown) => {
    if (error instanceof Failure && error.status === 404) return notFound();
    throw error;
  });
  const due = await dueBeside(id);
  return (
    <DrillScreen
      key={id}
      drill={drill}
      runs={await runsOf(id)}
      ends={await endsOf(id)}
      begins={(await searchParams).go === '1'}
      next={due ? { id: due.id, name: due.drill.name, title: due.title } : null}
    />
  );
}
