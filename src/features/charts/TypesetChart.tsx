import type { Bar, Chart } from '@/core/chart';
import { ChordSvg } from '@/ui/ChordSymbol';
import { chordText, chordWidth } from '@/ui/chordParts';

const WIDTH = 536;
const BAR = WIDTH / 4;
const ROW = 88;

type Row = { readonly section: string | null; readonly first: number; readonly bars: readonly Bar[] };

/** Four bars a row; a section starts a row of its own. */
function rowsOf(chart: Chart): Row[] {
  const rows: Row[] = [];
  chart.bars.forEach((bar, index) => {
    const last = rows[rows.length - 1];
    const begins = index === 0 || bar.section !== chart.bars[index - 1]!.section;
    if (!last || begins || last.bars.length === 4) rows.push({ section: begins ? bar.section : null, first: index, bars: [bar] });
    else rows[rows.length - 1] = { ...last, bars: [...last.bars, bar] };
  });
  return rows;
}

/** The chart as a player would write it out; the bar an error points at is framed. */
export function TypesetChart({ chart, wrongBar }: { chart: Chart; wrongBar: number | null }) {
  const rows = rowsOf(chart);
  return (
    <figure>
      <svg viewBox={`-2 0 ${WIDTH + 8} ${rows.length * ROW + 4}`} className="w-full max-w-[544px]" role="img" aria-label={`${chart.title || 'Chart'}, ${chart.bars.length} bars`}>
        {rows.map((row, place) => (
          <g key={row.first} transform={`translate(0 ${place * ROW})`}>
            {row.section && <text x={0} y={0} dy={4} fontSize={13} fontWeight={640} style={{ fill: 'var(--now)' }}>{row.section}</text>}
            {row.bars.map((bar, index) => <TypesetBar key={index} bar={bar} number={row.first + index + 1} x={index * BAR} wrong={wrongBar === row.first + index + 1} first={index === 0} />)}
            <EndLine x={row.bars.length * BAR} last={place === rows.length - 1} />
          </g>
        ))}
      </svg>
      <div className="sr-only"><table>
        <caption>Chords by bar</caption>
        <tbody>{chart.bars.map((bar, index) => <tr key={index}><th scope="row">Bar {index + 1}</th><td>{bar.cells.map((cell) => (cell.chord ? chordText(cell.chord.symbol) : 'no chord')).join(', ')}</td></tr>)}</tbody>
      </table></div>
    </figure>
  );
}

function EndLine({ x, last }: { x: number; last: boolean }) {
  return (
    <>
      <line x1={last ? x - 5 : x} y1={12} x2={last ? x - 5 : x} y2={60} stroke="var(--soft)" strokeWidth={1.5} />
      {last && <line x1={x} y1={12} x2={x} y2={60} stroke="var(--soft)" strokeWidth={4} />}
    </>
  );
}

function TypesetBar({ bar, number, x, wrong, first }: { bar: Bar; number: number; x: number; wrong: boolean; first: boolean }) {
  return (
    <g transform={`translate(${x} 0)`}>
      <line x1={0} y1={12} x2={0} y2={60} stroke="var(--soft)" strokeWidth={first ? 2 : 1.5} />
      <text x={8} y={78} fontSize={12} style={{ fill: 'var(--dim)' }}>{number}</text>
      {wrong && <rect x={5} y={8} width={BAR - 10} height={56} fill="none" stroke="var(--now)" strokeWidth={2} />}
      {bar.repeats ? <RepeatSign /> : <BarChords bar={bar} />}
    </g>
  );
}

/** The bar before, again. */
function RepeatSign() {
  const middle = BAR / 2;
  return (
    <g fill="var(--soft)">
      <path d={`M${middle - 13} 48l20 -24h6l-20 24z`} />
      <circle cx={middle - 11} cy={29} r={3.6} />
      <circle cx={middle + 11} cy={43} r={3.6} />
    </g>
  );
}

function BarChords({ bar }: { bar: Bar }) {
  const beats = bar.cells.reduce((sum, cell) => sum + cell.beats.valueOf(), 0);
  return bar.cells.map((cell) => {
    const symbol = cell.chord?.symbol ?? 'N.C.';
    const room = (cell.beats.valueOf() / beats) * (BAR - 18);
    const size = Math.max(12, Math.min(bar.cells.length > 1 ? 26 : 34, (room - 2) / chordWidth(symbol)));
    return <ChordSvg key={`${cell.start.toFraction()}`} x={12 + (cell.start.valueOf() / beats) * (BAR - 18)} y={48} symbol={symbol} size={size} fill={cell.chord ? 'var(--ink)' : 'var(--soft)'} />;
  });
}
