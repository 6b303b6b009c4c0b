import type { LandingMark, Timing } from '@/core/analyse';
import { Pill } from './Pill';

type LineProps = { x: number; from: number; to: number; mark: LandingMark; scale?: number };

/**
 * The five landings: target thick; target late dotted above, thick below; another chord tone thin; not met
 * dotted; at rest only its ends.
 */
export function LandingLine({ x, from, to, mark, scale = 1 }: LineProps) {
  const line = (a: number, b: number, stroke: string, width: number, dash?: string) => (
    <line x1={x} y1={a} x2={x} y2={b} stroke={stroke} strokeWidth={width * scale} strokeDasharray={dash} />
  );
  const dots = `${2 * scale} ${3.5 * scale}`;
  const end = (to - from) * 0.17;
  switch (mark) {
    case 'target':
      return line(from, to, 'var(--h0)', 3);
    case 'chord-tone':
      return line(from, to, 'var(--h1)', 1.5);
    case 'target-late':
      return (
        <>
          {line(from + scale, (from + to) / 2 - scale, 'var(--h3)', 1.5, dots)}
          {line((from + to) / 2, to, 'var(--h0)', 3)}
        </>
      );
    case 'rest':
      return (
        <>
          {line(from, from + end, 'var(--h3)', 1.5)}
          {line(to - end, to, 'var(--h3)', 1.5)}
        </>
      );
    case 'not-met':
      return line(from + scale, to, 'var(--h3)', 1.5, dots);
  }
}

/** The same for many landings at once, one shape for all of a kind: for pictures that are too small to touch. */
export function LandingLines({
  landings,
  from,
  to,
  scale = 1,
}: { landings: readonly { readonly x: number; readonly mark: LandingMark }[] } & Omit<
  LineProps,
  'x' | 'mark'
>) {
  const end = (to - from) * 0.17;
  const parts: [LandingMark, number, number, string, number, boolean][] = [
    ['target', from, to, 'var(--h0)', 3, false],
    ['chord-tone', from, to, 'var(--h1)', 1.5, false],
    ['target-late', from + scale, (from + to) / 2 - scale, 'var(--h3)', 1.5, true],
    ['target-late', (from + to) / 2, to, 'var(--h0)', 3, false],
    ['rest', from, from + end, 'var(--h3)', 1.5, false],
    ['rest', to - end, to, 'var(--h3)', 1.5, false],
    ['not-met', from + scale, to, 'var(--h3)', 1.5, true],
  ];
  return (
    <>
      {parts.map(([mark, a, b, stroke, width, dotted], index) => {
        const d = landings
          .filter((landing) => landing.mark === mark)
          .map(({ x }) => `M${x.toFixed(1)} ${a.toFixed(1)}V${b.toFixed(1)}`)
          .join('');
        return (
          d && (
            <path
              key={index}
              className="landings"
              d={d}
              stroke={stroke}
              strokeWidth={width * scale}
              strokeDasharray={dotted ? `${2 * scale} ${3.5 * scale}` : undefined}
            />
          )
        );
      })}
    </>
  );
}

export const LANDING_WORDS: Record<LandingMark, string> = {
  target: 'target',
  'target-late': 'target, late',
  'chord-tone': 'chord tone',
  'not-met': 'not met',
  rest: 'at rest',
};

type ChipProps = {
  x: number;
  y: number;
  mark: LandingMark;
  timing: Timing;
  tier: number;
  label: string;
  width?: number;
};

/**
 * A landing on its own small landing: the chip stands left of the line (early), on it, right of it (late) or
 * across it (held).
 */
export function LandingChip({ x, y, mark, timing, tier, label, width = 20 }: ChipProps) {
  const line = <LandingLine x={x} from={y - 13} to={y + 13} mark={mark} scale={0.8} />;
  if (timing === 'none')
    return (
      <>
        {line}
        <rect x={x - 7} y={y - 8} width={14} height={16} fill="var(--bg)" />
        <text x={x} y={y + 5} fontSize={14} textAnchor="middle" style={{ fill: 'var(--dim)' }}>
          –
        </text>
      </>
    );
  const left = { early: x - width - 1.5, late: x + 1.5, held: x - 16, on: x - width / 2 }[timing];
  return (
    <>
      {line}
      <Pill
        x={left}
        y={y}
        width={timing === 'held' ? 32 : width}
        height={18}
        tier={tier}
        label={label}
        size={12}
      />
    </>
  );
}
