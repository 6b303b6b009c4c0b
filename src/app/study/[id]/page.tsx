import type { Metadata } from 'next';
import Link from 'next/link';
import { readChart } from '@/core/chart';
import { Shell } from '@/features/shell/Shell';
import { StudyScreen } from '@/features/study/StudyScreen';
import { VIEW_NAMES, type StudyPlace, type StudyViewName } from '@/features/study/studyState';
import { chartById } from '@/server/charts';
import { planInAddress } from '@/server/validation';
import { orNotFound } from '../../orNotFound';

type Props = { params: Promise<{ id: string }>; searchParams: Promise<Record<string, string | undefined>> };
export const metadata: Metadata = { title: 'Study' };

const whole = (text: string | undefined, most: number): number | undefined => {
  const value = Number(text);
  return text !== undefined && Number.isInteger(value) && value >= 0 && value <= most ? value : undefined;
};

const isView = (view: string): view is StudyViewName => (VIEW_NAMES as readonly string[]).includes(view);

function placeIn({ at, position, view }: Record<string, string | undefined>): StudyPlace {
  const [index, fret] = [whole(at, 8192), whole(position, 24)];
  return {
    ...(index === undefined ? {} : { at: index }),
    ...(fret ? { position: fret } : {}),
    ...(view !== undefined && isView(view) ? { view } : {}),
  };
}

export default async function StudyPage({ params, searchParams }: Props) {
  const { id } = await params;
  const query = await searchParams;
  const chart = await orNotFound(() => chartById(id));
  const read = readChart(chart.text);
  if (!read.ok) return <NotReadYet id={id} title={chart.title} message={read.problems[0].message} />;
  return (
    <StudyScreen
      key={id}
      chart={{ id, text: chart.text }}
      plan={planInAddress(query.plan) ?? { id: 'scale-per-chord' }}
      place={placeIn(query)}
    />
  );
}

function NotReadYet({ id, title, message }: { id: string; title: string; message: string }) {
  return (
    <Shell place="Study">
      <div className="mx-4 mt-16 sm:mx-8">
        <h1 className="text-[40px] leading-[48px] font-[640] tracking-tight sm:text-[64px] sm:leading-[72px]">
          {title} cannot be read yet.
        </h1>
        <p className="mt-3 text-2xl text-soft">{message}</p>
        <p className="mt-8">
          <Link className="go" href={`/charts/${id}`}>
            Fix the chart
          </Link>
        </p>
      </div>
    </Shell>
  );
}
