'use client';
import { useEffect, useRef } from 'react';
import { ChordSvg } from '@/ui/ChordSymbol';
import { chordWidth } from '@/ui/chordParts';
import { Pill } from '@/ui/form/Pill';
import { typeset } from '@/core/findings';
import { noteName } from '@/core/music';
import { nextChange, type Study, type StudyCell } from './studyView';
import { elementAt } from '@/core/shared';

const ROW = 137;
const BAR = 220;

type Props = {
  study: Study;
  selected: number;
  sounding: number | null;
  barsARow: number;
  onSelect: (index: number) => void;
};
type Row = {
  readonly first: number;
  readonly start: number;
  readonly end: number;
  readonly bars: Study['timeline']['bars'];
  readonly cells: readonly StudyCell[];
};

function rowsOf(study: Study, barsARow: number): Row[] {
  const rows: Row[] = [];
  const { bars } = study.timeline;
  let first = 0;
  while (first < bars.length) {
    let last = first + 1;
    // a section starts a row of its own
    while (
      last < bars.length &&
      last < first + barsARow &&
      elementAt(bars, last).section === elementAt(bars, first).section
    )
      last++;
    const spans = bars.slice(first, last);
    rows.push({
      first,
      start: elementAt(spans, 0).start,
      end: elementAt(spans, spans.length - 1).end,
      bars: spans,
      cells: study.cells.filter((cell) => cell.bar > first && cell.bar <= last),
    });
    first = last;
  }
  return rows;
}

/**
 * The form to read: chords with their degrees and what the home scale lacks, and the thread of thirds and
 * sevenths through them.
 */
export function StudyForm({ study, selected, sounding, barsARow, onSelect }: Props) {
  const rows = rowsOf(study, barsARow);
  const holder = useRef<HTMLDivElement>(null);
  const rowOf = rows.findIndex((row) => row.cells.some((cell) => cell.index === selected));
  useEffect(() => {
    const place = holder.current;
    if (!place || place.scrollHeight <= place.clientHeight) return;
    const scale = place.clientWidth / (barsARow * BAR + 8);
    const [top, bottom] = [rowOf * ROW * scale, (rowOf + 1) * ROW * scale];
    if (top < place.scrollTop || bottom > place.scrollTop + place.clientHeight)
      place.scrollTo({ top: Math.max(0, top - 8) });
  }, [rowOf, barsARow]);
  return (
    <div ref={holder} className="study-form overflow-x-hidden overflow-y-auto sm:max-h-[410px]" tabIndex={0}>
      <svg
        viewBox={`-4 0 ${barsARow * BAR + 8} ${rows.length * ROW + 4}`}
        className="w-full"
        role="group"
        aria-label="Form with the thread of thirds and sevenths"
      >
        {rows.map((row, place) => (
          <StudyRow
            key={row.first}
            row={row}
            y={place * ROW}
            study={study}
            selected={selected}
            sounding={sounding}
            onSelect={onSelect}
          />
        ))}
      </svg>
      <FormTable study={study} />
    </div>
  );
}

type RowProps = {
  row: Row;
  y: number;
  study: Study;
  selected: number;
  sounding: number | null;
  onSelect: (index: number) => void;
};

function StudyRow({ row, y, study, selected, sounding, onSelect }: RowProps) {
  const width = row.bars.length * BAR;
  const x = (beat: number) => ((beat - row.start) / (row.end - row.start)) * width;
  const stops = row.cells.flatMap((cell) => study.thread[cell.index] ?? []);
  const top = Math.max(...stops.map(({ midi }) => midi), 60);
  const low = Math.min(...stops.map(({ midi }) => midi), top);
  const step = Math.min(4.6, 46 / Math.max(1, top - low));
  const at = (midi: number) => 70 + (top - midi) * step;
  const goal = selected < 0 ? -1 : nextChange(study, selected).index;
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
          section={
            cell.bar === row.first + 1 && cell.start === row.start && beginsSection(study, row.first)
              ? elementAt(row.bars, 0).section
              : null
          }
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
      {row.cells.map((cell) => {
        const on = cell.index === selected;
        const next = cell.index === goal && goal !== selected;
        return (
          <g key={cell.index}>
            {(on || next) && (
              <line
                x1={x(cell.start) + 1}
                y1={134}
                x2={x(cell.end) - 1}
                y2={134}
                stroke="var(--now)"
                strokeWidth={4}
                strokeDasharray={on ? undefined : '4 4'}
              />
            )}
            {sounding === cell.index && (
              <rect
                x={x(cell.start) + 1}
                y={14}
                width={x(cell.end) - x(cell.start) - 2}
                height={117}
                fill="var(--now)"
                opacity={0.14}
              />
            )}
            <rect
              x={x(cell.start)}
              y={12}
              width={x(cell.end) - x(cell.start)}
              height={124}
              fill="transparent"
              className="cursor-pointer"
              onClick={() => onSelect(cell.index)}
            />
          </g>
        );
      })}
    </g>
  );
}

const beginsSection = (study: Study, bar: number): boolean =>
  bar === 0 ||
  elementAt(study.timeline.bars, bar - 1).section !== elementAt(study.timeline.bars, bar).section;

function CellHead({
  cell,
  x,
  width,
  number,
  section,
}: {
  cell: StudyCell;
  x: number;
  width: number;
  number: number | null;
  section: string | null;
}) {
  const symbol = cell.chord?.symbol ?? 'N.C.';
  const size = Math.min(24, (width - (number === null ? 34 : 52)) / chordWidth(symbol));
  const room = width > 190;
  return (
    <>
      <line x1={x} y1={14} x2={x} y2={131} stroke={cell.same ? 'var(--line)' : 'var(--dim)'} />
      <ChordSvg
        x={x + 8}
        y={32}
        symbol={symbol}
        size={Math.max(13, size)}
        fill={cell.same || !cell.chord ? 'var(--soft)' : 'var(--ink)'}
      />
      <text
        x={x + 14 + Math.max(13, size) * chordWidth(symbol)}
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
        {cell.lacks.length > 0 && (
          <>
            {width < 80 ? '' : 'lacks '}
            <tspan fontWeight={640} style={{ fill: 'var(--ink)' }}>
              {cell.lacks.join(' ')}
            </tspan>
          </>
        )}
        {cell.over !== '' && (
          <>
            {cell.lacks.length > 0 ? '   ' : ''}over it{' '}
            <tspan fontWeight={640} style={{ fill: 'var(--ink)' }}>
              {cell.over}
            </tspan>
          </>
        )}
        {room && cell.over === '' && cell.rubs.length > 0 && (
          <>
            {cell.lacks.length > 0 ? '   ' : ''}rubs{' '}
            <tspan style={{ fill: 'var(--soft)' }}>{cell.rubs.join(' ')}</tspan>
          </>
        )}
      </text>
    </>
  );
}

type ThreadProps = {
  cell: StudyCell;
  study: Study;
  row: Row;
  x: (beat: number) => number;
  at: (midi: number) => number;
  width: number;
};

/** Each voice runs level, then bends to where it goes: amber for a half step, dotted over a skip. */
function Threads({ cell, study, row, x, at, width }: ThreadProps) {
  const stop = study.thread[cell.index];
  if (!stop) return null;
  const next = row.cells.find((one) => one.index === cell.index + 1);
  const from = x(cell.start) + 22;
  const to = next ? x(next.start) + 22 : width;
  return stop.map(({ midi, toNext }, voice) => {
    const half = toNext !== null && Math.abs(toNext) === 1;
    const move = toNext ?? 0;
    const bend = move === 0 ? 0 : Math.min(72, (to - from) * 0.6) * (next ? 1 : 0.5);
    const [y, goal] = [at(midi), at(midi + move * (next ? 1 : 0.5))];
    return (
      <g key={voice}>
        <line x1={from} y1={y} x2={to - bend} y2={y} stroke="var(--h3)" strokeWidth={1.5} />
        {bend > 0 && (
          <line
            x1={to - bend}
            y1={y}
            x2={next ? to - 8 : to}
            y2={goal}
            stroke={half ? 'var(--now)' : 'var(--h3)'}
            strokeWidth={half ? 3 : 1.5}
            strokeDasharray={Math.abs(move) > 2 ? '2 3' : undefined}
          />
        )}
      </g>
    );
  });
}

function ThreadNames({
  cell,
  study,
  x,
  at,
}: {
  cell: StudyCell;
  study: Study;
  x: number;
  at: (midi: number) => number;
}) {
  const stop = study.thread[cell.index];
  if (!stop) return null;
  const home = elementAt(study.plan.homeScales, cell.index);
  return stop.map(({ midi, tone }, voice) => (
    <Pill
      key={voice}
      x={x + 8}
      y={at(midi)}
      width={28}
      height={17}
      tier={home.pcs.includes(tone.pc) ? 2 : 0}
      label={typeset(noteName(tone.note))}
      size={12.5}
    />
  ));
}

function Bracket({
  row,
  from,
  to,
  x,
  label,
}: {
  row: Row;
  from: StudyCell;
  to: StudyCell;
  x: (beat: number) => number;
  label: string;
}) {
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

/** The same as a table, for readers. */
function FormTable({ study }: { study: Study }) {
  return (
    <div className="sr-only">
      <table>
        <caption>Chords of the form with their degrees</caption>
        <thead>
          <tr>
            <th>Bar</th>
            <th>Chord</th>
            <th>Degree</th>
            <th>Home scale lacks</th>
            <th>Rub tones</th>
          </tr>
        </thead>
        <tbody>
          {study.cells.map((cell) => (
            <tr key={cell.index}>
              <th scope="row">{cell.bar}</th>
              <td>{cell.chord ? typeset(cell.chord.symbol) : 'no chord'}</td>
              <td>{cell.degree}</td>
              <td>{cell.lacks.join(', ')}</td>
              <td>{cell.rubs.join(', ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
