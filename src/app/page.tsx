import type { Metadata } from 'next';
import { takeMoment } from '@/features/takes/moment';
import { TodayScreen } from '@/features/today/TodayScreen';
import { todayView } from '@/features/today/todayView';
import { listCharts } from '@/server/charts';
import { today } from '@/server/practice';

export const metadata: Metadata = { title: 'Today' };
export const dynamic = 'force-dynamic';

export default async function TodayPage() {
  return <TodayScreen view={todayView(await today(), takeMoment)} charts={(await listCharts()).map(({ id, title }) => ({ id, title }))} />;
}
