import type { Metadata } from 'next';
import { PhrasesScreen } from '@/features/phrases/PhrasesScreen';
import { habits, listPhrases } from '@/server/phrases';

export const metadata: Metadata = { title: 'Phrases' };
export const dynamic = 'force-dynamic';

export default async function PhrasesPage() {
  const [phrases, found] = await Promise.all([listPhrases(), habits()]);
  return <PhrasesScreen phrases={phrases} habits={found} />;
}
