import type { Metadata } from 'next';
import { LibraryScreen } from '@/features/charts/LibraryScreen';
import { libraryEntry } from '@/features/charts/library';
import { listCharts } from '@/server/charts';

export const metadata: Metadata = { title: 'Charts' };

/** The player's own charts, and the forms to start from. */
export default async function Charts() {
  return <LibraryScreen own={(await listCharts()).map(libraryEntry)} />;
}
