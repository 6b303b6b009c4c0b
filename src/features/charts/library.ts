import { readChart } from '@/core/chart';
import { chartFacts } from './chartFacts';
import type { LibraryEntry } from './ChartFrame';
import { elementAt } from '@/core/shared';

/** One line of the library for a stored chart. */
export function libraryEntry({ id, title, text }: { id: string; title: string; text: string }): LibraryEntry {
  const read = readChart(text);
  return {
    id,
    title,
    summary: read.ok ? elementAt(chartFacts(read.value).summary.split(','), 0) : 'still being written',
  };
}
