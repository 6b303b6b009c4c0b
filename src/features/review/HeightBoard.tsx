import { scaleBand, scaleLinear } from 'd3-scale';
import { stack } from 'd3-shape';
import type { Report } from '@/core/analyse';
import type { PlanWords } from '@/core/plan';
import { Board } from './BoardFrame';
import { planIntents } from './planIntents';

type Chorus = Report['arc'][number];

const INTENT: Readonly<Record<string, string>> = {
  ground: 'on the ground',
  low: 'low',
  high: 'high',
  free: 'free',
};
const WORDS = ['chord tones', 'colour', 'scale', 'leading in', 'outside'];
const TIERS = [0, 1, 2, 3, 4];

const [WIDTH, HEIGHT] = [752, 150];
const [TOP, GROUND] = [4, 104];
const WIDEST_BAR = 150;

const shareOfTier = stack<Chorus, number>()
  .keys(TIERS)
  .value(({ heights }, tier) => heights[tier] ?? 0);

/** The walk in height, chorus by chorus, beside what the plan meant. */
export function HeightBoard({ report, plan }: { report: Report; plan: PlanWords }) {
  const { arc } = report;
  const intents = planIntents(plan, arc.length);
  const intentOf = (index: number) => INTENT[intents?.[index] ?? ''];
  return (
    <Board
      name="Tension"
      facts={`share of the sounding time at each tension level, chorus by chorus${intents ? '; below, what the plan meant' : ''}`}
      table={{
        caption: 'Tension by chorus',
        head: ['Chorus', ...WORDS, 'Mean', 'Notes a bar', 'Loudness, dB', ...(intents ? ['Meant'] : [])],
        rows: arc.map((one, index) => [
          one.chorus,
          ...one.heights.map((share) => `${Math.round(share * 100)} %`),
          one.meanHeight === null ? '–' : one.meanHeight.toFixed(1),
          one.density.toFixed(1),
          one.loudness === null ? '–' : one.loudness.toFixed(0),
          ...(intents ? [intentOf(index) ?? '–'] : []),
        ]),
      }}
    >
      <HeightPicture arc={arc} intentOf={intentOf} />
    </Board>
  );
}

type PictureProps = { arc: readonly Chorus[]; intentOf: (index: number) => string | undefined };

function HeightPicture({ arc, intentOf }: PictureProps) {
  const x = scaleBand<number>()
    .domain(arc.map((_, index) => index))
    .range([0, WIDTH]);
  const y = scaleLinear().domain([0, 1]).range([GROUND, TOP]);
  const width = Math.min(WIDEST_BAR, x.bandwidth() - 12);
  const layers = shareOfTier([...arc]);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="mt-2 w-full"
      role="img"
      aria-label="Tension by chorus; the table says the same"
    >
      {arc.map((one, index) => {
        const left = (x(index) ?? 0) + 4;
        const mean = one.meanHeight === null ? '' : `: mean ${one.meanHeight.toFixed(1)}`;
        return (
          <g key={one.chorus}>
            {layers.map((layer, tier) => {
              const [from = 0, to = 0] = layer[index] ?? [];
              return <TierBar key={tier} tier={tier} x={left} width={width} top={y(to)} bottom={y(from)} />;
            })}
            <text x={left} y={122} fontSize={14} fontWeight={560} style={{ fill: 'var(--soft)' }}>
              {one.chorus}
              {x.bandwidth() > 90 && mean}
            </text>
            <text x={left} y={142} fontSize={14} style={{ fill: 'var(--dim)' }}>
              {intentOf(index)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

type BarProps = { tier: number; x: number; width: number; top: number; bottom: number };

/** Filled while the notes belong to chord or scale; outlined, and dashed outside, where they do not. */
function TierBar({ tier, x, width, top, bottom }: BarProps) {
  const tall = bottom - top;
  if (tall <= 0.4) return null;
  if (tier < 3) {
    return <rect x={x} y={top} width={width} height={Math.max(0.5, tall - 1)} fill={`var(--h${tier})`} />;
  }
  return (
    <rect
      x={x + 0.75}
      y={top + 0.75}
      width={width - 1.5}
      height={Math.max(0.5, tall - 2)}
      fill="var(--row)"
      stroke={`var(--h${tier})`}
      strokeWidth={1.5}
      strokeDasharray={tier === 4 ? '4 3' : undefined}
    />
  );
}
