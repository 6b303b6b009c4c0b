import { beatsPerBar } from '@/core/chart';
import type { Beats } from '@/core/shared';
import { ChordSvg } from '@/ui/ChordSymbol';
import { Pill } from '@/ui/form/Pill';
import { shownSpan, type DrillStage, type DrillPlace } from './drillView';

const WIDE = 1216;
const NARROW = 358;
/** Bars a phone shows at once. */
const FEW = 4;
const LINE = 64;

type Props = {
  stage: DrillStage;
  places: readonly DrillPlace[];
  /** The beat of the attempt; null before it. */ beat: Beats | null;
  /** On a phone: the bars around the moment. */ narrow?: boolean;
};

/**
 * The bars of the drill as one line: a change is a tick, thick where the rule was met, dotted where not, with
 * what was landed on.
 */
export function PassStrip({ stage, places: all, beat: at, narrow = false }: Props) {
  const { timeline } = stage;
  const width = narrow ? NARROW : WIDE;
  const [whole, end] = shownSpan(stage, Math.max(0, at ?? 0));
  const window = FEW * beatsPerBar(stage.chart.meter);
  const skip = narrow ? Math.floor(Math.max(0, (at ?? 0) - whole) / window) * window : 0;
  const [from, to] = narrow ? [whole + skip, Math.min(end, whole + skip + window)] : [whole, end];
  const places = narrow
    ? all
        .filter((place) => place.beat >= skip - 1e-6 && place.beat < skip + to - from)
        .map((place) => ({ ...place, beat: place.beat - skip }))
    : all;
  const beat = at === null ? null : at - from;
  const passes = Array.from(
    { length: Math.ceil((end - whole) / timeline.formBeats) },
    (_, pass) => whole + pass * timeline.formBeats - from,
  ).filter((start) => start < to - from && start + timeline.formBeats > 0);
  const x = (place: Beats) => 16 + (place / (to - from)) * (width - (narrow ? 32 : 52));
  const isShown = (place: Beats) => place >= -1e-6 && place < to - from - 1e-6;
  const next = places.find(({ met, beat: place }) => met === null && (beat === null || place > beat - 0.5));
  return (
    <svg
      viewBox={`0 0 ${width} 104`}
      className="w-full"
      role="img"
      aria-label={
        places
          .filter(({ met }) => met !== null)
          .map(({ beat: place, met }) => `beat ${place + 1}: ${met ? 'met' : 'not met'}`)
          .join(', ') || 'Nothing has been played yet'
      }
    >
      <line x1={x(0)} y1={LINE} x2={x(to - from)} y2={LINE} stroke="var(--line)" strokeWidth={2} />
      {passes.flatMap((start, pass) =>
        timeline.bars
          .filter((bar) => isShown(start + bar.start))
          .map((bar) => (
            <g key={`${pass} ${bar.index}`}>
              <line
                x1={x(start + bar.start)}
                y1={LINE + 18}
                x2={x(start + bar.start)}
                y2={LINE + (bar.index === 0 && passes.length > 1 ? 38 : 24)}
                stroke={bar.index === 0 && passes.length > 1 ? 'var(--dim)' : 'var(--line)'}
              />
              <text x={x(start + bar.start) + 5} y={LINE + 34} fontSize={13} style={{ fill: 'var(--dim)' }}>
                {bar.index + 1}
              </text>
            </g>
          )),
      )}
      {passes.flatMap((start, pass) =>
        timeline.chordSpans
          .filter((stretch) => isShown(start + stretch.start))
          .map((stretch) => {
            const isNext = next !== undefined && Math.abs(next.beat - start - stretch.start) < 1e-6;
            const past = beat !== null && start + stretch.start <= beat;
            return (
              stretch.chord && (
                <ChordSvg
                  key={`${pass} ${stretch.start}`}
                  x={x(start + stretch.start)}
                  y={18}
                  symbol={stretch.chord.symbol}
                  size={18}
                  weight={580}
                  anchor="middle"
                  fill={chordFill(isNext, past)}
                />
              )
            );
          }),
      )}
      {places.map((place) => (
        <Gate key={place.beat} place={place} x={x(place.beat)} isNext={place === next} />
      ))}
      {beat !== null && beat >= 0 && beat < to - from && (
        <line x1={x(beat)} y1={LINE - 34} x2={x(beat)} y2={LINE + 18} stroke="var(--now)" strokeWidth={3} />
      )}
    </svg>
  );
}

function Gate({ place: { met, label, side }, x, isNext }: { place: DrillPlace; x: number; isNext: boolean }) {
  const chip = x + side * 20;
  return (
    <g>
      <line
        x1={x}
        y1={LINE - 26}
        x2={x}
        y2={LINE + 14}
        stroke={gateStroke(met, isNext)}
        strokeWidth={met || isNext ? 3 : 1.5}
        strokeDasharray={met === false ? '2 3.5' : undefined}
      />
      {met !== null && label && (
        <Pill x={chip - 15} y={LINE - 6} width={30} height={20} tier={met ? 0 : 3} label={label} size={13} />
      )}
      {met !== null && !label && (
        <circle
          cx={x}
          cy={LINE - 6}
          r={6}
          fill={met ? 'var(--h0)' : 'var(--row)'}
          stroke={met ? 'none' : 'var(--h3)'}
          strokeWidth={1.5}
        />
      )}
    </g>
  );
}

function chordFill(isNext: boolean, past: boolean) {
  if (isNext) return 'var(--now)';
  if (past) return 'var(--soft)';
  return 'var(--ink)';
}

function gateStroke(met: boolean | null, isNext: boolean) {
  if (met) return 'var(--h0)';
  if (isNext) return 'var(--now)';
  if (met === null) return 'var(--dim)';
  return 'var(--h3)';
}
