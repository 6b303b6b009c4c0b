import { useMemo } from 'react';
import type { ChordCoverage, Report } from '@/core/analyse';
import { intervalOver, noteName, readChord, spellOver, type Chord } from '@/core/music';
import { typeset } from '@/core/music';
import { unwrap, elementAt } from '@/core/shared';
import { ChordSvg } from '@/ui/ChordSymbol';
import { chordText } from '@/ui/chordParts';
import { intervalLabel } from '@/ui/intervalLabel';

const COLUMN = 57;
const ROW = 43;
const NAMES = 84;

/** Columns by semitone: a minor third and a sharp ninth stand in the same place. */
const HEADS = ['1', '♭9', '9', '♭3 ♯9', '3', '4', '♯11 ♭5', '5', '♭13 ♯5', '6', '♭7', '7'];
const column = (chord: Chord, interval: string): number =>
  Array.from({ length: 12 }, (_, step) => step).find(
    (step) => intervalOver(chord, (certainRoot(chord) + step) % 12) === interval,
  ) ?? neutralColumn(interval);
const neutralColumn = (interval: string): number => ({ n3: 4, n5: 6, n7: 10 })[interval] ?? 0;
const certainRoot = (chord: Chord): number => elementAt(chord.tones, 0).pc;

/**
 * Over each chord: how long and how often each interval sounded; a ring holds what the plan has and was never
 * played.
 */
export function Coverage({ report }: { report: Report }) {
  const rows = report.coverage;
  const heights = useMemo(() => heightsPlayed(report), [report]);
  const width = NAMES + 12 * COLUMN;
  const height = 30 + rows.length * ROW;
  return (
    <section aria-label="Coverage" className="min-w-0">
      <h2 className="text-[15px] text-dim">
        <b className="mr-3 text-base text-ink">Coverage</b>bar: share of the chord’s time; figure: notes;
        ring: in the plan and never played
      </h2>
      <div className="overflow-x-auto">
        <svg
          viewBox={`0 0 ${width} ${height}`}
          className="mt-2 w-full min-w-[640px]"
          role="img"
          aria-label="Intervals played over each chord; the table below says the same"
        >
          {HEADS.map((head, step) => (
            <text key={head} x={NAMES + step * COLUMN} y={14} fontSize={13} style={{ fill: 'var(--dim)' }}>
              {head}
            </text>
          ))}
          {rows.map((row, place) => (
            <g key={row.chord + place} transform={`translate(0 ${22 + place * ROW})`}>
              <CoverageRow row={row} width={width} heights={heights} />
            </g>
          ))}
        </svg>
      </div>
      <div className="sr-only">
        <table>
          <caption>Coverage by chord</caption>
          <thead>
            <tr>
              <th scope="col">Chord</th>
              <th scope="col">Played</th>
              <th scope="col">In the plan and never played</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row, place) => (
              <tr key={row.chord + place}>
                <th scope="row">
                  {chordText(row.chord)}, {intervalLabel(row.function)}
                </th>
                <td>
                  {Object.entries(row.byInterval)
                    .map(([interval, { count }]) => `${intervalLabel(interval)} ${count}`)
                    .join(', ')}
                </td>
                <td>{row.missing.map(intervalLabel).join(', ') || 'none'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

/** The lowest height at which an interval sounded over a chord. */
function heightsPlayed(report: Report): Map<string, number> {
  const found = new Map<string, number>();
  for (const { spans } of report.notes)
    for (const { chord, interval, height } of spans) {
      const key = `${chord} ${interval}`;
      found.set(key, Math.min(found.get(key) ?? 4, height));
    }
  return found;
}

function CoverageRow({
  row,
  width,
  heights,
}: {
  row: ChordCoverage;
  width: number;
  heights: ReadonlyMap<string, number>;
}) {
  const chord = unwrap(readChord(row.chord));
  const total = Object.values(row.byInterval).reduce((sum, cell) => sum + cell.beats, 0) || 1;
  const base = ROW - 6;
  return (
    <>
      <line x1={0} y1={base} x2={width - 20} y2={base} stroke="var(--line)" />
      <ChordSvg x={0} y={base - 7} symbol={row.chord} size={22} />
      <text x={NAMES - 12} y={base - 7} fontSize={12} textAnchor="end" style={{ fill: 'var(--dim)' }}>
        {intervalLabel(row.function)}
      </text>
      {Object.entries(row.byInterval).map(([interval, { count, beats }]) => {
        const x = NAMES + column(chord, interval) * COLUMN;
        const tall = Math.max(1.5, (beats / total) * 110);
        const tone = chord.tones.some((one) => intervalOver(chord, one.pc) === interval);
        const height = tone ? 0 : (heights.get(`${row.chord} ${interval}`) ?? 2);
        const box = { x, y: base - Math.min(34, tall), width: 22, height: Math.min(34, tall) };
        return (
          <g key={interval}>
            {height < 3 ? (
              <rect {...box} fill={`var(--h${height})`} />
            ) : (
              <rect
                {...box}
                x={x + 0.5}
                width={21}
                fill="none"
                stroke={`var(--h${height})`}
                strokeWidth={1.25}
                strokeDasharray={height === 4 ? '3 2' : undefined}
              />
            )}
            {count > 0 && (
              <text
                x={x + 26}
                y={base - 3}
                fontSize={13}
                fontWeight={tone ? 640 : 400}
                style={{ fill: tone ? 'var(--ink)' : 'var(--soft)' }}
              >
                {count}
              </text>
            )}
          </g>
        );
      })}
      {row.missing.map((interval) => {
        const x = NAMES + column(chord, interval) * COLUMN + 12;
        const pc = (certainRoot(chord) + column(chord, interval)) % 12;
        return (
          <g key={interval}>
            <circle cx={x} cy={base - 17} r={14} fill="none" stroke="var(--ink)" strokeWidth={1.75} />
            <text x={x} y={base - 12.5} fontSize={12.5} fontWeight={640} textAnchor="middle">
              {typeset(noteName(spellOver(chord, pc)))}
            </text>
          </g>
        );
      })}
    </>
  );
}
