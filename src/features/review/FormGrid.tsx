import { scaleLinear } from 'd3-scale';
import type { Timeline } from '@/core/chart';
import { ChordSvg } from '@/ui/ChordSymbol';
import { chordWidth } from '@/ui/chordParts';

export const WIDTH = 752;
const LEFT = 32;

/** Where a beat of a chorus lies across the board. */
export const acrossForm = ({ formBeats }: Timeline): ((beatInForm: number) => number) =>
  scaleLinear([0, formBeats], [LEFT, WIDTH]);

type Props = { timeline: Timeline; choruses: number; pitch: number; withChords: boolean };

/** The form once across, its choruses down: the ground of a board. */
export function FormGrid({ timeline, choruses, pitch, withChords }: Props) {
  const x = acrossForm(timeline);
  const top = withChords ? 30 : 4;
  return (
    <>
      {Array.from({ length: choruses }, (_, chorus) => (
        <g key={chorus}>
          <rect x={LEFT} y={top + chorus * pitch} width={WIDTH - LEFT} height={pitch - 3} fill="var(--row)" />
          <text
            x={0}
            y={top + chorus * pitch + pitch / 2 + 4}
            fontSize={14}
            fontWeight={560}
            style={{ fill: 'var(--soft)' }}
          >
            {chorus + 1}
          </text>
        </g>
      ))}
      {timeline.bars.map((bar) => (
        <line
          key={bar.index}
          x1={x(bar.start)}
          y1={withChords ? 4 : 0}
          x2={x(bar.start)}
          y2={top + choruses * pitch}
          stroke="var(--line)"
        />
      ))}
      {withChords &&
        timeline.chordSpans.map((span) => {
          const symbol = span.chord?.symbol ?? 'N.C.';
          const before = timeline.chordSpans[span.index - 1]?.chord?.symbol;
          const room = x(span.end) - x(span.start) - 6;
          return symbol === before ? null : (
            <ChordSvg
              key={span.index}
              x={x(span.start) + 4}
              y={20}
              symbol={symbol}
              size={Math.max(9, Math.min(15, room / chordWidth(symbol)))}
            />
          );
        })}
    </>
  );
}
