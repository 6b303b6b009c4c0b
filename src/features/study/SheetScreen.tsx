'use client';
import Link from 'next/link';
import { useMemo, type CSSProperties } from 'react';
import { readChart } from '@/core/chart';
import { planFromWords, planShort, type PlanWords } from '@/core/plan';
import { unwrap } from '@/core/shared';
import { instrumentOf, useGuitar } from '@/ui/instrument';
import { HomeGrid } from './HomeGrid';
import { handsAt, PlaceView } from './PlaceView';
import { SHEET_PARTS, type SheetPart } from './sheetParts';
import { SheetRuns } from './SheetRuns';
import { StudyForm } from './StudyForm';
import { studyOf } from './studyView';

const BARS_A_ROW = 4;

type Props = {
  chart: { id: string; text: string };
  plan: PlanWords;
  position: number;
  part: SheetPart;
  /** The address of this sheet with another part. */
  addressOf: Readonly<Record<SheetPart, string>>;
};

/**
 * A sheet for the stand: the form with its degrees and thread, and the whole form in one place of the neck.
 * Printed on white, whatever the theme.
 */
export function SheetScreen({ chart: stored, plan, position, part, addressOf }: Props) {
  const guitar = useGuitar();
  const instrument = useMemo(() => instrumentOf(guitar), [guitar]);
  const chart = useMemo(() => unwrap(readChart(stored.text)), [stored.text]);
  const study = useMemo(() => studyOf(chart, unwrap(planFromWords(plan))), [chart, plan]);
  const has = (one: SheetPart) => part === one || part === 'all';
  const nextPage = part === 'all' ? 'break-before-page' : '';
  return (
    <main data-theme="noon" className="sheet min-h-dvh bg-white text-ink">
      <div className="mx-auto max-w-[1000px] px-8 py-6">
        <Ways chartId={stored.id} part={part} addressOf={addressOf} />
        <h1 className="text-[30px] leading-10 font-[640] tracking-tight">{study.meta[0]}</h1>
        <p className="text-soft">
          {[...study.meta.slice(1), chart.feel, chart.tempo, planShort(plan)].filter(Boolean).join(' · ')}
        </p>
        {has('form') && (
          <section
            aria-label="Thread"
            className="sheet-form mt-5"
            style={{ '--rows': Math.ceil(study.timeline.bars.length / BARS_A_ROW) } as CSSProperties}
          >
            <StudyForm
              study={study}
              selected={-1}
              sounding={null}
              barsARow={BARS_A_ROW}
              onSelect={() => undefined}
            />
          </section>
        )}
        {has('place') && (
          <section aria-label="One place" className={`sheet-place mt-6 ${nextPage}`}>
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
              barsARow={BARS_A_ROW}
              onSelect={() => undefined}
            />
            <p className="mt-4 text-sm text-dim">
              Solid dark: a tone the home scale lacks. Paler: a chord tone. Dots: the plan’s other notes.
              Ring: the third or seventh to follow.
            </p>
          </section>
        )}
        {has('runs') && (
          <section aria-label="On the page" className={`sheet-runs mt-6 ${nextPage}`}>
            <SheetRuns study={study} position={position} instrument={instrument} />
          </section>
        )}
        {has('grid') && (
          <section aria-label="Grid" className={`mt-6 ${nextPage}`}>
            <HomeGrid grid={study.grid} home={study.plan.homeScales[0]?.name ?? ''} bar={0} />
          </section>
        )}
      </div>
    </main>
  );
}

/** Back, the other parts, and the printer: none of them is printed. */
function Ways({ chartId, part, addressOf }: Pick<Props, 'part' | 'addressOf'> & { chartId: string }) {
  return (
    <p className="no-print mb-4 flex flex-wrap gap-x-6 gap-y-1 text-soft">
      <Link className="underline" href={`/study/${chartId}`}>
        Back to Study
      </Link>
      {SHEET_PARTS.map(([name, words]) => (
        <Link
          key={name}
          href={addressOf[name]}
          aria-current={name === part ? 'page' : undefined}
          className={name === part ? 'border-b-2 border-now font-[620] text-ink' : 'hover:text-ink'}
        >
          {words}
        </Link>
      ))}
      <button type="button" className="ml-auto underline" onClick={() => window.print()}>
        Print
      </button>
    </p>
  );
}
