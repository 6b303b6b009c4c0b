'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { typeset } from '@/core/music';
import { PLANS, PLAN_IDS, type PlanId } from '@/core/plan';
import { ChordWords } from '@/ui/ChordWords';
import { ChoiceSetting } from '@/ui/Field';
import { useCommands } from '../shell/commands/useCommands';
import { Shell } from '../shell/Shell';
import { CATALOGUE, type DrillKind } from '@/core/drills';
import { CourseView, courseThrough } from './CourseView';
import { ItemRow, KindRow, type Item } from './DrillRows';
import { takeUp } from './drillServer';
import { GROUPS } from './groups';
import { OwnWords } from './OwnWords';

export type DrillsChart = { readonly id: string; readonly title: string; readonly text: string };
type Props = {
  charts: readonly DrillsChart[];
  items: readonly Item[];
  chartId: string | null;
  /** The drill of the course that is to be started here. */
  courseStep?: DrillKind | null;
};

/** Your drills, and everything that can be practised over a chart. */
export function DrillsScreen({ charts, items, chartId, courseStep = null }: Props) {
  const router = useRouter();
  const open = items.filter(({ drill }) => !drill.away);
  const due = open.filter(({ days }) => days <= 0);
  const first = due[0] ?? open[0];
  useCommands(
    {
      'drills.start': first && {
        label: due[0] ? 'Open the first drill due' : 'Open the next drill',
        run: () => router.push(`/drills/${first.drill.id}`),
      },
    },
    { scrolls: true },
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
                {due[0] ? 'the first drill due' : 'the next drill'}:{' '}
                <ChordWords text={typeset(first.drill.drill.name)} />
              </>
            ) : (
              'Start one below, or from a finding in a review.'
            )}
          </span>
          <span className="ml-auto hidden sm:inline">
            {open.length} {open.length === 1 ? 'drill' : 'drills'}, {due.length} due today
          </span>
        </>
      }
    >
      <div className="mx-4 grid gap-x-14 gap-y-8 pt-4 pb-10 sm:mx-8 lg:grid-cols-[400px_minmax(0,1fr)]">
        <ComingBack open={open} away={items.filter(({ drill }) => drill.away)} />
        <TakeOneUp charts={charts} open={open} chartId={chartId} courseStep={courseStep} />
      </div>
    </Shell>
  );
}

function ComingBack({ open, away }: { open: readonly Item[]; away: readonly Item[] }) {
  return (
    <section aria-label="Your drills" className="min-w-0">
      <h1 className="text-[25px] leading-8 font-[640]">Your drills</h1>
      {open.length === 0 && (
        <p className="mt-3 text-lg leading-7 text-soft">
          Nothing yet. A finding in a review becomes a drill on one key; or start one here.
        </p>
      )}
      <ul className="mt-2">
        <ItemRows items={open} />
      </ul>
      {away.length > 0 && (
        <details className="mt-4 text-soft">
          <summary className="cursor-pointer text-[15px] text-dim">{away.length} paused</summary>
          <ul>
            <ItemRows items={away} />
          </ul>
        </details>
      )}
    </section>
  );
}

const ItemRows = ({ items }: { items: readonly Item[] }) =>
  items.map((item) => (
    <li key={item.drill.id} className="border-b border-line">
      <ItemRow item={item} />
    </li>
  ));

type TakeUpProps = Pick<Props, 'charts' | 'chartId'> & {
  open: readonly Item[];
  courseStep: DrillKind | null;
};

/** Every kind of drill over a chart, and one in the player's own words. */
function TakeOneUp({ charts, open, chartId, courseStep }: TakeUpProps) {
  const router = useRouter();
  const [chosen, setChosen] = useState(chartId ?? charts[0]?.id ?? '');
  const [plan, setPlan] = useState<PlanId>('scale-per-chord');
  const [trouble, setTrouble] = useState<string | null>(null);
  const chart = charts.find(({ id }) => id === chosen);
  const go = (body: Parameters<typeof takeUp>[0]) => {
    setTrouble(null);
    takeUp(body)
      .then(({ id }) => router.push(`/drills/${id}`))
      .catch((error: Error) => setTrouble(error.message));
  };
  const known = new Map(
    open
      .filter(({ drill }) => drill.chartId === chosen)
      .map((item) => [item.drill.drill.kind as string, item]),
  );
  const start = (kind: DrillKind) => {
    const item = known.get(kind);
    if (item) router.push(`/drills/${item.drill.id}`);
    else go({ chartId: chosen, kind, plan: { id: plan } });
  };
  useCommands(
    {
      'drills.start': courseStep && {
        label: `Start ${CATALOGUE[courseStep].name}`,
        run: () => start(courseStep),
      },
    },
    { priority: 1 },
  );
  if (!chart) return <NoChart />;
  return (
    <section aria-label="Start a new drill" className="min-w-0">
      <h2 className="text-[25px] leading-8 font-[640]">Start a new drill</h2>
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
        chartText={chart.text}
        onGo={(words) => go({ chartId: chart.id, words, plan: { id: plan } })}
      />
      {trouble && (
        <p role="alert" className="mt-2 border-l-[3px] border-now pl-4 text-ink">
          {trouble}
        </p>
      )}
      <CourseView course={courseThrough(known)} title={chart.title} onGo={start} />
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
    </section>
  );
}

const NoChart = () => (
  <section aria-label="Start a new drill" className="min-w-0">
    <h2 className="text-[25px] leading-8 font-[640]">Start a new drill</h2>
    <p className="mt-3 text-lg text-soft">
      There is no chart to drill over.{' '}
      <Link className="underline" href="/charts">
        Write one
      </Link>
      , or take one from the library.
    </p>
  </section>
);
