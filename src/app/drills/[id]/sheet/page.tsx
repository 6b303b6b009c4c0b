import type { Metadata } from 'next';
import { LessonSheet } from '@/features/drills/LessonSheet';
import { drillById } from '@/server/drillRows';
import { knownId } from '@/server/ids';
import { orNotFound } from '../../../orNotFound';

export const metadata: Metadata = { title: 'Lesson sheet' };

export default async function LessonSheetPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const drill = await orNotFound(() => drillById(knownId(id, 'drill')));
  return <LessonSheet drill={drill} />;
}
