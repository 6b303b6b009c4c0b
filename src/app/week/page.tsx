import type { Metadata } from 'next';
import { WeekScreen } from '@/features/today/WeekScreen';
import { weekView } from '@/features/today/weekView';
import { datesOfRequest } from '@/server/datesOfRequest';
import { weekAhead } from '@/server/week';

export const metadata: Metadata = { title: 'The week ahead' };
export const dynamic = 'force-dynamic';

export default async function WeekPage() {
  const [dates, week] = await Promise.all([datesOfRequest(), weekAhead()]);
  return <WeekScreen view={weekView(week, dates)} />;
}
