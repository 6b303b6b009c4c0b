import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { ReviewScreen } from '@/features/review/ReviewScreen';
import { takeMoment } from '@/features/takes/moment';
import { Failure } from '@/server/failure';
import { knownId } from '@/server/ids';
import { reviewOf } from '@/server/reviews';

type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ cut?: string }> };
export const metadata: Metadata = { title: 'Review' };

export default async function TakePage({ params, searchParams }: Props) {
  const { cut } = await searchParams;
  const review = await reviewOrNothing((await params).id);
  if (!review) notFound();
  const { take, report, marks, findings, certainty } = review;
  const { id, number, title, tempo, choruses, chartText, plan, pace, offsetSec, source } = take;
  return <ReviewScreen take={{ id, number, title, tempo, choruses, chartText, plan, pace, offsetSec, source, soundGone: take.soundGoneAt !== null, when: takeMoment(take.createdAt) }} report={report} marks={marks} findings={findings} cut={cut === '1'} certainty={certainty} />;
}

async function reviewOrNothing(id: string) {
  try {
    return await reviewOf(knownId(id, 'take'));
  } catch (error) {
    if (error instanceof Failure && error.status === 404) return null;
    throw error;
  }
}
