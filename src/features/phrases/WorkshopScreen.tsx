'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { sceneOf, type KeptPhrase } from '@/core/phrases';
import { elementAt } from '@/core/shared';
import type { StoredPhrase } from '@/server/phrases';
import { ChordWords } from '@/ui/ChordWords';
import { Select, TabRow } from '@/ui/controls';
import { LineShown } from '@/ui/page/LineShown';
import { LineOnNeck } from '@/ui/neck/LineOnNeck';
import { useCommands } from '../shell/commands/useCommands';
import { KeyOf } from '../shell/commands/KeyOf';
import { Shell } from '../shell/Shell';
import { useHearing } from '../shell/useHearing';
import { BlocksView } from './BlocksView';
import { CellView } from './CellView';
import { EndingsView } from './EndingsView';
import { beatOf, hearLine, hearWords, type Hearing } from './Hear';
import { JoinView } from './JoinView';
import { NameAndTags } from './NameAndTags';
import { PlayedAgain } from './PlayedAgain';
import { keepPhrase } from './phraseServer';
import { chordsText, drawnLine, formulaText, notesText } from './phraseView';
import { TransferView } from './TransferView';
import { VariationsView } from './VariationsView';

export type WorkshopChart = { readonly id: string; readonly title: string; readonly text: string };
type Props = {
  stored: StoredPhrase;
  charts: readonly WorkshopChart[];
  others: readonly StoredPhrase[];
};

const TABS = [
  ['form', 'over a form'],
  ['variations', 'variations'],
  ['endings', 'endings'],
  ['cell', 'as a moving cell'],
  ['blocks', 'block chords'],
  ['join', 'joined'],
] as const;
type Tab = (typeof TABS)[number][0];
/** Views that carry the phrase to a chart. */
const ON_CHART: ReadonlySet<Tab> = new Set(['form', 'endings', 'cell']);

/** What a view of the workshop works with. */
export type Bench = {
  readonly stored: StoredPhrase;
  readonly hearing: Hearing;
  /** The chart it is carried to; null where there is none. */
  readonly chart: WorkshopChart | null;
  readonly keep: (name: string, phrase: KeptPhrase) => void;
  readonly say: (trouble: string | null) => void;
};

/** One phrase, and everything that can be made of it. */
export function WorkshopScreen({ stored, charts, others }: Props) {
  const router = useRouter();
  const hearing = useHearing();
  const [tab, setTab] = useState<Tab>('form');
  const [chartId, setChartId] = useState(charts[0]?.id ?? '');
  const [trouble, setTrouble] = useState<string | null>(null);
  const own = { id: stored.id, ...stored.phrase };
  const step = (by: 1 | -1) => {
    const at = TABS.findIndex(([id]) => id === tab);
    setTab(elementAt(TABS, (at + by + TABS.length) % TABS.length)[0]);
  };
  useCommands({
    'phrase.hear': () => hearLine(hearing, own),
    'phrase.nextView': () => step(1),
    'phrase.previousView': () => step(-1),
  });
  const bench: Bench = {
    stored,
    hearing,
    chart: charts.find(({ id }) => id === chartId) ?? null,
    keep: (name, phrase) =>
      void keepPhrase({ name, tags: [...stored.tags], phrase, source: 'variation' })
        .then(({ id }) => router.push(`/phrases/${id}`))
        .catch((error: Error) => setTrouble(error.message)),
    say: setTrouble,
  };
  return (
    <Shell place="Phrases" footer={<WorkshopFooter hearing={hearing} id={stored.id} />}>
      <div className="mx-4 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 pt-3 pb-10 sm:mx-8 lg:grid-cols-[minmax(0,820fr)_minmax(260px,300fr)]">
        <div className="min-w-0">
          <Own bench={bench} />
          <div className="mt-5 border-t border-line pt-3">
            <TabRow label="What to make of it" value={tab} choices={TABS} onChange={setTab}>
              {ON_CHART.has(tab) && charts.length > 0 && (
                <div className="mt-2 flex items-center gap-3 text-soft">
                  over
                  <Select
                    label="Over"
                    look="line"
                    value={chartId}
                    options={charts.map(({ id, title }) => [id, title] as const)}
                    onChange={setChartId}
                  />
                </div>
              )}
              {trouble && (
                <p role="alert" className="mt-3 border-l-[3px] border-now pl-4 text-ink">
                  {trouble}
                </p>
              )}
              <View tab={tab} bench={bench} others={others} />
            </TabRow>
          </div>
        </div>
        <aside className="min-w-0">
          <NameAndTags stored={stored} />
          <PlayedAgain stored={stored} />
        </aside>
      </div>
    </Shell>
  );
}

const WorkshopFooter = ({ hearing, id }: { hearing: Hearing; id: string }) => (
  <>
    <span>
      <KeyOf command="phrase.hear" className="mr-1.5" />
      {hearWords(hearing, id)}
    </span>
    <span>
      <KeyOf command="phrase.nextView" className="mr-1.5" />
      next view
    </span>
    <Link href="/phrases" className="ml-auto hover:text-ink">
      all phrases
    </Link>
  </>
);

/** The phrase as it is kept: over its chords, on the neck, by name and by degree. */
function Own({ bench: { stored, hearing } }: { bench: Bench }) {
  const { phrase } = stored;
  const line = useMemo(() => drawnLine(sceneOf(phrase).chart, phrase.tempo, phrase.notes), [phrase]);
  const beat = beatOf(hearing, stored.id);
  return (
    <section aria-label="The phrase">
      <h1 className="text-[27px] leading-9 font-[640]">{stored.name}</h1>
      <p className="mb-1 text-soft">
        <ChordWords text={chordsText(phrase)} />
        <span className="ml-4">{notesText(phrase)}</span>
        <b className="ml-4 text-ink">{formulaText(phrase)}</b>
      </p>
      <LineShown withChoice {...line} cursor={beat} name={stored.name} />
      <LineOnNeck report={line.report} beat={beat} name={stored.name} />
    </section>
  );
}

function View({ tab, bench, others }: { tab: Tab; bench: Bench; others: readonly StoredPhrase[] }) {
  if (tab === 'variations') return <VariationsView bench={bench} />;
  if (tab === 'blocks') return <BlocksView bench={bench} />;
  if (tab === 'join') return <JoinView bench={bench} others={others} />;
  if (!bench.chart)
    return <p className="mt-4 text-soft">There is no chart to carry it to. Write one under Charts.</p>;
  if (tab === 'endings') return <EndingsView bench={bench} chart={bench.chart} />;
  if (tab === 'cell') return <CellView bench={bench} chart={bench.chart} />;
  return <TransferView key={bench.chart.id} bench={bench} chart={bench.chart} />;
}
