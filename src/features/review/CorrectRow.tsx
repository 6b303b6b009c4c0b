'use client';
import { useMemo } from 'react';
import type { Timeline } from '@/core/chart';
import { elementAt, present } from '@/core/shared';
import { ChordSvg } from '@/ui/ChordSymbol';
import { FormLane } from '@/ui/form/FormLane';
import { formRows } from '@/ui/form/formRows';
import { HEAD, LANE, rowGeometry, type LaneSpec } from '@/ui/form/geometry';
import type { TakeOnForm } from '@/ui/form/takeOnForm';

const WIDTH = 900;

/** The row of the form the bar lies in, with the chorus that is corrected. */
export function CorrectRow({
  timeline,
  drawn,
  chorus,
  row: index,
  marked,
  selected,
  onNote,
}: {
  timeline: Timeline;
  drawn: TakeOnForm;
  chorus: number;
  row: number;
  marked: readonly [number, number];
  selected: number | null;
  onNote: (index: number) => void;
}) {
  const row = useMemo(() => elementAt(formRows(timeline), index), [timeline, index]);
  const geometry = rowGeometry(row, WIDTH);
  const lane: LaneSpec = { chorus, view: 'height', height: LANE };
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEAD + LANE + 4}`}
      className="block w-full"
      role="img"
      aria-label={`Bars ${present(row.bars[0]).number} to ${present(row.bars[row.bars.length - 1]).number}, chorus ${chorus + 1}`}
    >
      {row.chords.map((chord) => (
        <ChordSvg
          key={chord.start}
          x={geometry.x(chord.start) + 8}
          y={18}
          symbol={chord.symbol}
          size={18}
          fill={chord.changes ? 'var(--ink)' : 'var(--soft)'}
        />
      ))}
      <g transform={`translate(0 ${HEAD})`}>
        <rect
          x={geometry.left}
          y={1}
          width={geometry.right - geometry.left}
          height={LANE - 3}
          fill="var(--row)"
        />
        <text x={0} y={LANE / 2 + 5} fontSize={14} style={{ fill: 'var(--soft)' }}>
          {chorus + 1}
        </text>
        <FormLane
          row={row}
          width={WIDTH}
          formBeats={timeline.formBeats}
          choruses={[chorus]}
          take={drawn}
          lane={lane}
          geometry={geometry}
          marked={marked}
          selected={selected}
          onNote={onNote}
        />
      </g>
    </svg>
  );
}
