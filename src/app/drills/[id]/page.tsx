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
  const [drill, due, runs, ends] = await Promise.all([
    orNotFound(() => drillById(knownId(id, 'drill'))),
    dueBeside(id),
    runsOf(id),
    endsOf(id),
  ]);
  return (
    <DrillScreen
      key={id}
      drill={drill}
      runs={runs}
      ends={ends}
      begins={(await searchParams).go === '1'}
      next={due ? { id: due.id, name: due.drill.name, title: due.title } : null}
    />
  );
}
