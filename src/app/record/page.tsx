import type { Metadata } from 'next';
import { readChart } from '@/core/chart';
import { FirstForm } from '@/features/charts/FirstForm';
import { RecordScreen } from '@/features/record/RecordScreen';
import { soundStored } from '@/server/audio';
import { listCharts } from '@/server/charts';
import { interruptedTakes } from '@/server/takes';
import { isOpenToTheHouse } from '@/server/stageHub';
import { planInAddress } from '@/server/validation';
import { Shell } from '@/features/shell/Shell';
import { momentIn } from '@/presentation';
import { datesOfRequest } from '@/server/datesOfRequest';

type Props = { searchParams: Promise<{ chart?: string; plan?: string }> };
export const metadata: Metadata = { title: 'Record' };

export default async function RecordPage({ searchParams }: Props) {
  const { chart, plan } = await searchParams;
  const [kept, open] = await Promise.all([listCharts(), interruptedTakes()]);
  const charts = kept
    .filter(({ text }) => readChart(text).ok)
    .map(({ id, title, text }) => ({ id, title, text }));
  const first = charts.find((one) => one.id === chart) ?? charts[0];
  if (!first)
    return (
      <Shell place="Record">
        <FirstForm />
      </Shell>
    );
  const moment = momentIn(await datesOfRequest());
  const cut = await Promise.all(
    open.map(async (take) => ({
      id: take.id,
      title: take.title,
      offsetSec: take.offsetSec,
      tempo: take.tempo,
      choruses: take.choruses,
      chartText: take.chartText,
      when: moment(take.createdAt),
      seconds: Math.floor((await soundStored(take.id)).frames / take.rate),
    })),
  );
  return (
    <RecordScreen
      key={first.id}
      isShared={isOpenToTheHouse()}
      charts={charts}
      chartId={first.id}
      plan={planInAddress(plan)}
      interrupted={cut.filter(({ seconds, offsetSec }) => seconds > Math.max(0, offsetSec))}
    />
  );
}
