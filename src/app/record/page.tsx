import type { Metadata } from 'next';
import { readChart } from '@/core/chart';
import { RecordScreen } from '@/features/record/RecordScreen';
import { soundStored } from '@/server/audio';
import { listCharts } from '@/server/charts';
import { interruptedTakes } from '@/server/takes';
import { isOpenToTheHouse } from '@/server/stageHub';
import { planInAddress } from '@/server/validation';
import { Shell } from '@/features/shell/Shell';
import { momentIn } from '@/presentation';
import { datesOfRequest } from '@/server/datesOfRequest';
import Link from 'next/link';

type Props = { searchParams: Promise<{ chart?: string; plan?: string }> };
export const metadata: Metadata = { title: 'Record' };

export default async function RecordPage({ searchParams }: Props) {
  const { chart, plan } = await searchParams;
  const [kept, open] = await Promise.all([listCharts(), interruptedTakes()]);
  const charts = kept
    .filter(({ text }) => readChart(text).ok)
    .map(({ id, title, text }) => ({ id, title, text }));
  const first = charts.find((one) => one.id === chart) ?? charts[0];
  if (!first) return <NothingToPlay />;
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

function NothingToPlay() {
  return (
    <Shell place="Record">
      <div className="mx-4 mt-16 sm:mx-8">
        <h1 className="text-[64px] leading-[72px] font-[640] tracking-tight">No chart to play over.</h1>
        <p className="mt-3 text-2xl text-soft">Choose one of the forms, or write a few bars of your own.</p>
        <p className="mt-8">
          <Link className="go" href="/charts">
            Choose a chart
          </Link>
        </p>
      </div>
    </Shell>
  );
}
