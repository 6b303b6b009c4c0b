import { redirect } from 'next/navigation';
import { createChart, listCharts } from '@/server/charts';

const FIRST = 'title: First chart\nkey: C\ntempo: 100\nfeel: swing\n\n| C7 | F7 | C7 | % |\n';

/** The library opens on its first chart; an empty library begins one. */
export default async function Charts(): Promise<never> {
  const [first] = await listCharts();
  redirect(`/charts/${(first ?? (await createChart(FIRST))).id}`);
}
