'use client';
import Link from 'next/link';
import { useState } from 'react';
import { Shell } from '../shell/Shell';
import { BringIn } from './BringIn';
import { TakeFilter } from './TakeFilter';
import { TakeList } from './TakeList';
import type { Facets, Filter, Rows, TakeRow } from './takesList';
import { useTakeRows } from './useTakeRows';

type Props = {
  first: Rows;
  filter: Filter;
  facets: Facets;
  charts: readonly { readonly id: string; readonly title: string }[];
};

/** Every take with its walk drawn small, chosen by anything; one press opens its review. */
export function TakesScreen({ first, filter: firstFilter, facets, charts }: Props) {
  const { filter, change, clear } = useFilter(firstFilter);
  const { total, rowAt, need, trouble } = useTakeRows(first, filter);
  if (first.total === 0 && Object.keys(firstFilter).length === 0) return <NoTakes charts={charts} />;
  return (
    <Shell
      place="Takes"
      footer={
        <>
          <Link href="/record" className="go text-base">
            Record another
          </Link>
          <BringIn charts={charts} />
          <span className="ml-auto">Takes stay on this computer.</span>
        </>
      }
    >
      <div className="mx-4 pt-4 pb-8 sm:mx-8">
        <h1 className="mb-3 text-[25px] leading-8 tracking-tight text-soft">
          {Object.keys(filter).length > 0 ? (
            <>
              {chosenWords(total)}{' '}
              <button type="button" className="text-[17px] text-now hover:underline" onClick={clear}>
                Show all
              </button>
            </>
          ) : (
            opening(first.rows)
          )}
        </h1>
        <TakeFilter filter={filter} facets={facets} onChange={change} />
        {trouble && (
          <p role="alert" className="my-2 border-l-[3px] border-now pl-4 text-ink">
            {trouble}
          </p>
        )}
        <div
          className="hidden grid-cols-[44px_216px_minmax(0,1fr)_128px_150px_72px] gap-x-4 pb-2 text-sm text-dim lg:grid"
          aria-hidden="true"
        >
          <span>take</span>
          <span>tune and plan</span>
          <span>height, change by change</span>
          <span className="text-right">met on time</span>
          <span className="text-right">heard, band muted</span>
          <span className="text-right">tempo</span>
        </div>
        <TakeList key={JSON.stringify(filter)} total={total} rowAt={rowAt} need={need} />
      </div>
    </Shell>
  );
}

function chosenWords(total: number): string {
  if (total === 0) return 'No take matches.';
  return total === 1 ? '1 take matches.' : `${total} takes match.`;
}

/** What takes are chosen by; it stands in the address. */
function useFilter(first: Filter) {
  const [filter, setFilter] = useState(first);
  const change = (part: Filter) =>
    setFilter((now) => {
      const next = Object.fromEntries(
        Object.entries({ ...now, ...part }).filter(([, value]) => value !== undefined && value !== ''),
      );
      const address = new URL(window.location.href);
      address.search = new URLSearchParams(
        Object.entries(next).map(([name, value]) => [name, String(value)]),
      ).toString();
      window.history.replaceState(null, '', address);
      return next;
    });
  const clear = () => {
    setFilter({});
    window.history.replaceState(null, '', window.location.pathname);
  };
  return { filter, change, clear };
}

function opening(takes: readonly TakeRow[]) {
  const judged = takes.flatMap((take) => (take.line ? [{ ...take, line: take.line }] : []));
  const [latest] = judged;
  if (!latest) return 'No take here can be judged.';
  const first = judged.findLast((take) => take.title === latest.title) ?? latest;
  if (first === latest)
    return (
      <>
        {latest.title}:{' '}
        <b className="font-[620] text-ink">
          {latest.line.heard} of {latest.line.segments} chords are heard with the band muted.
        </b>
      </>
    );
  return (
    <>
      In take {first.number}, {first.line.heard} of {first.line.segments} chords of {latest.title} came
      through without the band,{' '}
      <b className="font-[620] text-ink">
        in the last one {latest.line.heard} of {latest.line.segments}.
      </b>
    </>
  );
}

function NoTakes({ charts }: Pick<Props, 'charts'>) {
  return (
    <Shell
      place="Takes"
      footer={
        <>
          <BringIn charts={charts} />
          <span className="ml-auto">Takes stay on this computer.</span>
        </>
      }
    >
      <div className="mx-4 mt-16 sm:mx-8">
        <h1 className="text-[64px] leading-[76px] font-[640] tracking-tight">No takes yet.</h1>
        <p className="mt-3 text-[28px] leading-10 text-soft">
          One take shows which changes you meet, and which pass you by.
        </p>
        <p className="mt-8">
          <Link href="/record" className="go text-2xl">
            Record the first one
          </Link>
        </p>
      </div>
    </Shell>
  );
}
