import { scaleLinear } from 'd3-scale';
import { elementAt } from '@/core/shared';
import { ChordSvg } from '@/ui/ChordSymbol';
import { chordWidth } from '@/ui/chordParts';
import { BAR, beginsSection, type StudyRowModel } from './studyRows';
import { ThreadNames, Threads } from './StudyThreads';
import { nextChange, type Study, type StudyCell } from './studyView';

type Scale = (beat: number) => number;
type Props = {
  row: StudyRowModel;
  y: number;
  study: Study;
  selected: number;
  sounding: number | null;
  onSelect: (index: number) => void;
};

/** Where the pitches of the thread lie in a row, the highest on top. */
function pitchScale(row: StudyRowModel, study: Study): (midi: number) => number {
  const pitches = row.cells.flatMap((cell) => study.thread[cell.index] ?? []).map(({ midi }) => midi);
  const top = Math.max(...pitches, 60);
  const step = Math.min(4.6, 46 / Math.max(1, top - Math.min(...pitches, top)));
  return (midi) => 70 + (top - midi) * step;
}

/** A row of the form: chords with their degrees, the thread of thirds and sevenths, what is selected. */
export function StudyRow({ row, y, study, selected, sounding, onSelect }: Props) {
  const width = row.bars.length * BAR;
  const x: Scale = scaleLinear([row.start, row.end], [0, width]);
  const at = pitchScale(row, study);
  const goal = selected < 0 ? -1 : nextChange(study, selected).index;
  const isFirst = (cell: StudyCell) => cell.bar === row.first + 1 && cell.start === row.start;
  return (
    <g transform={`translate(0 ${y})`}>
      <rect x={0} y={57} width={width} height={74} fill="var(--row)" />
      {row.cells.map((cell) => (
        <CellHead
          key={cell.index}
          cell={cell}
          x={x(cell.start)}
          width={x(cell.end) - x(cell.start)}
          number={cell.start === elementAt(study.timeline.bars, cell.bar - 1).start ? cell.bar : null}
          section={isFirst(cell) && beginsSection(study, row.first) ? elementAt(row.bars, 0).section : null}
        />
      ))}
      {row.cells.map((cell) => (
        <Threads key={cell.index} cell={cell} study={study} x={x} row={row} at={at} width={width} />
      ))}
      {row.cells.map((cell) => (
        <ThreadNames key={cell.index} cell={cell} study={study} x={x(cell.start)} at={at} />
      ))}
      <line x1={width} y1={14} x2={width} y2={131} stroke="var(--dim)" />
      {study.harmony.brackets
        .filter(({ kind }) => kind === 'ii-V')
        .map(({ from, to }) => (
          <Bracket
            key={from}
            row={row}
            from={elementAt(study.cells, from)}
            to={elementAt(study.cells, to - 1)}
            x={x}
            label="ii–V"
          />
        ))}
      {row.cells.map((cell) => (
        <CellTouch
          key={cell.index}
          from={x(cell.start)}
          to={x(cell.end)}
          isOn={cell.index === selected}
          isNext={cell.index === goal && goal !== selected}
          isSounding={sounding === cell.index}
          onSelect={() => onSelect(cell.index)}
        />
      ))}
    </g>
  );
}

type TouchProps = {
  from: number;
  to: number;
  isOn: boolean;
  isNext: boolean;
  isSounding: boolean;
  onSelect: () => void;
};

/** Where a chord is pressed; underlined when it is selected, dashed when it comes next. */
function CellTouch({ from, to, isOn, isNext, isSounding, onSelect }: TouchProps) {
  return (
    <g>
      {(isOn || isNext) && (
        <line
          x1={from + 1}
          y1={134}
          x2={to - 1}
          y2={134}
          stroke="var(--now)"
          strokeWidth={4}
          strokeDasharray={isOn ? undefined : '4 4'}
        />
      )}
      {isSounding && (
        <rect x={from + 1} y={14} width={to - from - 2} height={117} fill="var(--now)" opacity={0.14} />
      )}
      <rect
        x={from}
        y={12}
        width={to - from}
        height={124}
        fill="transparent"
        className="cursor-pointer"
        onClick={onSelect}
      />
    </g>
  );
}

type HeadProps = {
  cell: StudyCell;
  x: number;
  width: number;
  number: number | null;
  section: string | null;
};

function CellHead({ cell, x, width, number, section }: HeadProps) {
  const symbol = cell.chord?.symbol ?? 'N.C.';
  const size = Math.max(13, Math.min(24, (width - (number === null ? 34 : 52)) / chordWidth(symbol)));
  return (
    <>
      <line x1={x} y1={14} x2={x} y2={131} stroke={cell.same ? 'var(--line)' : 'var(--dim)'} />
      <ChordSvg
        x={x + 8}
        y={32}
        symbol={symbol}
        size={size}
        fill={cell.same || !cell.chord ? 'var(--soft)' : 'var(--ink)'}
      />
      <text
        x={x + 14 + size * chordWidth(symbol)}
        y={32}
        fontSize={width < 130 ? 13 : 15}
        fontWeight={520}
        style={{ fill: 'var(--soft)' }}
      >
        {cell.degree}
      </text>
      {number !== null && (
        <text x={x + width - 7} y={31} fontSize={12} textAnchor="end" style={{ fill: 'var(--dim)' }}>
          {section !== null && width > 150 && (
            <tspan fontWeight={660} style={{ fill: 'var(--soft)' }}>
              {section.slice(0, 8)}
              {'\u2002'}
            </tspan>
          )}
          {number}
        </text>
      )}
      <text x={x + 8} y={49} fontSize={width < 80 ? 12 : 14} style={{ fill: 'var(--dim)' }}>
        <CellNotes cell={cell} width={width} />
      </text>
    </>
  );
}

/** What the home scale lacks, what is laid over the chord, and what rubs against it, as far as there is room. */
function CellNotes({ cell: { lacks, over, rubs }, width }: { cell: StudyCell; width: number }) {
  const gap = lacks.length > 0 ? '   ' : '';
  const strong = (words: string) => (
    <tspan fontWeight={640} style={{ fill: 'var(--ink)' }}>
      {words}
    </tspan>
  );
  return (
    <>
      {lacks.length > 0 && (
        <>
          {width < 80 ? '' : 'lacks '}
          {strong(lacks.join(' '))}
        </>
      )}
      {over !== '' && (
        <>
          {gap}over it {strong(over)}
        </>
      )}
      {width > 190 && over === '' && rubs.length > 0 && (
        <>
          {gap}rubs <tspan style={{ fill: 'var(--soft)' }}>{rubs.join(' ')}</tspan>
        </>
      )}
    </>
  );
}

type BracketProps = {
  row: StudyRowModel;
  from: StudyCell;
  to: StudyCell;
  x: Scale;
  label: string;
};

function Bracket({ row, from, to, x, label }: BracketProps) {
  const start = Math.max(row.start, from.start);
  const end = Math.min(row.end, to.end);
  if (end <= start) return null;
  const [a, b] = [x(start) + 8, x(end) - 8];
  const opens = from.start >= row.start;
  const closes = to.end <= row.end;
  return (
    <>
      <path
        d={`${opens ? `M${a} 11V4` : `M${a} 4`}H${b}${closes ? 'V11' : ''}`}
        fill="none"
        stroke="var(--soft)"
        strokeWidth={1.5}
      />
      <rect x={(a + b) / 2 - 21} y={-4} width={42} height={15} fill="var(--bg)" />
      <text
        x={(a + b) / 2}
        y={9}
        fontSize={14}
        fontWeight={560}
        textAnchor="middle"
        style={{ fill: 'var(--soft)' }}
      >
        {label}
      </text>
    </>
  );
}
