import { timelineOf, type Chart } from '@/core/chart';
import { noteName, spellOver } from '@/core/music';
import { planOn, type PlanChoice } from '@/core/plan';
import { typeset } from '@/core/music';
import { ChordSvg } from '@/ui/ChordSymbol';
import { chordWidth } from '@/ui/chordParts';
import { formRows } from '@/ui/form/formRows';
import { present } from '@/core/shared';

const WIDTH = 1216;
const ROW = 66;

/** The form to read before playing: each chord with the notes the plan lands on. */
export function FormPreview({
  chart,
  tempo,
  plan: choice,
}: {
  chart: Chart;
  tempo: number;
  plan: PlanChoice;
}) {
  const timeline = timelineOf(chart, tempo);
  const plan = planOn(chart, timeline, choice).plan;
  const rows = formRows(timeline);
  const widest = Math.max(...rows.map((row) => row.end - row.start));
  const x = (row: (typeof rows)[number], beat: number) => ((beat - row.start) / widest) * WIDTH;
  const namesOf = (start: number): string => {
    const stretch = present(timeline.chordSpans.find((one) => Math.abs(one.start - start) < 1e-6));
    const { chord } = stretch;
    return chord
      ? present(plan.cells[stretch.index])
          .targets.map((pc) => typeset(noteName(spellOver(chord, pc))))
          .join(' ')
      : '';
  };
  return (
    <section aria-label="Form and targets">
      <h2 className="heading">The form, and the notes to land on</h2>
      <svg
        viewBox={`0 0 ${WIDTH} ${rows.length * ROW}`}
        className="mt-2 w-full"
        role="img"
        aria-label="Chords of the form with the plan’s targets under each"
      >
        {rows.map((row) => (
          <g key={row.index} transform={`translate(0 ${row.index * ROW})`}>
            <rect x={0} y={2} width={x(row, row.end)} height={ROW - 8} fill="var(--row)" />
            {row.bars.map((bar) => (
              <line
                key={bar.number}
                x1={x(row, bar.start)}
                y1={2}
                x2={x(row, bar.start)}
                y2={ROW - 6}
                stroke="var(--dim)"
              />
            ))}
            {row.chords.map((chord) => {
              const room = x(row, chord.end) - x(row, chord.start) - 16;
              return (
                <g key={chord.start}>
                  <ChordSvg
                    x={x(row, chord.start) + 12}
                    y={30}
                    symbol={chord.symbol}
                    size={Math.min(24, room / chordWidth(chord.symbol))}
                    fill={chord.changes ? 'var(--ink)' : 'var(--soft)'}
                  />
                  {chord.changes && (
                    <text x={x(row, chord.start) + 12} y={50} fontSize={15} style={{ fill: 'var(--soft)' }}>
                      {namesOf(chord.start)}
                    </text>
                  )}
                </g>
              );
            })}
          </g>
        ))}
      </svg>
    </section>
  );
}
