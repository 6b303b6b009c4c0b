'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { elementAt } from '@/core/shared';
import type { StoredPhrase } from '@/server/phrases';
import { Select, TabRow } from '@/ui/controls';
import { useCommands } from '../shell/commands/useCommands';
import { Shell } from '../shell/Shell';
import { useHearing } from '../shell/useHearing';
import { hearLine } from './Hear';
import { NameAndTags } from './NameAndTags';
import { PlayedAgain } from './PlayedAgain';
import { changePhrase, keepPhrase } from './phraseServer';
import { TABS, ON_CHART, type WorkshopChart, type Tab, type Bench } from './bench';
import { WorkshopFooter, Own, View } from './WorkshopViews';
type Props = {
  stored: StoredPhrase;
  charts: readonly WorkshopChart[];
  others: readonly StoredPhrase[];
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
    place: (position) =>
      void changePhrase(stored.id, { position })
        .then(() => router.refresh())
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
