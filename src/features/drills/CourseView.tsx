'use client';
import { CATALOGUE, courseOf, type CourseOfTune, type CourseStep, type DrillKind } from '@/core/drills';
import { typeset } from '@/core/music';
import { unwrap } from '@/core/shared';
import { readChart } from '@/core/chart';
import { isLearnt } from '@/core/scheduling';
import { lineLevelName } from '@/presentation';
import { ChordWords } from '@/ui/ChordWords';
import type { Item } from './DrillRows';

/** How far the drills of one chart have come. @param known its drills by kind */
export function courseThrough(known: ReadonlyMap<string, Item>, chartText: string): CourseOfTune {
  return courseOf(
    (kind) => {
      const item = known.get(kind);
      if (!item) return 'new';
      return isLearnt(item.drill.ladder, item.runs) ? 'learnt' : 'begun';
    },
    unwrap(readChart(chartText)),
  );
}

type Props = { course: CourseOfTune; title: string; onGo: (kind: DrillKind) => void };

/** The four levels through one tune with their drills, and which comes next. */
export function CourseView({ course, title, onGo }: Props) {
  return (
    <section aria-label={`The course through ${title}`} className="mt-5">
      <h3 className="heading border-b border-line">The course through {title}</h3>
      <ol className="grid gap-x-6 gap-y-4 pt-2 sm:grid-cols-2 xl:grid-cols-4">
        {course.levels.map(({ level, steps, isDone }, index) => (
          <li key={level}>
            <p className="text-[17px] leading-6 font-[620]">
              {index + 1}. {lineLevelName(level)}
            </p>
            {isDone && <p className="text-sm text-dim">learnt</p>}
            <ul>
              {steps.map((step) => (
                <li key={step.kind}>
                  <StepButton step={step} isNext={step.kind === course.next?.kind} onGo={onGo} />
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ol>
    </section>
  );
}

type StepProps = { step: CourseStep; isNext: boolean; onGo: (kind: DrillKind) => void };

const SIGNS = { learnt: '●', begun: '◐', new: '○' } as const;

const StepButton = ({ step: { kind, standing }, isNext, onGo }: StepProps) => (
  <button
    type="button"
    onClick={() => onGo(kind)}
    className={`grid w-full grid-cols-[20px_minmax(0,1fr)] border-l-[3px] py-1 pl-2 text-left text-[15px] leading-5 hover:text-ink ${isNext ? 'border-now font-[620] text-ink' : 'border-transparent text-soft'}`}
  >
    <span aria-hidden="true">{SIGNS[standing]}</span>
    <span>
      <ChordWords text={typeset(CATALOGUE[kind].name)} />
      <span className="sr-only">, {standing}</span>
      {isNext && <span className="block text-sm font-normal text-dim">next</span>}
    </span>
  </button>
);
