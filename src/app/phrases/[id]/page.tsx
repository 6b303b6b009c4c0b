import type { Metadata } from 'next';
import { readChart } from '@/core/chart';
import { WorkshopScreen } from '@/features/phrases/WorkshopScreen';
import { listCharts } from '@/server/charts';
import { knownId } from '@/server/ids';
import { listPhrases, phraseById } from '@/server/phrases';
import { orNotFound } from '../../orNotFound';

export const metadata: Metadata = { title: 'Phrase' };

export default async function PhrasePage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const stored = await orNotFound(() => phraseById(knownId(id, 'phrase')));
  const charts = (await listCharts())
    .filter(({ text }) => readChart(text).ok)
    .map(({ id, title, text }) => ({ id, title, text }));
  const others = (await listPhrases()).filter((one) => one.id !== stored.id);
  return <WorkshopScreen key={stored.id} stored={stored} charts={charts} others={others} />;
}
