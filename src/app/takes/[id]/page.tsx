import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { ReviewScreen } from '@/features/review/ReviewScreen';
import { takeMoment } from '@/features/takes/moment';
import { Failure } from '@/server/failure';
import { knownId } from '@/server/ids';
import { kinOf, reviewOf } from '@/server/reviews';

type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ cut?: string; view?: string; at?: string }> };
export const metadata: Metadata = { title: 'Review' };

export default async function TakePage({ params, searchParams }: Props) {
  const { cut, view, at } = await searchParams;
  const review = await reviewOrNothing((await params).id);
  if (!review) notFound();
  const { take, ...rest } = review;
  const { id, number, title, tempo, choruses, chartText, plan, pace, offsetSec, source } = take;
  const kin = (await kinOf(take)).map((one) => ({ id: one.id, number: one.number, when: takeMoment(one.createdAt), tempo: Math.round(one.tempo * 10) / 10 }));
  const data = { ...rest, take: { id, number, title, tempo, choruses, chartText, plan, pace, offsetSec, source, soundGone: take.soundGoneAt !== null, when: takeMoment(take.createdAt) } };
  return <ReviewScreen key={`${id} ${offsetSec} ${JSON.stringify(plan)}`} data={data} kin={kin} cut={cut === '1'} view={view} at={at} />;
}

async function reviewOrNothing(id: string) {
  try {
    return await reviewOf(knownId(id, 'take'));
  } catch (error) {
    if (error instanceof Failure && error.status === 404) return null;
    throw error;
  }
}
