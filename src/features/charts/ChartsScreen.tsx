'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { readChart, timelineOf, type Chart } from '@/core/chart';
import { ask } from '@/audio/persistence/serverTakes';
import { KeyOf } from '../shell/commands/KeyOf';
import { useCommands } from '../shell/commands/useCommands';
import { Shell } from '../shell/Shell';
import { useHearing } from '../shell/useHearing';
import { ChartEditor, type ReplaceText } from './ChartEditor';
import { chartFacts } from './chartFacts';
import { ChartFactsList } from './ChartFactsList';
import { ChartTools } from './ChartTools';
import { makeChart, NEW_CHART } from './newChart';
import { removeChart } from '../shell/chartTrash';
import { TypesetChart } from './TypesetChart';
import { useAutosave, type SaveState } from './useAutosave';

export type LibraryEntry = { id: string; title: string; summary: string };
type StoredText = { id: string; text: string };
type Props = { library: readonly LibraryEntry[]; chart: StoredText };

/** Library, text and typeset chart side by side; saving is not the player's business. */
export function ChartsScreen({ library, chart }: Props) {
  const router = useRouter();
  const model = useChartModel(chart);
  const { readable, good, problems, edit, hearGood } = model;
  const create = async () => {
    const made = await makeChart(NEW_CHART);
    router.push(`/charts/${made.id}`);
    router.refresh();
  };
  const record = () => router.push(`/record?chart=${chart.id}`);
  const study = () => router.push(`/study/${chart.id}`);
  // Study's code is there before it is asked for
  useEffect(() => router.prefetch(`/study/${chart.id}`), [router, chart.id]);
  const remove = () =>
    void removeChart(
      { id: chart.id, title: good?.title || 'Untitled' },
      () => {
        router.push('/charts');
        router.refresh();
      },
      (back) => {
        router.push(`/charts/${back}`);
        router.refresh();
      },
    );
  const replace = useRef<ReplaceText | null>(null);
  useCommands({
    'chart.study': { when: readable, run: study },
    'chart.record': { when: readable, run: record },
    'chart.hear': { when: good !== null, run: hearGood },
    'chart.create': () => void create(),
    'chart.remove': remove,
  });
  return (
    <Shell place="Charts" footer={<Footer model={model} onRecord={record} onStudy={study} />}>
      <div className="mx-4 grid grow gap-8 pt-4 pb-8 sm:mx-8 lg:grid-cols-[208px_408px_minmax(0,1fr)]">
        <Library
          library={library}
          current={chart.id}
          title={readable ? good?.title || 'Untitled' : null}
          onNew={() => void create()}
        />
        <section aria-label="Chart text" className="order-3 lg:order-none">
          <h2 className="heading">Chart text</h2>
          <div className="mt-3">
            <ChartEditor
              key={chart.id}
              text={model.text}
              problems={problems}
              onChange={edit}
              replaceRef={replace}
            />
          </div>
          <YouCanWrite />
        </section>
        <section aria-label="Typeset chart" className="min-w-0">
          <Typeset id={chart.id} model={model} onText={(next) => replace.current?.(next)} onRemove={remove} />
        </section>
      </div>
    </Shell>
  );
}

/** The text as it stands, what could last be read of it, and its sound. */
function useChartModel(chart: StoredText) {
  const [text, setText] = useState(chart.text);
  const read = useMemo(() => readChart(text), [text]);
  const [good, setGood] = useState<Chart | null>(() => (read.ok ? read.value : null));
  if (read.ok && good?.text !== read.value.text) setGood(read.value);
  const [trouble, setTrouble] = useState<string | null>(null);
  const save = useCallback(
    (next: string) =>
      ask<void>(`/api/charts/${chart.id}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ text: next }),
        keepalive: true,
      }),
    [chart.id],
  );
  const { state: saving, changed } = useAutosave(save);
  const { state: hearing, hear } = useHearing();
  return {
    text: chart.text,
    readable: read.ok,
    problems: useMemo(() => (read.ok ? [] : read.problems), [read]),
    good,
    saving,
    hearing,
    trouble: trouble ?? hearing.trouble,
    setTrouble,
    edit: (next: string) => {
      setText(next);
      changed(next);
    },
    hearGood: () => {
      if (good) void hear(`band ${good.text}`, (rate) => bandOver(good, rate));
    },
    /** The written bar that sounds, from 1; null where none does or repeats make it unclear. */
    soundingBar:
      hearing.phase === 'sounding' && good && good.written.length === good.bars.length
        ? 1 + timelineOf(good, 120).bars.findLastIndex((bar) => bar.start <= hearing.beat + 1e-6)
        : null,
  };
}
type ChartModel = ReturnType<typeof useChartModel>;

/** One chorus of the band over a chart. */
export const bandOver = ({ text, tempo }: Pick<Chart, 'text' | 'tempo'>, rate: number) => ({
  type: 'band' as const,
  chartText: text,
  tempo: tempo ?? 110,
  choruses: 1,
  countInBars: 0,
  rate,
  seed: 3,
});

type FooterProps = { model: ChartModel; onRecord: () => void; onStudy: () => void };

function Footer({ model: { saving, readable, good, problems }, onRecord, onStudy }: FooterProps) {
  const wrong = `${problems.length} ${problems.length === 1 ? 'place' : 'places'} to fix`;
  return (
    <>
      <b className="text-ink" role="status">
        {savingWords(saving)}
      </b>
      <span>{readable ? `${good?.bars.length ?? 0} bars read` : wrong}</span>
      <span className="ml-auto hidden sm:inline">
        <kbd className="key">Ctrl Z</kbd> undo
      </span>
      {!readable && (
        <span className="hidden sm:inline">
          <kbd className="key">F8</kbd> next problem
        </span>
      )}
      <button type="button" className="quiet" disabled={!readable} onClick={onRecord}>
        Record over it
      </button>
      <button type="button" className="go text-base" disabled={!readable} onClick={onStudy}>
        Study this chart
      </button>
      <span className="hidden sm:inline">
        <KeyOf command="chart.study" />
      </span>
    </>
  );
}

type TypesetProps = {
  id: string;
  model: ChartModel;
  onText: (text: string) => void;
  onRemove: () => void;
};

function Typeset({ id, model, onText, onRemove }: TypesetProps) {
  const { good, readable, hearing, hearGood, trouble, setTrouble, problems, soundingBar } = model;
  if (!good) return <p className="text-soft">The chart appears here as soon as a bar can be read.</p>;
  return (
    <>
      <h1 className="text-[30px] leading-10 font-[640] tracking-tight">{good.title || 'Untitled'}</h1>
      <p className="mb-3 text-soft">{chartFacts(good).summary}</p>
      <ChartTools
        id={id}
        chart={good}
        readable={readable}
        hearing={hearing.phase !== 'silent'}
        onHear={hearGood}
        onText={onText}
        onTrouble={setTrouble}
        onRemove={onRemove}
      />
      {trouble && (
        <p role="alert" className="mb-3 text-ink">
          {trouble}
        </p>
      )}
      <TypesetChart chart={good} wrongBar={problems[0]?.bar ?? null} soundingBar={soundingBar} />
      <ChartFactsList facts={chartFacts(good)} />
    </>
  );
}

type LibraryProps = {
  library: readonly LibraryEntry[];
  current: string;
  title: string | null;
  onNew: () => void;
};

function Library({ library, current, title, onNew }: LibraryProps) {
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
        <KeyOf command="chart.create" />
        &ensp;new chart
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

const SIGNS = [
  ['%', 'the bar before, again'],
  ['Bb7 . . G7', 'one dot, one beat held'],
  ['[A]', 'starts a section'],
  ['|: … :|', 'repeats, with |1. |2.'],
  ['key: meter:', 'hold from there'],
  ['N.C.', 'no chord'],
  ['reading:', '8 = V/ii, altered'],
] as const;

const YouCanWrite = () => (
  <div className="mt-8 border-t border-line pt-2">
    <h2 className="heading">You can write</h2>
    <dl className="grid grid-cols-[7rem_1fr] font-mono text-[15px] leading-[24px] text-soft">
      {SIGNS.map(([sign, meaning]) => (
        <div key={sign} className="contents">
          <dt>{sign}</dt>
          <dd>{meaning}</dd>
        </div>
      ))}
    </dl>
  </div>
);

function savingWords(state: SaveState): string {
  if (state.state === 'failed') return `Not saved: ${state.why}`;
  return state.state === 'waiting' ? 'Saving' : 'Saved';
}
