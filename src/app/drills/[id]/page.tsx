import type { Metadata } from 'next';
import { DrillScreen } from '@/features/drills/DrillScreen';
import { drillById, dueBeside, runsOf } from '@/server/drillRows';
import { knownId } from '@/server/ids';
import { endsOf } from '@/server/practice';
import { orNotFound } from '../../orNotFound';

export const metadata: Metadata = { title: 'Drill' };

export default async function DrillPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ go?: string }>;
}) {
  const { id } = await params;
  const drill = await orNotFound(() => drillById(knownId(id, 'drill')));
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
