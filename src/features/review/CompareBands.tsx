'use client';
import { useMemo } from 'react';
import type { Timeline } from '@/core/chart';
import type { Comparison } from '@/core/findings';
import { elementAt } from '@/core/shared';
import { ChordSvg } from '@/ui/ChordSymbol';
import { FormLane } from '@/ui/form/FormLane';
import { formRows, type FormRowModel } from '@/ui/form/formRows';
import { GUTTER, rowGeometry, type LaneSpec } from '@/ui/form/geometry';
import { takeOnForm, type TakeOnForm } from '@/ui/form/takeOnForm';
import type { Side } from './compareSides';

const WIDTH = 856;
const LEFT = 92;
const LANE = 22;
const HEAD = 30;
const GAP = 10;

type Props = {
  sides: readonly Side[];
  comparison: Comparison;
  timeline: Timeline;
  onHear: (beat: number) => void;
};
type Drawn = Side & { readonly drawn: TakeOnForm; readonly choruses: number; readonly top: number };

/** Takes one over the other, row by row of the form. */
export function CompareBands({ sides, comparison, timeline, onHear }: Props) {
  const rows = useMemo(() => formRows(timeline), [timeline]);
  const drawn = useMemo(() => laidOut(sides), [sides]);
  const tall = HEAD + drawn.reduce((sum, { choruses }) => sum + choruses * LANE + GAP, 0) + 12;
  return (
    <div className="overflow-x-auto">
      <div className="min-w-[680px]">
        {rows.map((row) => (
          <svg
            key={row.index}
            viewBox={`0 0 ${WIDTH} ${tall}`}
            className="block w-full"
            role="img"
            aria-label={`Bars ${elementAt(row.bars, 0).number} to ${elementAt(row.bars, row.bars.length - 1).number}, one take over the other; the table beside says what differs`}
          >
            <RowChords row={row} comparison={comparison} tall={tall} />
            {drawn.map((side, place) => (
              <SideBand
                key={side.name}
                side={side}
                row={row}
                formBeats={timeline.formBeats}
                isLast={place === drawn.length - 1}
                onHear={onHear}
              />
            ))}
          </svg>
        ))}
      </div>
    </div>
  );
}

function laidOut(sides: readonly Side[]): Drawn[] {
  let top = HEAD;
  return sides.map((side) => {
    const { report, marks } = side.judgement;
    const { choruses } = report.summary;
    const drawn = { ...side, drawn: takeOnForm(report, marks), choruses, top };
    top += choruses * LANE + GAP;
    return drawn;
  });
}

type RowProps = { row: FormRowModel; comparison: Comparison; tall: number };

/** The chords over a row, and how often each change was met in each take. */
function RowChords({ row, comparison, tall }: RowProps) {
  const geometry = rowGeometry(row, WIDTH - LEFT);
  return row.chords.map((chord) => {
    const [from, to] = [geometry.x(chord.start) + LEFT, geometry.x(chord.end) + LEFT];
    const change = comparison.byChange.find(({ beat }) => Math.abs(beat - chord.start) < 1e-3);
    const counts = change?.rates.map(({ met, of }) => (of === 0 ? '–' : String(met)));
    const isSame = counts && new Set(counts).size === 1;
    return (
      <g key={chord.start}>
        <line
          x1={from}
          y1={4}
          x2={from}
          y2={tall - 16}
          stroke={chord.changes ? 'var(--dim)' : 'var(--line)'}
        />
        <ChordSvg
          x={from + 8}
          y={21}
          symbol={chord.symbol}
          size={Math.max(10, Math.min(19, (to - from - 50) / 2.4))}
          fill={chord.changes ? 'var(--ink)' : 'var(--soft)'}
        />
        {counts && to - from > 66 && (
          <text
            x={to - 8}
            y={20}
            fontSize={14}
            fontWeight={isSame ? 400 : 660}
            textAnchor="end"
            style={{ fill: isSame ? 'var(--dim)' : 'var(--ink)' }}
          >
            {isSame ? counts[0] : counts.join(' → ')}
          </text>
        )}
      </g>
    );
  });
}

type BandProps = {
  side: Drawn;
  row: FormRowModel;
  formBeats: number;
  isLast: boolean;
  onHear: (beat: number) => void;
};

function SideBand({ side, row, formBeats, isLast, onHear }: BandProps) {
  return (
    <g transform={`translate(${LEFT} ${side.top})`}>
      <text
        x={-LEFT}
        y={16}
        fontSize={14}
        fontWeight={isLast ? 640 : 480}
        style={{ fill: isLast ? 'var(--ink)' : 'var(--soft)' }}
      >
        {side.name}
      </text>
      {row.index === 0 &&
        side.sub
          .split(', ')
          .slice(0, 2)
          .map((line, at) => (
            <text key={at} x={-LEFT} y={32 + at * 14} fontSize={11} style={{ fill: 'var(--dim)' }}>
              {line.slice(0, 18)}
            </text>
          ))}
      {Array.from({ length: side.choruses }, (_, chorus) => (
        <ChorusLane
          key={chorus}
          take={side.drawn}
          row={row}
          formBeats={formBeats}
          chorus={chorus}
          onHear={onHear}
        />
      ))}
    </g>
  );
}

type LaneProps = {
  take: TakeOnForm;
  row: FormRowModel;
  formBeats: number;
  chorus: number;
  onHear: (beat: number) => void;
};

function ChorusLane({ take, row, formBeats, chorus, onHear }: LaneProps) {
  const geometry = rowGeometry(row, WIDTH - LEFT);
  const lane: LaneSpec = { chorus, view: 'closed', height: LANE };
  return (
    <g transform={`translate(0 ${chorus * LANE})`}>
      <rect
        x={geometry.left}
        y={1}
        width={geometry.right - geometry.left}
        height={LANE - 2}
        fill="var(--row)"
      />
      <text x={GUTTER - 10} y={15} fontSize={11} textAnchor="end" style={{ fill: 'var(--dim)' }}>
        {chorus + 1}
      </text>
      <FormLane
        row={row}
        width={WIDTH - LEFT}
        formBeats={formBeats}
        choruses={[chorus]}
        take={take}
        lane={lane}
        geometry={geometry}
        onBeat={onHear}
      />
    </g>
  );
}
