import type { Metadata } from 'next';
import { SetUpScreen } from '@/features/settings/SetUpScreen';

export const metadata: Metadata = { title: 'Set up' };

export default function SetUpPage() {
  return <SetUpScreen />;
}
