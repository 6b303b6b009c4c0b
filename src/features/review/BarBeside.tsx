'use client';
import { scaleLinear } from 'd3-scale';
import type { CorrectedNote } from '@/core/correct';
import { useNarrow } from '../shell/useNarrow';

/** Widths of the picture and of the words before its rows, at a desk and on a phone. */
const WIDE = { width: 900, left: 150 };
const NARROW = { width: 400, left: 86 };
const ROW = 118;
const BAR_TALL = 11;

type Props = {
  before: readonly CorrectedNote[];
  /** Null until it was played once. */
  now: readonly CorrectedNote[] | null;
  /** The bar in seconds of the take. */
  from: number;
  to: number;
  beats: number;
  name: (note: CorrectedNote) => string;
};

/** A bar as it stands in the take and as it was just played, one under the other. */
export function BarBeside({ before, now, from, to, beats, name }: Props) {
  const narrow = useNarrow();
  const { width, left } = narrow ? NARROW : WIDE;
  const wordSize = narrow ? 15 : 20;
  const inside = (notes: readonly CorrectedNote[]) =>
    notes.filter(({ onsetSec, offsetSec }) => offsetSec > from && onsetSec < to);
  const rows = [
    { words: 'in the take', notes: inside(before) },
    { words: 'just played', notes: now && inside(now) },
  ];
  const pitches = rows.flatMap(({ notes }) => notes?.map(({ midi }) => midi) ?? []);
  const [low, high] =
    pitches.length > 0 ? [Math.min(...pitches) - 1, Math.max(...pitches) + 1] : ([59, 72] as const);
  const x = scaleLinear([from, to], [left, width - 8]).clamp(true);
  const y = scaleLinear([low, high], [ROW - 20, 34]);
  return (
    <svg
      viewBox={`0 0 ${width} ${2 * ROW}`}
      className="block w-full max-w-[1100px]"
      role="img"
      aria-label={rows.map(({ words, notes }) => `${words}: ${wordsOf(notes, name)}`).join('; ')}
    >
      {rows.map(({ words, notes }, row) => (
        <g key={words} transform={`translate(0 ${row * ROW})`}>
          <rect x={left} y={4} width={width - 8 - left} height={ROW - 10} fill="var(--row)" />
          <text
            x={0}
            y={ROW / 2 + 6}
            fontSize={20}
            style={{ fill: row === 0 ? 'var(--soft)' : 'var(--ink)' }}
          >
            {words}
          </text>
          <Beats beats={beats} left={left} right={width - 8} />
          {notes === null && (
            <text x={left + 18} y={ROW / 2 + 6} fontSize={wordSize} style={{ fill: 'var(--soft)' }}>
              not yet
            </text>
          )}
          {notes?.map((note) => (
            <NoteBar key={note.id} note={note} x={x} y={y(note.midi)} isNew={row === 1} name={name(note)} />
          ))}
        </g>
      ))}
    </svg>
  );
}

const wordsOf = (notes: readonly CorrectedNote[] | null, name: Props['name']): string => {
  if (notes === null) return 'not yet';
  return notes.length > 0 ? notes.map(name).join(', ') : 'no note';
};

function Beats({ beats, left, right }: { beats: number; left: number; right: number }) {
  const x = scaleLinear([0, beats], [left, right]);
  return Array.from({ length: Math.ceil(beats) + 1 }, (_, beat) => (
    <line key={beat} x1={x(beat)} x2={x(beat)} y1={4} y2={ROW - 6} stroke="var(--line)" strokeWidth={1} />
  ));
}

type BarProps = {
  note: CorrectedNote;
  x: (seconds: number) => number;
  y: number;
  isNew: boolean;
  name: string;
};

function NoteBar({ note, x, y, isNew, name }: BarProps) {
  const [from, to] = [x(note.onsetSec), x(note.offsetSec)];
  return (
    <>
      <rect
        x={from}
        y={y}
        width={Math.max(5, to - from - 3)}
        height={BAR_TALL}
        rx={2}
        fill={isNew ? 'var(--now)' : 'var(--h1)'}
      />
      <text x={from} y={y - 5} fontSize={17} fontWeight={620}>
        {name}
      </text>
    </>
  );
}
