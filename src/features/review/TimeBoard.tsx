import { max } from 'd3-array';
import { scaleBand, scaleLinear } from 'd3-scale';
import type { Report } from '@/core/analyse';
import { Board } from './BoardFrame';

type Eighth = Report['time']['byEighth'][number];

const signed = (value: number) => `${value >= 0 ? '+' : '−'}${Math.abs(Math.round(value))}`;
const nameOf = ({ beat, and }: Eighth) => (and ? `${beat} and` : `${beat}`);

const [WIDTH, HEIGHT] = [416, 132];
const [LEFT, TOP, BOTTOM] = [52, 28, 96];
/** The axis reaches at least this far either way, so that a steady player does not look ragged. */
const LEAST_REACH_MS = 30;

/** How each eighth of the bar lies against the grid: tick the median, bar the middle half; early is up. */
export function TimeBoard({ report }: { report: Report }) {
  const { byEighth } = report.time;
  return (
    <Board
      name="Time"
      facts={factsOf(report)}
      table={{
        caption: 'Time by eighth',
        head: ['Eighth', 'Notes', 'Median, ms', 'Middle half, ms'],
        rows: byEighth.map((one) => [
          nameOf(one),
          one.count,
          signed(one.medianMs),
          `${signed(one.middleMs[0])} to ${signed(one.middleMs[1])}`,
        ]),
      }}
    >
      <TimePicture byEighth={byEighth} />
    </Board>
  );
}

function factsOf({ time: { spreadMs, swing, offsetMs, upbeats } }: Report): string {
  if (spreadMs === null) return 'nothing to measure';
  return [
    `${signed(offsetMs ?? 0)} ms as a whole, plus is late`,
    `spread ${Math.round(spreadMs)} ms`,
    swing === null ? 'swing: too few pairs' : `swing ${swing.toFixed(2)} : 1`,
    `${Math.round((upbeats ?? 0) * 100)} % on upbeats`,
  ].join('; ');
}

function TimePicture({ byEighth }: { byEighth: readonly Eighth[] }) {
  const reach = Math.max(LEAST_REACH_MS, max(byEighth, ({ middleMs }) => max(middleMs, Math.abs)) ?? 0);
  const y = scaleLinear().domain([-reach, reach]).range([TOP, BOTTOM]);
  const x = scaleBand<number>()
    .domain(byEighth.map((_, index) => index))
    .range([LEFT, WIDTH - 4]);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="mt-2 w-full"
      role="img"
      aria-label="Deviation by eighth of the bar; the table says the same"
    >
      <text x={0} y={y(-reach / 2)} fontSize={13} style={{ fill: 'var(--soft)' }}>
        early
      </text>
      <text x={0} y={y(reach / 2) + 9} fontSize={13} style={{ fill: 'var(--soft)' }}>
        late
      </text>
      <line x1={LEFT - 4} y1={y(0)} x2={WIDTH} y2={y(0)} stroke="var(--dim)" />
      {byEighth.map((one, index) => (
        <EighthMark key={index} one={one} x={(x(index) ?? 0) + x.bandwidth() / 2} y={y} />
      ))}
    </svg>
  );
}

function EighthMark({ one, x, y }: { one: Eighth; x: number; y: (ms: number) => number }) {
  const [from, to] = one.middleMs.map(y) as [number, number];
  return (
    <g>
      <rect x={x - 5} y={from} width={10} height={Math.max(2, to - from)} fill="var(--h3)" />
      <line
        x1={x - 11}
        y1={y(one.medianMs)}
        x2={x + 11}
        y2={y(one.medianMs)}
        stroke="var(--h0)"
        strokeWidth={3.5}
      />
      <text x={x} y={14} fontSize={14} fontWeight={640} textAnchor="middle" style={{ fill: 'var(--soft)' }}>
        {signed(one.medianMs)}
      </text>
      <text x={x} y={124} fontSize={14} fontWeight={560} textAnchor="middle" style={{ fill: 'var(--soft)' }}>
        {one.and ? 'and' : one.beat}
      </text>
    </g>
  );
}
