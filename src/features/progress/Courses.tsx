import { scaleLinear, scalePoint } from 'd3-scale';
import { useEffect, useRef } from 'react';
import { ChordSymbol } from '@/ui/ChordSymbol';
import { weekName, MOST_WEEKS, type CourseRow } from './progressView';
import { elementAt } from '@/core/shared';

type Props = {
  rows: readonly CourseRow[];
  thisWeek: number;
  chosen: number;
  onChoose: (index: number) => void;
  what: string;
};

const AXIS = 432;
const ROW = 18;

/**
 * One axis from none to all; each week a point with the range it leaves open, oldest to newest downward. A
 * chart and a table in one.
 */
export function Courses({ rows, thisWeek, chosen, onChoose, what }: Props) {
  return (
    <table className="w-full border-collapse text-left">
      <caption className="sr-only">
        {what}, by week: how many of how many, with the range the true share lies in nine times in ten
      </caption>
      <thead>
        <tr className="align-bottom text-[15px] text-soft">
          <th scope="col" className="pb-1.5 font-normal">
            <span className="sr-only">{what}</span>
          </th>
          <th scope="col" className="hidden pb-1.5 sm:table-cell">
            <span className="sr-only">Week</span>
          </th>
          <th scope="col" className="pb-1.5">
            <span className="sr-only">Met</span>
          </th>
          <th scope="col" className="pb-1.5 font-[560]">
            <span className="flex w-full justify-between lg:w-[432px]">
              <span className="-ml-3">none</span>
              <span className="max-[359px]:hidden">half</span>
              <span className="-mr-2">all</span>
            </span>
          </th>
          <th scope="col" className="hidden pb-1.5 pl-12 font-[560] lg:table-cell">
            first week against the latest
          </th>
          <th scope="col" className="hidden pb-1.5 text-right font-[560] lg:table-cell">
            held at
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row, index) => (
          <Row
            key={row.id}
            row={row}
            thisWeek={thisWeek}
            chosen={index === chosen}
            onChoose={() => onChoose(index)}
          />
        ))}
      </tbody>
    </table>
  );
}

function Row({
  row: { from, name, course, word, detail, advice },
  thisWeek,
  chosen,
  onChoose,
}: {
  row: CourseRow;
  thisWeek: number;
  chosen: boolean;
  onChoose: () => void;
}) {
  // the first week is what the latest is held against: it is always there
  const weeks =
    course.weeks.length <= MOST_WEEKS
      ? course.weeks
      : [elementAt(course.weeks, 0), ...course.weeks.slice(1 - MOST_WEEKS)];
  const here = useRef<HTMLTableRowElement>(null);
  useEffect(() => {
    if (chosen) here.current?.scrollIntoView?.({ block: 'nearest' });
  }, [chosen]);
  return (
    <tr
      ref={here}
      className={`scroll-mt-4 scroll-mb-20 cursor-pointer border-t border-line align-middle ${chosen ? 'bg-row' : ''}`}
      onClick={onChoose}
      aria-current={chosen ? 'true' : undefined}
    >
      <th
        scope="row"
        className={`py-1 pr-3 font-normal ${chosen ? 'border-l-[3px] border-now pl-3' : 'border-l-[3px] border-transparent pl-3'}`}
      >
        <CourseName from={from} name={name} onChoose={onChoose} />
        <span className="block text-sm leading-4 text-soft lg:hidden">{word}</span>
      </th>
      <WeekCells weeks={weeks} thisWeek={thisWeek} />
      <td className="w-full min-w-[72px] min-[360px]:min-w-[120px] lg:w-[432px] lg:min-w-[432px]">
        <CoursePicture weeks={weeks} />
      </td>
      <td className="hidden py-1 pl-12 lg:table-cell">
        <b className="text-[19px] leading-6">{word}</b>
        {detail && <span className="block text-[15px] leading-6 text-dim">{detail}</span>}
        {advice && <span className="block text-[15px] leading-5 text-soft">{advice}</span>}
      </td>
      <td className="hidden pr-1 text-right text-[25px] font-[640] lg:table-cell">
        {course.heldAt ?? <span className="text-[15px] font-normal text-dim">not yet</span>}
      </td>
    </tr>
  );
}

type CourseWeek = CourseRow['course']['weeks'][number];

/** The latest weeks stand out; older ones step back. */
const WEEK_COLOURS = ['var(--h0)', 'var(--h2)', 'var(--h3)'];
const OLDER = 'var(--h4)';

/** Share met by week, a point with its interval on an axis from none to all. */
function CoursePicture({ weeks }: { weeks: readonly CourseWeek[] }) {
  const height = Math.max(64, weeks.length * ROW + 12);
  const x = scaleLinear().range([0, AXIS]);
  const y = scalePoint<number>()
    .domain(weeks.map(({ week }) => week))
    .range([(height - (weeks.length - 1) * ROW) / 2, (height + (weeks.length - 1) * ROW) / 2]);
  return (
    <svg
      viewBox={`0 0 ${AXIS} ${height}`}
      preserveAspectRatio="none"
      className="w-full"
      style={{ height }}
      aria-hidden="true"
    >
      {x.ticks(2).map((at) => (
        <line
          key={at}
          x1={x(at)}
          y1={0}
          x2={x(at)}
          y2={height}
          stroke="var(--line)"
          strokeDasharray={at === 0.5 ? '2 4' : undefined}
          vectorEffect="non-scaling-stroke"
        />
      ))}
      {weeks.map((one, index) => (
        <WeekMark
          key={one.week}
          one={one}
          x={x}
          y={y(one.week) ?? 0}
          colour={WEEK_COLOURS[weeks.length - 1 - index] ?? OLDER}
          isLast={index === weeks.length - 1}
        />
      ))}
    </svg>
  );
}

type MarkProps = {
  one: CourseWeek;
  x: (share: number) => number;
  y: number;
  colour: string;
  isLast: boolean;
};

function WeekMark({ one: { met, of, interval }, x, y, colour, isLast }: MarkProps) {
  const common = {
    y1: y,
    y2: y,
    stroke: colour,
    strokeLinecap: 'round',
    vectorEffect: 'non-scaling-stroke',
  } as const;
  const share = x(met / of);
  return (
    <g>
      <line {...common} x1={x(interval[0])} x2={x(interval[1])} strokeWidth={isLast ? 3 : 2} />
      <line {...common} data-point x1={share} x2={share + 0.01} strokeWidth={isLast ? 13 : 10} />
    </g>
  );
}

type NameProps = { from: string | null; name: string; onChoose: () => void };

const CourseName = ({ from, name, onChoose }: NameProps) => (
  <button type="button" className="text-left whitespace-nowrap" onClick={onChoose}>
    {from !== null ? (
      <>
        <span className="text-xl text-soft">
          <ChordSymbol symbol={from} />
        </span>{' '}
        <span className="mx-1.5 text-[15px] text-soft">to</span>{' '}
        <span className="text-2xl font-[640]">
          <ChordSymbol symbol={name} />
        </span>
      </>
    ) : (
      <b className="text-[19px]">{name}</b>
    )}
  </button>
);

type WeekProps = { weeks: CourseRow['course']['weeks']; thisWeek: number };

/** The weeks and what was met in each, the latest in full ink. */
function WeekCells({ weeks, thisWeek }: WeekProps) {
  return (
    <>
      <td className="hidden pr-3 text-[14px] sm:table-cell">
        {weeks.map(({ week }, index) => (
          <span
            key={week}
            className={`block h-[18px] leading-[18px] whitespace-nowrap ${index === weeks.length - 1 ? 'font-[640] text-ink' : 'text-dim'}`}
          >
            {weekName(week, thisWeek)}
          </span>
        ))}
      </td>
      <td className="pr-6 text-right text-[15px]">
        {weeks.map(({ week, met, of }, index) => (
          <span
            key={week}
            className={`block h-[18px] leading-[18px] whitespace-nowrap ${index === weeks.length - 1 ? 'text-soft' : 'text-dim'}`}
          >
            <b className={index === weeks.length - 1 ? 'text-ink' : 'font-normal text-soft'}>{met}</b> of {of}
          </span>
        ))}
      </td>
    </>
  );
}
