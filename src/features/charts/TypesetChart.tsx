import { isCompound, type Chart, type Meter, type WrittenBar } from '@/core/chart';
import { keyName } from '@/core/music';
import { typeset } from '@/core/music';
import { ChordSvg } from '@/ui/ChordSymbol';
import { chordText, chordWidth } from '@/ui/chordParts';
import { elementAt } from '@/core/shared';

const WIDTH = 536;
const BAR = WIDTH / 4;
const ROW = 92;

type Row = { readonly section: string | null; readonly first: number; readonly bars: readonly WrittenBar[] };

/** Four bars a row; a section starts a row of its own, and so does a repeat that opens. */
function rowsOf(written: readonly WrittenBar[]): Row[] {
  const rows: Row[] = [];
  written.forEach((bar, index) => {
    const last = rows[rows.length - 1];
    const begins = index === 0 || bar.section !== elementAt(written, index - 1).section;
    if (!last || begins || last.bars.length === 4)
      rows.push({ section: begins ? bar.section : null, first: index, bars: [bar] });
    else rows[rows.length - 1] = { ...last, bars: [...last.bars, bar] };
  });
  return rows;
}

type Props = {
  chart: Chart;
  /** Framed: an error points at it. */ wrongBar: number | null;
  /** Lit: it sounds. Counted from 1 as written. */ soundingBar?: number | null;
};

/**
 * The chart as a player would write it out: sections with their keys, repeats with endings, meters where they
 * change.
 */
export function TypesetChart({ chart, wrongBar, soundingBar = null }: Props) {
  const rows = rowsOf(chart.written);
  return (
    <figure>
      <svg
        viewBox={`-6 -4 ${WIDTH + 14} ${rows.length * ROW + 8}`}
        className="w-full max-w-[550px]"
        role="img"
        aria-label={`${chart.title || 'Chart'}, ${chart.written.length} bars written, ${chart.bars.length} played`}
      >
        {rows.map((row, place) => (
          <g key={row.first} transform={`translate(0 ${place * ROW})`}>
            {row.section !== null && (
              <text x={0} y={5} fontSize={13} fontWeight={640} style={{ fill: 'var(--now)' }}>
                {row.section}
                <tspan fontWeight={400} style={{ fill: 'var(--dim)' }}>
                  {keyOf(chart, elementAt(row.bars, 0))}
                </tspan>
              </text>
            )}
            {row.bars.map((bar, index) => {
              const number = row.first + index + 1;
              return (
                <TypesetBar
                  key={number}
                  bar={bar}
                  before={chart.written[number - 2] ?? null}
                  after={chart.written[number] ?? null}
                  number={number}
                  x={index * BAR}
                  wrong={wrongBar === number}
                  sounding={soundingBar === number}
                  first={index === 0}
                  last={number === chart.written.length}
                  ends={index === row.bars.length - 1}
                />
              );
            })}
          </g>
        ))}
      </svg>
      <div className="sr-only">
        <table>
          <caption>Chords by bar, as played</caption>
          <tbody>
            {chart.bars.map((bar, index) => (
              <tr key={index}>
                <th scope="row">Bar {index + 1}</th>
                <td>
                  {bar.cells
                    .map((cell) => (cell.chord ? chordText(cell.chord.symbol) : 'no chord'))
                    .join(', ')}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </figure>
  );
}

/** A section's own key, where it is not the chart's. */
const keyOf = (chart: Chart, bar: WrittenBar): string =>
  bar.key && bar.key !== chart.key ? `   ${typeset(keyName(bar.key).replace(' major', ''))}` : '';

type BarProps = {
  bar: WrittenBar;
  before: WrittenBar | null;
  after: WrittenBar | null;
  number: number;
  x: number;
  wrong: boolean;
  sounding: boolean;
  first: boolean;
  last: boolean;
  ends: boolean;
};

function TypesetBar(props: BarProps) {
  const { bar, before, number, x, wrong, sounding } = props;
  const moved = before !== null && !sameMeter(bar.meter, before.meter);
  const afterSign = bar.opens ? 14 : 0;
  return (
    <g transform={`translate(${x} 0)`}>
      {sounding && <rect x={1} y={14} width={BAR - 2} height={48} fill="var(--now)" opacity={0.2} />}
      <BarLines {...props} />
      {moved && <MeterSign meter={bar.meter} x={afterSign + 12} />}
      <text x={8} y={79} fontSize={12} style={{ fill: 'var(--dim)' }}>
        {number}
      </text>
      {wrong && (
        <rect x={5} y={10} width={BAR - 10} height={56} fill="none" stroke="var(--now)" strokeWidth={2} />
      )}
      {bar.repeats ? <RepeatSign /> : <BarChords bar={bar} left={afterSign + (moved ? 20 : 0)} />}
    </g>
  );
}

const BarLine = ({ x, width }: { x: number; width: number }) => (
  <line x1={x} y1={14} x2={x} y2={62} stroke="var(--soft)" strokeWidth={width} />
);

/** The lines at both ends of a bar, with repeats and endings. */
function BarLines({ bar, after, first, last, ends }: BarProps) {
  const isOpenEnding = after !== null && after.ending == null && !bar.closes;
  return (
    <>
      {bar.opens ? <RepeatOpens /> : <BarLine x={0} width={first ? 2 : 1.5} />}
      {ends && !bar.closes && !last && <BarLine x={BAR} width={1.5} />}
      {bar.closes && <RepeatCloses />}
      {!bar.closes && last && <EndLine />}
      {bar.ending !== null && <Ending number={bar.ending} open={isOpenEnding} />}
    </>
  );
}

const sameMeter = (a: Meter, b: Meter): boolean => a.upper === b.upper && a.lower === b.lower;

function MeterSign({ meter, x }: { meter: Meter; x: number }) {
  return (
    <g fontSize={17} fontWeight={640} textAnchor="middle">
      <text x={x} y={36} style={{ fill: 'var(--soft)' }}>
        {meter.upper}
      </text>
      <text x={x} y={53} style={{ fill: 'var(--soft)' }}>
        {meter.lower}
      </text>
      {isCompound(meter) && <title>{`${meter.upper / 3} dotted beats`}</title>}
    </g>
  );
}

function RepeatOpens() {
  return (
    <g>
      <rect x={-1} y={14} width={4} height={48} fill="var(--soft)" />
      <line x1={7} y1={14} x2={7} y2={62} stroke="var(--soft)" strokeWidth={1.5} />
      <circle cx={12.5} cy={31} r={2.6} fill="var(--soft)" />
      <circle cx={12.5} cy={45} r={2.6} fill="var(--soft)" />
    </g>
  );
}

function RepeatCloses() {
  return (
    <g>
      <rect x={BAR - 3} y={14} width={4} height={48} fill="var(--soft)" />
      <line x1={BAR - 7} y1={14} x2={BAR - 7} y2={62} stroke="var(--soft)" strokeWidth={1.5} />
      <circle cx={BAR - 12.5} cy={31} r={2.6} fill="var(--soft)" />
      <circle cx={BAR - 12.5} cy={45} r={2.6} fill="var(--soft)" />
    </g>
  );
}

function EndLine() {
  return (
    <>
      <line x1={BAR - 5} y1={14} x2={BAR - 5} y2={62} stroke="var(--soft)" strokeWidth={1.5} />
      <line x1={BAR} y1={14} x2={BAR} y2={62} stroke="var(--soft)" strokeWidth={4} />
    </>
  );
}

/** The bracket of an ending; left open where it goes on. */
function Ending({ number, open }: { number: number; open: boolean }) {
  return (
    <g>
      <path d={`M2 12V2H${BAR - 3}${open ? '' : 'V12'}`} fill="none" stroke="var(--soft)" strokeWidth={1.5} />
      <text x={8} y={13} fontSize={12} fontWeight={560} style={{ fill: 'var(--soft)' }}>
        {number}.
      </text>
    </g>
  );
}

/** The bar before, again. */
function RepeatSign() {
  const middle = BAR / 2;
  return (
    <g fill="var(--soft)">
      <path d={`M${middle - 13} 50l20 -24h6l-20 24z`} />
      <circle cx={middle - 11} cy={31} r={3.6} />
      <circle cx={middle + 11} cy={45} r={3.6} />
    </g>
  );
}

function BarChords({ bar, left }: { bar: WrittenBar; left: number }) {
  const beats = bar.cells.reduce((sum, cell) => sum + cell.beats.valueOf(), 0);
  const room = BAR - 18 - left - (bar.closes ? 12 : 0);
  const symbolOf = (cell: WrittenBar['cells'][number]) => cell.chord?.symbol ?? 'N.C.';
  // one size a bar: the longest symbol in the shortest share decides
  const fitting = Math.min(
    ...bar.cells.map((cell) => ((cell.beats.valueOf() / beats) * room - 4) / chordWidth(symbolOf(cell))),
  );
  const size = Math.max(12, Math.min(bar.cells.length > 1 ? 26 : 34, fitting));
  return bar.cells.map((cell) => {
    const symbol = symbolOf(cell);
    return (
      <ChordSvg
        key={`${cell.start.toFraction()}`}
        x={12 + left + (cell.start.valueOf() / beats) * room}
        y={50}
        symbol={symbol}
        size={size}
        fill={cell.chord ? 'var(--ink)' : 'var(--soft)'}
      />
    );
  });
}
