import type { Metadata } from 'next';
import { SecondScreen } from '@/features/record/SecondScreen';

export const metadata: Metadata = { title: 'The stage' };
export const dynamic = 'force-dynamic';

/** The running take on another screen, which is its pedal too. */
export default function StagePage() {
  return <SecondScreen />;
}
