'use client';
import Link from 'next/link';
import { useMemo } from 'react';
import { readChart } from '@/core/chart';
import { planFromWords, planShort, type PlanWords } from '@/core/plan';
import { unwrap } from '@/core/shared';
import { instrumentOf, useGuitar } from '@/ui/instrument';
import { HomeGrid } from './HomeGrid';
import { handsAt, PlaceView } from './PlaceView';
import { SheetRuns } from './SheetRuns';
import { StudyForm } from './StudyForm';
import { studyOf } from './studyView';

type Props = { chart: { id: string; text: string }; plan: PlanWords; position: number };

/**
 * A sheet for the stand: the form with its degrees and thread, and the whole form in one place of the neck.
 * Printed on white, whatever the theme.
 */
export function SheetScreen({ chart: stored, plan, position }: Props) {
  const guitar = useGuitar();
  const instrument = useMemo(() => instrumentOf(guitar), [guitar]);
  const chart = useMemo(() => unwrap(readChart(stored.text)), [stored.text]);
  const study = useMemo(() => studyOf(chart, unwrap(planFromWords(plan))), [chart, plan]);
  return (
    <main data-theme="noon" className="sheet min-h-dvh bg-white text-ink">
      <div className="mx-auto max-w-[1000px] px-8 py-6">
        <p className="no-print mb-4 flex gap-6 text-soft">
          <Link className="underline" href={`/study/${stored.id}`}>
            Back to Study
          </Link>
          <button type="button" className="underline" onClick={() => window.print()}>
            Print
          </button>
        </p>
        <h1 className="text-[30px] leading-10 font-[640] tracking-tight">{study.meta[0]}</h1>
        <p className="text-soft">
          {[...study.meta.slice(1), chart.feel, chart.tempo, planShort(plan)].filter(Boolean).join(' · ')}
        </p>
        <section aria-label="Thread" className="sheet-form mt-5">
          <StudyForm study={study} selected={-1} sounding={null} barsARow={4} onSelect={() => undefined} />
        </section>
        <section aria-label="One place" className="mt-6 break-before-page">
          <h2 className="mb-3 text-[20px] font-[620]">
            One place: position {position}
            {guitar.capo > 0 ? `, capo ${guitar.capo}` : ''}
          </h2>
          <PlaceView
            study={study}
            hands={handsAt(study, position, instrument)}
            instrument={instrument}
            leftHanded={guitar.leftHanded}
            selected={-1}
            barsARow={4}
            onSelect={() => undefined}
          />
        </section>
        <section aria-label="On the page" className="sheet-runs mt-6 break-before-page">
          <SheetRuns study={study} position={position} instrument={instrument} />
        </section>
        <section aria-label="Grid" className="mt-6 break-before-page">
          <HomeGrid grid={study.grid} home={study.plan.homeScales[0]?.name ?? ''} bar={0} />
        </section>
        <p className="mt-4 text-sm text-dim">
          Solid dark: a tone the home scale lacks. Paler: a chord tone. Dots: the plan’s other notes. Ring:
          the third or seventh to follow.
        </p>
      </div>
    </main>
  );
}
