import type { Metadata } from 'next';
import { GuideScreen } from '@/features/guide/GuideScreen';
import { guideSections } from '@/server/guides';

export const metadata: Metadata = { title: 'Guide' };
export const dynamic = 'force-dynamic';

export default async function GuidePage() {
  return <GuideScreen sections={await guideSections()} />;
}
