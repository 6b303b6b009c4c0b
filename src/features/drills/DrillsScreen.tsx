'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { readChart } from '@/core/chart';
import { CATALOGUE, OWN_EXAMPLES, readOwnWords, ruleWords, type DrillKind } from '@/core/drills';
import { fastestPassed } from '@/core/scheduling';
import { PLANS, PLAN_IDS, type PlanId } from '@/core/plan';
import { typeset } from '@/core/findings';
import { accepted, elementAt } from '@/core/shared';
import type { StoredDrill, StoredRun } from '@/server/drillRows';
import { ChordWords } from '@/ui/ChordWords';
import { ChoiceSetting } from '@/ui/Field';
import { Shell } from '../shell/Shell';
import { useKeys } from '../shell/useKeys';
import { takeUp } from './drillServer';
import { GROUPS } from './groups';
import type { Outcome } from '@/core/shared';
import type { OwnWords as ReadWords } from '@/core/drills';

export type DrillsChart = { readonly id: string; readonly title: string; readonly text: string };
type Item = {
  readonly drill: StoredDrill;
  readonly runs: readonly StoredRun[];
  /** Days until it is due; none or fewer is now. */ readonly days: number;
};
type Props = { charts: readonly DrillsChart[]; items: readonly Item[]; chartId: string | null };

/** What comes back, and everything that can be taken up over a chart. */
export function DrillsScreen({ charts, items, chartId }: Props) {
  const router = useRouter();
  const [chosen, setChosen] = useState(chartId ?? charts[0]?.id ?? '');
  const [plan, setPlan] = useState<PlanId>('scale-per-chord');
  const [trouble, setTrouble] = useState<string | null>(null);
  const chart = charts.find(({ id }) => id === chosen);
  const open = items.filter(({ drill }) => !drill.away);
  const due = open.filter(({ days }) => days <= 0);
  const go = (body: Parameters<typeof takeUp>[0]) => {
    setTrouble(null);
    takeUp(body)
      .then(({ id }) => router.push(`/drills/${id}`))
      .catch((error: Error) => setTrouble(error.message));
  };
  const first = due[0] ?? open[0];
  useKeys(
    {
      press: () => {
        if (first) router.push(`/drills/${first.drill.id}`);
      },
    },
    true,
  );
  const known = new Map(
    open
      .filter(({ drill }) => drill.chartId === chosen)
      .map((item) => [item.drill.drill.kind as string, item]),
  );
  return (
    <Shell
      place="Drills"
      footer={
        <>
          <span>
            {first ? (
              <>
                <span className="font-[640] text-now">press</span>{' '}
                {due[0] ? 'the first one due' : 'the next one'}:{' '}
                <ChordWords text={typeset(first.drill.drill.name)} />
              </>
            ) : (
              'Take one up below, or from a finding in a review.'
            )}
          </span>
          <span className="ml-auto hidden sm:inline">
            {open.length} {open.length === 1 ? 'drill comes' : 'drills come'} back, {due.length} due today
          </span>
        </>
      }
    >
      <div className="mx-4 grid gap-x-14 gap-y-8 pt-4 pb-10 sm:mx-8 lg:grid-cols-[400px_minmax(0,1fr)]">
        <section aria-label="What comes back" className="min-w-0">
          <h1 className="text-[25px] leading-8 font-[640]">What comes back</h1>
          {open.length === 0 && (
            <p className="mt-3 text-lg leading-7 text-soft">
              Nothing yet. A finding in a review becomes a drill on one key; or take one up here.
            </p>
          )}
          <ul className="mt-2">
            {open.map((item) => (
              <li key={item.drill.id} className="border-b border-line">
                <ItemRow item={item} />
              </li>
            ))}
          </ul>
          {items.length > open.length && (
            <details className="mt-4 text-soft">
              <summary className="cursor-pointer text-[15px] text-dim">
                {items.length - open.length} put away
              </summary>
              <ul>
                {items
                  .filter(({ drill }) => drill.away)
                  .map((item) => (
                    <li key={item.drill.id} className="border-b border-line">
                      <ItemRow item={item} />
                    </li>
                  ))}
              </ul>
            </details>
          )}
        </section>
        <section aria-label="Take one up" className="min-w-0">
          <h2 className="text-[25px] leading-8 font-[640]">Take one up</h2>
          {chart ? (
            <>
              <div className="mt-2 grid gap-x-8 sm:grid-cols-2">
                <ChoiceSetting
                  name="Over"
                  value={chosen}
                  choices={charts.map(({ id, title }) => [id, title] as const)}
                  onChange={setChosen}
                />
                <ChoiceSetting
                  name="Plan"
                  value={plan}
                  choices={PLAN_IDS.map((id) => [id, PLANS[id].name] as const)}
                  onChange={(id: PlanId) => setPlan(id)}
                />
              </div>
              <OwnWords
                key={chart.id}
                chart={chart}
                onGo={(words) => go({ chartId: chart.id, words, plan: { id: plan } })}
              />
              {trouble && (
                <p role="alert" className="mt-2 border-l-[3px] border-now pl-4 text-ink">
                  {trouble}
                </p>
              )}
              {GROUPS.map(([name, kinds]) => (
                <section key={name} aria-label={name} className="mt-6">
                  <h3 className="heading border-b border-line">{name}</h3>
                  <ul className="grid gap-x-8 sm:grid-cols-2">
                    {kinds.map((kind) => (
                      <li key={kind}>
                        <KindRow
                          kind={kind}
                          item={known.get(kind) ?? null}
                          onGo={() => go({ chartId: chart.id, kind, plan: { id: plan } })}
                        />
                      </li>
                    ))}
                  </ul>
                </section>
              ))}
            </>
          ) : (
            <p className="mt-3 text-lg text-soft">
              There is no chart to drill over.{' '}
              <Link className="underline" href="/charts">
                Write one
              </Link>
              , or take one from the library.
            </p>
          )}
        </section>
      </div>
    </Shell>
  );
}

function ItemRow({ item: { drill, runs, days } }: { item: Item }) {
  const last = runs[0];
  const tempo = elementAt(drill.ladder.rungs, drill.ladder.at);
  return (
    <Link
      href={`/drills/${drill.id}`}
      className="group grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-4 py-2.5 hover:text-ink"
    >
      <b className="text-[17px] group-hover:underline">
        <ChordWords text={typeset(drill.drill.name)} />
      </b>
      <b className="text-right text-xl">{tempo}</b>
      <span className="text-[15px] text-soft">
        {drill.title}, {last ? `last ${last.met} of ${last.of}` : 'first try'}
      </span>
      <span
        className={`text-right text-[15px] ${days <= 0 && !drill.away ? 'font-[640] text-now' : 'text-dim'}`}
      >
        {dueWords(drill, days)}
      </span>
    </Link>
  );
}

function KindRow({ kind, item, onGo }: { kind: DrillKind; item: Item | null; onGo: () => void }) {
  const { name, rule } = CATALOGUE[kind];
  const best = item ? fastestPassed(item.runs) : null;
  return (
    <button
      type="button"
      onClick={onGo}
      className="group grid w-full grid-cols-[minmax(0,1fr)_auto] gap-x-3 border-b border-line py-2 text-left"
    >
      <b className="font-[580] group-hover:underline">
        <ChordWords text={typeset(name)} />
      </b>
      <span className="text-sm text-dim">{standingWords(best, item)}</span>
      <span className="col-span-2 text-sm leading-5 text-soft">{ruleWords(rule)}</span>
    </button>
  );
}

/** A drill in the player's own words, read while it is typed. */
function OwnWords({ chart, onGo }: { chart: DrillsChart; onGo: (words: string) => void }) {
  const [text, setText] = useState('');
  const bars = useMemo(() => {
    const read = readChart(chart.text);
    return read.ok ? read.value.bars.length : 1;
  }, [chart.text]);
  const read = useMemo(() => (text.trim() === '' ? accepted(null) : readOwnWords(text, bars)), [text, bars]);
  return (
    <form
      className="mt-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() !== '' && read.ok) onGo(text);
      }}
    >
      <label className="heading" htmlFor="own-drill">
        Or in your own words
      </label>
      <div className="flex flex-wrap gap-3">
        <input
          id="own-drill"
          className="field min-w-0 flex-1"
          list="own-examples"
          placeholder={OWN_EXAMPLES[0]}
          value={text}
          onChange={(event) => setText(event.target.value)}
          aria-describedby="own-said"
          autoComplete="off"
        />
        <button type="submit" className="quiet" disabled={text.trim() === '' || !read.ok}>
          Take it up
        </button>
      </div>
      <datalist id="own-examples">
        {OWN_EXAMPLES.map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
      <p id="own-said" role="status" className="mt-1 min-h-6 text-[15px] text-soft">
        <ReadBack read={read} onSuggestion={setText} />
      </p>
    </form>
  );
}

function dueWords(drill: StoredDrill, days: number) {
  if (drill.away) return 'away';
  if (days <= 0) return 'due';
  if (days === 1) return 'tomorrow';
  return `in ${days} days`;
}

function standingWords(best: number | null, item: Item | null) {
  if (best !== null) return `passed at ${best}`;
  if (item) return 'taken up';
  return '';
}

/** The drill as it was understood, or what was not and the nearest that would be. */
function ReadBack({
  read,
  onSuggestion,
}: {
  read: Outcome<ReadWords | null>;
  onSuggestion: (text: string) => void;
}) {
  if (read.ok) {
    if (!read.value) return null;
    const { rule, span, tempo } = read.value;
    return (
      <>
        Heard as: <b className="text-ink">{ruleWords(rule)}</b>
        {span && ` Bars ${span.join('–')}.`}
        {tempo && ` At ${tempo}.`}
      </>
    );
  }
  const [{ message, suggestion }] = read.problems;
  return (
    <>
      {message}
      {suggestion && (
        <>
          {' '}
          Try:{' '}
          <button type="button" className="underline" onClick={() => onSuggestion(suggestion)}>
            {suggestion}
          </button>
        </>
      )}
    </>
  );
}
