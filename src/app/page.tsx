import type { Metadata } from 'next';
import { TodayScreen } from '@/features/today/TodayScreen';
import { todayView } from '@/features/today/todayView';
import { listCharts } from '@/server/charts';
import { datesOfRequest } from '@/server/datesOfRequest';
import { today } from '@/server/practice';

export const metadata: Metadata = { title: 'Today' };
export const dynamic = 'force-dynamic';

/** Minutes that may be asked for: what is no such number is as if nothing had been asked. */
const minutesIn = (text: string | undefined): number | undefined => {
  const minutes = Number(text);
  return Number.isInteger(minutes) && minutes >= 5 && minutes <= 240 ? minutes : undefined;
};

export default async function TodayPage({ searchParams }: { searchParams: Promise<{ minutes?: string }> }) {
  const dates = await datesOfRequest();
  const minutes = minutesIn((await searchParams).minutes);
  const [day, charts] = await Promise.all([today(undefined, minutes, dates.firstWeekday), listCharts()]);
  return <TodayScreen view={todayView(day, dates)} charts={charts.map(({ id, title }) => ({ id, title }))} />;
}
