import type { Metadata } from 'next';
import { TakesScreen } from '@/features/takes/TakesScreen';
import { listCharts } from '@/server/charts';
import { datesOfRequest } from '@/server/datesOfRequest';
import { takeFacets } from '@/server/takeSummaries';
import { takesQuery } from '@/server/validation';
import { rowsOf } from './rows';

type Props = { searchParams: Promise<Record<string, string | string[] | undefined>> };
export const metadata: Metadata = { title: 'Takes' };

/** Rows that come with the page: as many as a screen shows and a few more. */
const FIRST = 24;

export default async function Takes({ searchParams }: Props) {
  const asked = Object.fromEntries(
    Object.entries(await searchParams).filter(
      (entry): entry is [string, string] => typeof entry[1] === 'string',
    ),
  );
  // an address that cannot be read chooses nothing
  const { error, value } = takesQuery.validate(
    { ...asked, from: 0, most: FIRST },
    { convert: true, stripUnknown: true },
  );
  const query = error ? { from: 0, most: FIRST } : value;
  const dates = await datesOfRequest();
  const [first, facets, charts] = await Promise.all([rowsOf(query, dates), takeFacets(), listCharts()]);
  const { from: _from, most: _most, ...filter } = query;
  return (
    <TakesScreen
      first={first}
      filter={filter}
      facets={facets}
      charts={charts.map(({ id, title }) => ({ id, title }))}
    />
  );
}
