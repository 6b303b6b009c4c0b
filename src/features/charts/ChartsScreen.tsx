'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useRef } from 'react';
import { useCommands } from '../shell/commands/useCommands';
import { Shell } from '../shell/Shell';
import { ChartEditor, type ReplaceText } from './ChartEditor';
import { chartFacts } from './chartFacts';
import { ChartFactsList } from './ChartFactsList';
import { ChartTools } from './ChartTools';
import { makeChart, NEW_CHART } from './newChart';
import { removeChart } from '../shell/trash';
import { TypesetChart } from './TypesetChart';
import { useChartModel, type StoredText, type ChartModel } from './useChartModel';
import { Footer, Library, YouCanWrite, type LibraryEntry } from './ChartFrame';
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
        router.push(`/charts/${back.id}`);
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
