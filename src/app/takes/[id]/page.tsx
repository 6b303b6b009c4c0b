import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { ReviewPage } from '@/features/review/ReviewPage';
import { momentIn } from '@/presentation';
import { datesOfRequest } from '@/server/datesOfRequest';
import { knownId } from '@/server/ids';
import { siblingsOf } from '@/server/reviews';
import { takeById } from '@/server/takes';
import { orNotFound } from '../../orNotFound';

type Props = {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ cut?: string; view?: string; at?: string }>;
};
export const metadata: Metadata = { title: 'Review' };

export default async function TakePage({ params, searchParams }: Props) {
  const { cut, view, at } = await searchParams;
  const { id: asked } = await params;
  const [stored, beside] = await orNotFound(() => {
    const known = knownId(asked, 'take');
    return Promise.all([takeById(known), siblingsOf(known)]);
  });
  if (stored.state !== 'ready') notFound();
  const { id, chartId, number, title, tempo, choruses, chartText, plan, pace, source, dropOut } = stored;
  const { offsetSec, latencySec } = stored;
  const moment = momentIn(await datesOfRequest());
  const take = {
    id,
    chartId,
    number,
    title,
    tempo,
    choruses,
    chartText,
    plan,
    pace,
    offsetSec,
    latencySec,
    source,
    dropOut,
    soundGone: stored.soundGoneAt !== null,
    when: moment(stored.createdAt),
  };
  const kin = beside.map((one) => ({
    id: one.id,
    number: one.number,
    when: moment(one.createdAt),
    tempo: Math.round(one.tempo * 10) / 10,
  }));
  return <ReviewPage key={id} take={take} siblings={kin} cut={cut === '1'} view={view} at={at} />;
}
