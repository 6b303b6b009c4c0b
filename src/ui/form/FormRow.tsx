import { ChordSvg } from '../ChordSymbol';
import { chordWidth } from '../chordParts';
import type { FormRowModel } from './formRows';
import { FormLane } from './FormLane';
import {
  HEAD,
  LANE,
  lanesHeight,
  rowGeometry,
  type FormRowProps,
  type LaneSpec,
  type RowGeometry,
} from './geometry';
import { present } from '@/core/shared';

/**
 * Four bars of the form with every chorus of them stacked close below: the picture that the whole product
 * shares.
 */
export function FormRow(props: FormRowProps) {
  const { row, width, choruses } = props;
  const geometry = rowGeometry(row, width);
  const lanes = props.lanes ?? choruses.map((chorus): LaneSpec => ({ chorus, view: 'height', height: LANE }));
  const tops = lanes.map((_, place) => HEAD + lanesHeight(lanes.slice(0, place)));
  return (
    <g>
      {lanes.map(({ chorus, view, height }, place) => (
        <g
          key={chorus}
          transform={`translate(0 ${tops[place]})`}
          className={props.onChorus ? 'cursor-pointer' : undefined}
          onClick={props.onChorus ? () => present(props.onChorus)(chorus) : undefined}
        >
          <rect
            x={geometry.left}
            y={1}
            width={geometry.right - geometry.left}
            height={height - 3}
            fill="var(--row)"
          />
          <text
            x={0}
            y={height / 2 + 5}
            fontSize={view === 'closed' ? 12 : 14}
            fontWeight={560}
            style={{ fill: 'var(--soft)' }}
          >
            {chorus + 1}
          </text>
        </g>
      ))}
      <RowHead row={row} geometry={geometry} bottom={HEAD + lanesHeight(lanes)} />
      {lanes.map((lane, place) => (
        <g key={lane.chorus} transform={`translate(0 ${tops[place]})`}>
          <FormLane {...props} lane={lane} geometry={geometry} />
        </g>
      ))}
    </g>
  );
}

function RowHead({
  row,
  geometry: { x, right },
  bottom,
}: {
  row: FormRowModel;
  geometry: RowGeometry;
  bottom: number;
}) {
  return (
    <>
      {row.chords.map((chord) => {
        const room = x(chord.end) - x(chord.start) - 16;
        const size = Math.max(11, Math.min(20, room / chordWidth(chord.symbol)));
        return (
          <g key={chord.start}>
            <line
              x1={x(chord.start)}
              y1={chord.changes ? 2 : HEAD - 6}
              x2={x(chord.start)}
              y2={bottom - 2}
              stroke={chord.changes ? 'var(--dim)' : 'var(--line)'}
            />
            <ChordSvg
              x={x(chord.start) + 8}
              y={18}
              symbol={chord.symbol}
              size={size}
              fill={chord.changes ? 'var(--ink)' : 'var(--soft)'}
            />
          </g>
        );
      })}
      {row.bars.map((bar) => (
        <text
          key={bar.number}
          x={x(bar.end) - 8}
          y={17}
          fontSize={12}
          textAnchor="end"
          style={{ fill: 'var(--dim)' }}
        >
          {bar.number}
        </text>
      ))}
      <line x1={right} y1={2} x2={right} y2={bottom - 2} stroke="var(--line)" />
    </>
  );
}
