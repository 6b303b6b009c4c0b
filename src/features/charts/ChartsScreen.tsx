'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { tinykeys } from 'tinykeys';
import { readChart, timelineOf, type Chart } from '@/core/chart';
import { ask } from '@/audio/persistence/serverTakes';
import { Shell } from '../shell/Shell';
import { useHearing } from '../shell/useHearing';
import { ChartEditor, type ReplaceText } from './ChartEditor';
import { chartFacts } from './chartFacts';
import { ChartTools } from './ChartTools';
import { ChartFactsList } from './ChartFactsList';
import { makeChart, NEW_CHART } from './newChart';
import { TypesetChart } from './TypesetChart';
import { useAutosave } from './useAutosave';
import type { SaveState } from './useAutosave';

export type LibraryEntry = { id: string; title: string; summary: string };
type Props = { library: readonly LibraryEntry[]; chart: { id: string; text: string } };

/** Library, text and typeset chart side by side; saving is not the player's business. */
export function ChartsScreen({ library, chart }: Props) {
  const router = useRouter();
  const [text, setText] = useState(chart.text);
  const read = useMemo(() => readChart(text), [text]);
  const [good, setGood] = useState<Chart | null>(() => (read.ok ? read.value : null));
  if (read.ok && good?.text !== read.value.text) setGood(read.value);
  const [trouble, setTrouble] = useState<string | null>(null);
  const problems = useMemo(() => (read.ok ? [] : read.problems), [read]);
  const save = useCallback(
    async (next: string) => {
      await ask(`/api/charts/${chart.id}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ text: next }),
        keepalive: true,
      });
    },
    [chart.id],
  );
  const { state, changed } = useAutosave(save);
  const create = useCallback(async () => {
    const made = await makeChart(NEW_CHART);
    router.push(`/charts/${made.id}`);
    router.refresh();
  }, [router]);
  const record = useCallback(() => router.push(`/record?chart=${chart.id}`), [router, chart.id]);
  const study = useCallback(() => router.push(`/study/${chart.id}`), [router, chart.id]);
  // Study's code is there before it is asked for
  useEffect(() => router.prefetch(`/study/${chart.id}`), [router, chart.id]);
  const replace = useRef<ReplaceText | null>(null);
  const { state: hearing, hear } = useHearing();
  const listen = useCallback(() => {
    if (good)
      void hear(`band ${good.text}`, (rate) => ({
        type: 'band',
        chartText: good.text,
        tempo: good.tempo ?? 110,
        choruses: 1,
        countInBars: 0,
        rate,
        seed: 3,
      }));
  }, [good, hear]);
  useEffect(() => {
    const unlessTyping = (work: () => void) => (event: KeyboardEvent) => {
      if (
        event.target instanceof HTMLElement &&
        !event.target.closest('.cm-editor, input, select, [role=dialog], [role=menu]')
      )
        work();
    };
    return tinykeys(window, {
      '$mod+Enter': (event) => {
        event.preventDefault();
        if (read.ok) study();
      },
      n: unlessTyping(() => void create()),
      h: unlessTyping(listen),
    });
  }, [read.ok, study, create, listen]);
  const sounding =
    hearing.phase === 'sounding' && good && good.written.length === good.bars.length
      ? 1 + timelineOf(good, 120).bars.findLastIndex((bar) => bar.start <= hearing.beat + 1e-6)
      : null;
  const edit = (next: string) => {
    setText(next);
    changed(next);
  };
  const barsRead = good?.bars.length ?? 0;
  return (
    <Shell
      place="Charts"
      footer={
        <>
          <b className="text-ink" role="status">
            {savingWords(state)}
          </b>
          <span>
            {read.ok
              ? `${barsRead} bars read`
              : `${problems.length} ${problems.length === 1 ? 'place' : 'places'} to mend`}
          </span>
          <span className="ml-auto hidden sm:inline">
            <kbd className="key">Ctrl Z</kbd> undo
          </span>
          {!read.ok && (
            <span className="hidden sm:inline">
              <kbd className="key">F8</kbd> next problem
            </span>
          )}
          <button type="button" className="quiet" disabled={!read.ok} onClick={record}>
            Record over it
          </button>
          <button type="button" className="go text-base" disabled={!read.ok} onClick={study}>
            Study this chart
          </button>
          <span className="hidden sm:inline">
            <kbd className="key">Ctrl Enter</kbd>
          </span>
        </>
      }
    >
      <div className="mx-4 grid grow gap-8 pt-4 pb-8 sm:mx-8 lg:grid-cols-[208px_408px_minmax(0,1fr)]">
        <Library
          library={library}
          current={chart.id}
          title={read.ok ? read.value.title || 'Untitled' : null}
          onNew={() => void create()}
        />
        <section aria-label="Chart text" className="order-3 lg:order-none">
          <h2 className="heading">Chart text</h2>
          <div className="mt-3">
            <ChartEditor
              key={chart.id}
              text={chart.text}
              problems={problems}
              onChange={edit}
              replaceRef={replace}
            />
          </div>
          <YouCanWrite />
        </section>
        <section aria-label="Typeset chart" className="min-w-0">
          {good ? (
            <>
              <h1 className="text-[30px] leading-10 font-[640] tracking-tight">{good.title || 'Untitled'}</h1>
              <p className="mb-3 text-soft">{chartFacts(good).summary}</p>
              <ChartTools
                id={chart.id}
                chart={good}
                readable={read.ok}
                hearing={hearing.phase !== 'silent'}
                onHear={listen}
                onText={(next) => replace.current?.(next)}
                onTrouble={setTrouble}
              />
              {(trouble ?? hearing.trouble) && (
                <p role="alert" className="mb-3 text-ink">
                  {trouble ?? hearing.trouble}
                </p>
              )}
              <TypesetChart chart={good} wrongBar={problems[0]?.bar ?? null} soundingBar={sounding} />
              <ChartFactsList facts={chartFacts(good)} />
            </>
          ) : (
            <p className="text-soft">The chart appears here as soon as a bar can be read.</p>
          )}
        </section>
      </div>
    </Shell>
  );
}

function Library({
  library,
  current,
  title,
  onNew,
}: {
  library: readonly LibraryEntry[];
  current: string;
  title: string | null;
  onNew: () => void;
}) {
  return (
    <nav aria-label="Library" className="order-last lg:order-none">
      <h2 className="heading">Library</h2>
      <ul>
        {library.map((entry) => (
          <li key={entry.id} className="border-t border-line">
            <Link
              href={`/charts/${entry.id}`}
              aria-current={entry.id === current ? 'true' : undefined}
              className={`relative block py-[9px] leading-[22px] ${entry.id === current ? 'pl-3 font-[640] text-ink before:absolute before:inset-y-[10px] before:left-0 before:w-1 before:bg-now' : 'text-soft hover:text-ink'}`}
            >
              {entry.id === current && title ? title : entry.title}
              <span className="block text-sm font-normal text-dim">{entry.summary}</span>
            </Link>
          </li>
        ))}
      </ul>
      <button
        type="button"
        onClick={onNew}
        className="w-full border-t border-line py-[9px] text-left text-[15px] text-soft hover:text-ink"
      >
        <kbd className="key">N</kbd>&ensp;new chart
      </button>
      <Link
        href="/charts"
        className="block w-full border-t border-line py-[9px] text-[15px] text-soft hover:text-ink"
      >
        forms to start from
      </Link>
    </nav>
  );
}

function YouCanWrite() {
  const rows = [
    ['%', 'the bar before, again'],
    ['Bb7 . . G7', 'one dot, one beat held'],
    ['[A]', 'starts a section'],
    ['|: … :|', 'repeats, with |1. |2.'],
    ['key: meter:', 'hold from there'],
    ['N.C.', 'no chord'],
    ['reading:', '8 = V/ii, altered'],
  ];
  return (
    <div className="mt-8 border-t border-line pt-2">
      <h2 className="heading">You can write</h2>
      <dl className="grid grid-cols-[7rem_1fr] font-mono text-[15px] leading-[24px] text-soft">
        {rows.map(([sign, meaning]) => (
          <div key={sign} className="contents">
            <dt>{sign}</dt>
            <dd>{meaning}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}

function savingWords(state: SaveState): string {
  if (state.state === 'failed') return `Not saved: ${state.why}`;
  return state.state === 'waiting' ? 'Saving' : 'Saved';
}
