'use client';
import { startOfToday, subDays } from 'date-fns';
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { ask, askAhead } from '@/audio/persistence/serverTakes';
import { PLANS, type PlanId } from '@/core/plan';
import { Shell } from '../shell/Shell';
import { trashTake } from '../shell/trash';
import { BringIn } from './BringIn';
import { findingWords } from './findingWords';
import { TakeProfile, type TakeProfileData } from '@/ui/form/TakeProfile';

export type TakeRow = {
  readonly id: string;
  readonly number: number;
  readonly title: string;
  readonly when: string;
  readonly planId: PlanId;
  readonly tempo: number;
  readonly stars: number;
  /** What the list shows of it; null where it cannot be judged, and why. */
  readonly line: TakeRowLine | null;
  readonly trouble: string | null;
};
export type TakeRowLine = {
  readonly met: number;
  readonly judged: number;
  readonly heard: number;
  readonly segments: number;
  readonly profile: TakeProfileData;
  readonly key: string;
  readonly findings: readonly { readonly kind: string; readonly title: string }[];
};
export type Rows = { readonly total: number; readonly from: number; readonly rows: readonly TakeRow[] };
/** What takes are chosen by, as an address has it. */
export type Filter = Partial<
  Record<
    'text' | 'title' | 'plan' | 'key' | 'finding' | 'slowest' | 'fastest' | 'since' | 'until' | 'stars',
    string | number
  >
>;
type Facets = {
  readonly titles: readonly string[];
  readonly plans: readonly string[];
  readonly keys: readonly string[];
  readonly findings: readonly { readonly kind: string; readonly count: number }[];
};
type Props = {
  first: Rows;
  filter: Filter;
  facets: Facets;
  charts: readonly { readonly id: string; readonly title: string }[];
};

const PAGE = 40;
const ROW = 61;

/**
 * Every take with its walk drawn small, chosen by anything; one press opens its review. Only the rows in sight
 * are drawn, however many there are.
 */
export function TakesScreen({ first, filter: firstFilter, facets, charts }: Props) {
  const [filter, setFilter] = useState(firstFilter);
  const { total, rowAt, need, trouble } = useRows(first, filter);
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
  if (first.total === 0 && Object.keys(firstFilter).length === 0) return <NoTakes charts={charts} />;
  const chosen = Object.keys(filter).length;
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
          {chosen > 0 ? (
            <>
              {total === 0 ? (
                'No take is like this.'
              ) : (
                <>
                  {total} {total === 1 ? 'take is' : 'takes are'} like this.
                </>
              )}{' '}
              <button
                type="button"
                className="text-[17px] text-now hover:underline"
                onClick={() => {
                  setFilter({});
                  window.history.replaceState(null, '', window.location.pathname);
                }}
              >
                Show all
              </button>
            </>
          ) : (
            opening(first.rows)
          )}
        </h1>
        <Choose filter={filter} facets={facets} onChange={change} />
        {trouble && (
          <p role="alert" className="my-2 border-l-[3px] border-now pl-4 text-ink">
            {trouble}
          </p>
        )}
        <div
          className="hidden grid-cols-[44px_216px_minmax(0,1fr)_128px_150px_72px] gap-x-4 pb-2 text-sm text-dim sm:grid"
          aria-hidden="true"
        >
          <span>take</span>
          <span>tune and plan</span>
          <span>height, change by change</span>
          <span className="text-right">met on time</span>
          <span className="text-right">heard, band muted</span>
          <span className="text-right">tempo</span>
        </div>
        <List key={JSON.stringify(filter)} total={total} rowAt={rowAt} need={need} />
      </div>
    </Shell>
  );
}

function List({
  total,
  rowAt,
  need,
}: {
  total: number;
  rowAt: (index: number) => TakeRow | undefined;
  need: (index: number) => void;
}) {
  const box = useRef<HTMLUListElement>(null);
  const [margin, setMargin] = useState(0);
  useEffect(() => setMargin(box.current?.offsetTop ?? 0), []);
  const list = useWindowVirtualizer({
    count: total,
    estimateSize: () => ROW,
    overscan: 12,
    scrollMargin: margin,
    initialRect: { width: 1280, height: 900 },
  });
  const shown = list.getVirtualItems();
  const last = shown[shown.length - 1]?.index ?? 0;
  const firstShown = shown[0]?.index ?? 0;
  useEffect(() => {
    for (let index = firstShown; index <= last; index++) if (!rowAt(index)) need(index);
  }, [firstShown, last, rowAt, need]);
  return (
    <ul ref={box} className="relative" style={{ height: list.getTotalSize() }} aria-label={`${total} takes`}>
      {shown.map(({ index, start }) => {
        const take = rowAt(index);
        return (
          <li
            key={index}
            aria-setsize={total}
            aria-posinset={index + 1}
            className="absolute inset-x-0"
            style={{ height: ROW, transform: `translateY(${start - margin}px)` }}
          >
            {rowOf(take)}
          </li>
        );
      })}
    </ul>
  );
}

/** The rows that were fetched, page by page, as they come into sight. */
function useRows(
  first: Rows,
  filter: Filter,
): {
  total: number;
  rowAt: (index: number) => TakeRow | undefined;
  need: (index: number) => void;
  trouble: string | null;
} {
  const initial = useRef(filter);
  const key = JSON.stringify(filter);
  const [held, setHeld] = useState<{ key: string; total: number; rows: ReadonlyMap<number, TakeRow> }>(
    () => ({ key, total: first.total, rows: new Map(first.rows.map((row, index) => [index, row])) }),
  );
  const [trouble, setTrouble] = useState<string | null>(null);
  const asked = useRef(new Set<string>());
  const fetchPage = useCallback(
    (from: number) => {
      const name = `${key} ${from}`;
      if (asked.current.has(name)) return;
      asked.current.add(name);
      const query = new URLSearchParams([
        ...Object.entries(JSON.parse(key) as Filter).map(([part, value]): [string, string] => [
          part,
          String(value),
        ]),
        ['from', String(from)],
        ['most', String(PAGE)],
      ]);
      ask<Rows>(`/api/takes/lines?${query}`)
        .then(({ total, rows }) => {
          setTrouble(null);
          setHeld((now) => ({
            key,
            total,
            rows: new Map([
              ...(now.key === key ? now.rows : []),
              ...rows.map((row, index): [number, TakeRow] => [from + index, row]),
            ]),
          }));
        })
        .catch(() => {
          asked.current.delete(name);
          setTrouble('Some takes could not be fetched. Scroll on, or load the page again.');
        });
    },
    [key],
  );
  useEffect(() => {
    if (filter === initial.current) return;
    const timer = setTimeout(() => {
      asked.current.clear();
      fetchPage(0);
    }, 150);
    return () => clearTimeout(timer);
  }, [filter, fetchPage]);
  const current = held.key === key;
  const rowAt = useCallback((index: number) => held.rows.get(index), [held]);
  const need = useCallback(
    (index: number) => {
      if (current) fetchPage(Math.floor(index / PAGE) * PAGE);
    },
    [current, fetchPage],
  );
  return { total: held.total, rowAt, need, trouble };
}

const SINCE: readonly (readonly [string, number])[] = [
  ['any time', 0],
  ['today', 1],
  ['7 days', 7],
  ['30 days', 30],
  ['a year', 365],
];

function Choose({
  filter,
  facets,
  onChange,
}: {
  filter: Filter;
  facets: Facets;
  onChange: (part: Filter) => void;
}) {
  const [days, setDays] = useState(0);
  const select = (name: keyof Filter, words: string, choices: readonly (readonly [string, string])[]) => (
    <select
      aria-label={words}
      className="field w-[128px] !py-1 text-[15px]"
      value={String(filter[name] ?? '')}
      onChange={(event) => onChange({ [name]: event.target.value || undefined } as Filter)}
    >
      <option value="">{words}</option>
      {choices.map(([value, text]) => (
        <option key={value} value={value}>
          {text}
        </option>
      ))}
    </select>
  );
  const tempo = (name: 'slowest' | 'fastest', words: string) => (
    <input
      aria-label={words}
      placeholder={words}
      inputMode="numeric"
      className="field w-[74px] !py-1 text-[15px]"
      value={String(filter[name] ?? '')}
      onChange={(event) => {
        const value = event.target.value.replace(/\D/g, '').slice(0, 3);
        onChange({ [name]: value === '' ? undefined : Number(value) } as Filter);
      }}
    />
  );
  return (
    <form
      role="search"
      aria-label="Choose takes"
      className="mb-3 flex flex-wrap items-center gap-2"
      onSubmit={(event) => event.preventDefault()}
    >
      <input
        type="search"
        aria-label="Find in titles, tags and remarks"
        placeholder="title, tag, remark"
        className="field w-40 !py-1 text-[15px]"
        value={String(filter.text ?? '')}
        onChange={(event) => onChange({ text: event.target.value })}
      />
      {select(
        'title',
        'any tune',
        facets.titles.map((title) => [title, title]),
      )}
      {select(
        'plan',
        'any plan',
        facets.plans.map((plan) => [plan, PLANS[plan as PlanId]?.name ?? plan]),
      )}
      {select(
        'key',
        'any key',
        facets.keys.map((key) => [key, key.replace(/^([A-G])b/, '$1♭').replace(/^([A-G])#/, '$1♯')]),
      )}
      {select(
        'finding',
        'any finding',
        facets.findings.map(({ kind, count }) => [kind, `${findingWords(kind)}, ${count}`]),
      )}
      <span className="flex items-center gap-1.5 text-[15px] text-dim">
        {tempo('slowest', 'from')}–{tempo('fastest', 'to')}
      </span>
      <select
        aria-label="Played within"
        className="field !py-1 text-[15px]"
        value={days}
        onChange={(event) => {
          const within = Number(event.target.value);
          setDays(within);
          onChange({
            since: sinceOf(within),
          } as Filter);
        }}
      >
        {SINCE.map(([words, within]) => (
          <option key={within} value={within}>
            {words}
          </option>
        ))}
      </select>
      {select(
        'stars',
        'any stars',
        [1, 2, 3, 4, 5].map((stars) => [String(stars), `${stars} ${stars === 1 ? 'star' : 'stars'} or more`]),
      )}
    </form>
  );
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

/**
 * A row asks for the page when it is pointed at or reached, and for the take itself when it is pressed: by the
 * click both are on their way.
 */
function Row({ take, line }: { take: TakeRow; line: TakeRowLine }) {
  const router = useRouter();
  const href = `/takes/${take.id}`;
  const ahead = () => router.prefetch(href);
  return (
    <Link
      href={href}
      prefetch={false}
      onPointerEnter={ahead}
      onFocus={ahead}
      onPointerDown={() => askAhead(take.id)}
      onClick={() => askAhead(take.id)}
      className="grid h-full grid-cols-[44px_minmax(0,1fr)_auto] items-center gap-x-4 border-t border-line hover:bg-row sm:grid-cols-[44px_216px_minmax(0,1fr)_128px_150px_72px]"
    >
      <span className="text-2xl font-[560] text-soft">{take.number}</span>
      <span className="min-w-0 leading-5">
        <b className="block truncate font-[560] text-ink">
          {take.title}
          {take.stars > 0 && (
            <span className="ml-2 text-sm text-now" aria-label={`${take.stars} stars`}>
              {'★'.repeat(take.stars)}
            </span>
          )}
        </b>
        <span className="block truncate text-sm text-dim">
          {take.when}, {PLANS[take.planId].short}
        </span>
      </span>
      <span className="hidden sm:block">
        <TakeProfile profile={line.profile} />
      </span>
      <Count value={line.met} of={line.judged} name="changes met on time" />
      <span className="hidden sm:block">
        <Count value={line.heard} of={line.segments} name="chords heard with the band muted" />
      </span>
      <span className="hidden text-right text-[22px] font-[560] text-soft sm:block">{take.tempo}</span>
    </Link>
  );
}

/** A take that cannot be judged: what is wrong, and the way to be rid of it. */
function TroubledRow({ take }: { take: TakeRow }) {
  const router = useRouter();
  const reload = () => router.refresh();
  return (
    <div className="flex h-full items-center gap-x-4 border-t border-line">
      <span className="w-11 text-2xl font-[560] text-soft">{take.number}</span>
      <span className="min-w-0 grow leading-5">
        <b className="block truncate font-[560] text-ink">{take.title}</b>
        <span className="block truncate text-sm text-soft">{take.trouble}</span>
      </span>
      <a
        className="text-soft hover:text-ink hover:underline"
        href={`/api/takes/${take.id}/export?format=archive`}
        download
      >
        Export
      </a>
      <button type="button" className="quiet" onClick={() => void trashTake(take.id, reload, reload)}>
        Remove<span className="sr-only"> take {take.number}</span>
      </button>
    </div>
  );
}

const Count = ({ value, of, name }: { value: number; of: number; name: string }) => (
  <span className="block text-right text-2xl font-[640] text-soft">
    {value}
    <span className="text-[15px] font-normal text-dim"> of {of}</span>
    <span className="sr-only"> {name}</span>
  </span>
);

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

function rowOf(take: TakeRow | undefined) {
  if (take?.line) return <Row take={take} line={take.line} />;
  if (take) return <TroubledRow take={take} />;
  return <div className="h-full border-t border-line" aria-hidden="true" />;
}

function sinceOf(within: number) {
  if (within === 0) return undefined;
  return (within === 1 ? startOfToday() : subDays(Date.now(), within)).getTime();
}
