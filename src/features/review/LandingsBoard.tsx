import { scaleLinear } from 'd3-scale';
import { memo, useDeferredValue, useMemo } from 'react';
import type { LandingMark, Report } from '@/core/analyse';
import { ChordSvg } from '@/ui/ChordSymbol';
import { chordText } from '@/ui/chordParts';
import { LANDING_WORDS, LandingChip, LandingLines } from '@/ui/form/LandingLine';
import { intervalLabel } from '@/ui/intervalLabel';
import { landingsBoard } from './reviewWords';
import { elementAt } from '@/core/shared';

const ROW = 31;
const NAMES = 92;
const TOP = 28;
const WIDTH = 320;
/** With more choruses a chip has no room: the line alone says how each was met. */
const MOST_CHIPS = 4;

type Props = {
  report: Report;
  marks: readonly LandingMark[];
  kind: string | null;
  onKind: (kind: string | null) => void;
  /** One landing is looked at. */ onChange?: (index: number) => void;
};

/** Every landing on its own small line: kinds of change down, choruses across. */
export function LandingsBoard({ report, marks, kind, onKind, onChange }: Props) {
  const rows = useMemo(() => landingsBoard(report, marks), [report, marks]);
  // what is read out follows what is seen
  const [readOut, readOutMarks] = [useDeferredValue(report), useDeferredValue(marks)];
  // over one chord there is no change to land at
  if (rows.length === 0) return null;
  const { choruses } = report.summary;
  const x = scaleLinear([0, Math.max(1, choruses)], [NAMES, WIDTH]);
  const height = TOP + rows.length * ROW;
  return (
    <section aria-label="Landings by change">
      <h2 className="heading border-t border-line pt-2">Landings by change</h2>
      <svg
        viewBox={`0 0 ${WIDTH} ${height}`}
        className="mt-1 w-full"
        role="img"
        aria-label="Landings by change and chorus; the table below says the same"
      >
        <ChorusHeads choruses={choruses} x={x} height={height} />
        {rows.map((row, place) => {
          const id = `${row.from}→${row.to}`;
          return (
            <g key={id} onClick={() => onKind(kind === id ? null : id)} className="cursor-pointer">
              <BoardRow
                row={row}
                y={TOP + 12 + place * ROW}
                x={x}
                isLit={kind === id}
                report={report}
                marks={marks}
                onChange={onChange}
              />
            </g>
          );
        })}
      </svg>
      <BoardTable report={readOut} marks={readOutMarks} />
    </section>
  );
}

type Scale = (chorus: number) => number;

const ChorusHeads = ({ choruses, x, height }: { choruses: number; x: Scale; height: number }) =>
  Array.from({ length: choruses }, (_, chorus) => (
    <g key={chorus}>
      <text x={x(chorus + 0.5)} y={14} fontSize={13} textAnchor="middle" style={{ fill: 'var(--dim)' }}>
        {choruses > MOST_CHIPS ? chorus + 1 : `chorus ${chorus + 1}`}
      </text>
      {chorus > 0 && <line x1={x(chorus)} y1={22} x2={x(chorus)} y2={height} stroke="var(--line)" />}
    </g>
  ));

type RowProps = Pick<Props, 'report' | 'marks'> & {
  onChange: Props['onChange'];
  row: ReturnType<typeof landingsBoard>[number];
  y: number;
  x: Scale;
  isLit: boolean;
};

/** One kind of change: its two chords, and each of its landings by chorus. */
function BoardRow(props: RowProps) {
  const { row, y, x, isLit, report, marks } = props;
  const column = x(1) - x(0);
  return (
    <>
      {isLit && <rect x={-8} y={y - ROW / 2} width={WIDTH + 8} height={ROW} fill="var(--row)" />}
      <ChordSvg x={0} y={y + 5} symbol={row.from} size={13} fill="var(--soft)" weight={560} />
      <ChordSvg x={46} y={y + 5} symbol={row.to} size={15} />
      {report.summary.choruses > MOST_CHIPS ? (
        <LandingLines
          landings={row.cells.flatMap((cell, chorus) =>
            cell.map((index, among) => ({
              x: x(chorus + (among + 0.5) / cell.length),
              mark: elementAt(marks, index),
            })),
          )}
          from={y - 11}
          to={y + 11}
          scale={Math.min(0.8, column / 22)}
        />
      ) : (
        row.cells.map((cell, chorus) =>
          cell.map((index, among) => (
            <LandingInCell
              key={index}
              {...props}
              index={index}
              at={x(chorus + (among + 0.5) / cell.length)}
              room={column / cell.length}
            />
          )),
        )
      )}
    </>
  );
}

type ChipProps = RowProps & { index: number; at: number; room: number };

function LandingInCell({ report, marks, onChange, index, at, y, room }: ChipProps) {
  const { landing } = elementAt(report.changes, index);
  const note = landing.noteIndex === null ? null : elementAt(report.notes, landing.noteIndex);
  return (
    <g
      onClick={
        onChange &&
        ((event) => {
          event.stopPropagation();
          onChange(index);
        })
      }
    >
      <LandingChip
        x={at}
        y={y}
        mark={elementAt(marks, index)}
        timing={landing.timing}
        width={Math.min(22, Math.max(14, room - 6))}
        tier={note ? tierOf(landing.verdict, note.height) : 4}
        label={intervalLabel(landing.interval)}
      />
    </g>
  );
}

/**
 * A landing is drawn by what it was over the new chord, which for a held note is not what it was over the old
 * one.
 */
const tierOf = (verdict: string, height: number): number =>
  ({ target: 0, 'chord-tone': 0, colour: 1, scale: 2 })[verdict] ?? Math.max(3, height);

const BoardTable = memo(function BoardTable({ report, marks }: Pick<Props, 'report' | 'marks'>) {
  const rows = landingsBoard(report, marks);
  return (
    <div className="sr-only">
      <table>
        <caption>Landings by change</caption>
        <thead>
          <tr>
            <th scope="col">Change</th>
            {rows[0]?.cells.map((_, chorus) => (
              <th key={chorus} scope="col">
                Chorus {chorus + 1}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={`${row.from}→${row.to}`}>
              <th scope="row">
                {chordText(row.from)} to {chordText(row.to)}
              </th>
              {row.cells.map((cell, chorus) => (
                <td key={chorus}>
                  {cell
                    .map(
                      (index) =>
                        `${intervalLabel(elementAt(report.changes, index).landing.interval) || 'no note'} ${elementAt(report.changes, index).landing.timing}, ${LANDING_WORDS[elementAt(marks, index)]}`,
                    )
                    .join('; ')}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
});
