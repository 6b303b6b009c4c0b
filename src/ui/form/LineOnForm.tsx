'use client';
import { useMemo } from 'react';
import type { Report } from '@/core/analyse';
import type { Timeline } from '@/core/chart';
import { elementAt } from '@/core/shared';
import { formRows } from './formRows';
import { FormRow } from './FormRow';
import { HEAD, LANE } from './geometry';
import type { TakeOnForm } from './takeOnForm';

const WIDTH = 800;
/** On a phone, where a row of the other width would be too small to read. */
const PHONE = 400;
const MOST_PASSES = 3;

type Props = {
  report: Report;
  drawn: TakeOnForm;
  timeline: Timeline;
  passes?: number;
  /** The beat that sounds, where it is heard. */
  cursor?: number | null;
  /** Rows that are drawn at most. */
  rows?: number;
  /** What it is a picture of, for who does not see it. */
  name: string;
};

/** A line over the first rows of its form, wide and on a phone. */
export function LineOnForm(props: Props) {
  const { timeline, rows = 3 } = props;
  return (
    <>
      <Rows {...props} width={WIDTH} shownOn="hidden sm:block" />
      <Rows {...props} width={PHONE} shownOn="sm:hidden" />
      {timeline.bars.length > rows * 4 && (
        <p className="text-sm text-dim">and so on to bar {timeline.bars.length}</p>
      )}
    </>
  );
}

function Rows({
  report,
  drawn,
  timeline,
  passes = 1,
  cursor = null,
  rows: most = 3,
  name,
  width,
  shownOn,
}: Props & { width: number; shownOn: string }) {
  const shownPasses = Array.from({ length: Math.min(passes, MOST_PASSES) }, (_, pass) => pass);
  const rows = useMemo(() => formRows(timeline).slice(0, most), [timeline, most]);
  const intervalsIn = (from: number, to: number) =>
    report.notes
      .filter(({ onsetBeat }) => onsetBeat >= from && onsetBeat < to)
      .map(({ interval }) => interval ?? 'rest')
      .join(' ');
  return (
    <div className={shownOn}>
      {rows.map((row) => (
        <svg
          key={row.index}
          viewBox={`0 0 ${width} ${HEAD + LANE * shownPasses.length + 10}`}
          className="mb-1 w-full"
          role="img"
          aria-label={`Bars ${elementAt(row.bars, 0).number} to ${elementAt(row.bars, row.bars.length - 1).number} of ${name}: ${intervalsIn(row.start, row.end)}`}
        >
          <FormRow
            row={row}
            width={width}
            formBeats={timeline.formBeats}
            choruses={shownPasses}
            take={drawn}
            cursor={cursor}
          />
        </svg>
      ))}
    </div>
  );
}
