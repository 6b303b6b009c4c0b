'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { PLANS, PLAN_IDS, type PlanId } from '@/core/plan';
import { ChoiceSetting } from '@/ui/Field';
import { useCommands } from '../shell/commands/useCommands';
import { CATALOGUE, type DrillKind } from '@/core/drills';
import { CourseView, courseThrough } from './CourseView';
import { KindRow, type Item } from './DrillRows';
import { takeUp } from './drillServer';
import { GROUPS } from './groups';
import { OwnWords } from './OwnWords';

export type DrillsChart = { readonly id: string; readonly title: string; readonly text: string };
export type Props = {
  charts: readonly DrillsChart[];
  items: readonly Item[];
  chartId: string | null;
  /** The drill of the course that is to be started here. */
  courseStep?: DrillKind | null;
};

type TakeUpProps = Pick<Props, 'charts' | 'chartId'> & {
  open: readonly Item[];
  courseStep: DrillKind | null;
};

/** Every kind of drill over a chart, and one in the player's own words. */
export function TakeOneUp({ charts, open, chartId, courseStep }: TakeUpProps) {
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
      <CourseView course={courseThrough(known, chart.text)} title={chart.title} onGo={start} />
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
