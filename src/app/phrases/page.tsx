import type { Metadata } from 'next';
import { PhrasesScreen } from '@/features/phrases/PhrasesScreen';
import { habits, listPhrases } from '@/server/phrases';

export const metadata: Metadata = { title: 'Phrases' };
export const dynamic = 'force-dynamic';

export default async function PhrasesPage() {
  return <PhrasesScreen phrases={await listPhrases()} habits={await habits()} />;
}
