import { redirect } from 'next/navigation';
import { latestChart } from '@/server/charts';

/** Study opens on the chart that was worked on last; without one the library is the way in. */
export default async function Study(): Promise<never> {
  const chart = await latestChart();
  redirect(chart ? `/study/${chart.id}` : '/charts');
}
