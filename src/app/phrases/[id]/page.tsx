import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { readChart } from '@/core/chart';
import { WorkshopScreen } from '@/features/phrases/WorkshopScreen';
import { listCharts } from '@/server/charts';
import { Failure } from '@/server/failure';
import { knownId } from '@/server/ids';
import { listPhrases, phraseById, type StoredPhrase } from '@/server/phrases';

export const metadata: Metadata = { title: 'Phrase' };

export default async function PhrasePage({ params }: { params: Promise<{ id: string }> }) {
  const stored = await phraseOrNothing((await params).id);
  if (!stored) notFound();
  const charts = (await listCharts())
    .filter(({ text }) => readChart(text).ok)
    .map(({ id, title, text }) => ({ id, title, text }));
  const others = (await listPhrases()).filter(({ id }) => id !== stored.id);
  return <WorkshopScreen key={stored.id} stored={stored} charts={charts} others={others} />;
}

async function phraseOrNothing(id: string): Promise<StoredPhrase | null> {
  try {
    return await phraseById(knownId(id, 'phrase'));
  } catch (error) {
    if (error instanceof Failure && error.status === 404) return null;
    throw error;
  }
}
