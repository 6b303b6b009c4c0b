import { scaleLinear } from 'd3-scale';
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
  const width = narrow ? NARROW : WIDE;
  const { from, to, whole, end } = shownBeats(stage, at, narrow);
  const places = all
    .map((place) => ({ ...place, beat: place.beat - (from - whole) }))
    .filter((place) => !narrow || (place.beat >= -1e-6 && place.beat < to - from));
  const beat = at === null ? null : at - from;
  const x = scaleLinear([0, to - from], [16, width - (narrow ? 16 : 36)]);
  const next = places.find(({ met, beat: place }) => met === null && (beat === null || place > beat - 0.5));
  const { formBeats } = stage.timeline;
  const passes = Array.from(
    { length: Math.ceil((end - whole) / formBeats) },
    (_, pass) => whole + pass * formBeats - from,
  ).filter((start) => start < to - from && start + formBeats > 0);
  return (
    <svg viewBox={`0 0 ${width} 104`} className="w-full" role="img" aria-label={placesWords(places)}>
      <line x1={x(0)} y1={LINE} x2={x(to - from)} y2={LINE} stroke="var(--line)" strokeWidth={2} />
      {passes.map((start) => (
        <PassMarks
          key={start}
          stage={stage}
          start={start}
          beats={to - from}
          x={x}
          isOneOfMany={passes.length > 1}
          beat={beat}
          nextBeat={next?.beat ?? null}
        />
      ))}
      {places.map((place) => (
        <PlaceMark key={place.beat} place={place} x={x(place.beat)} isNext={place === next} />
      ))}
      {beat !== null && beat >= 0 && beat < to - from && (
        <line x1={x(beat)} y1={LINE - 34} x2={x(beat)} y2={LINE + 18} stroke="var(--now)" strokeWidth={3} />
      )}
    </svg>
  );
}

/** The beats that are shown: all passes of a span, or on a phone a few bars of it. */
function shownBeats(
  stage: DrillStage,
  at: Beats | null,
  narrow: boolean,
): { from: Beats; to: Beats; whole: Beats; end: Beats } {
  const [whole, end] = shownSpan(stage, Math.max(0, at ?? 0));
  if (!narrow) return { from: whole, to: end, whole, end };
  const window = FEW * beatsPerBar(stage.chart.meter);
  const from = whole + Math.floor(Math.max(0, (at ?? 0) - whole) / window) * window;
  return { from, to: Math.min(end, from + window), whole, end };
}

const placesWords = (places: Props['places']): string =>
  places
    .filter(({ met }) => met !== null)
    .map(({ beat, met }) => `beat ${beat + 1}: ${met ? 'met' : 'not met'}`)
    .join(', ') || 'Nothing has been played yet';

type MarksProps = {
  stage: DrillStage;
  start: Beats;
  beats: Beats;
  x: (beat: Beats) => number;
  isOneOfMany: boolean;
  beat: Beats | null;
  nextBeat: Beats | null;
};

/** Bars and chords of one pass. */
function PassMarks({ stage, start, beats, x, isOneOfMany, beat, nextBeat }: MarksProps) {
  const { bars, chordSpans } = stage.timeline;
  const isShown = (place: Beats) => place >= -1e-6 && place < beats - 1e-6;
  return (
    <>
      {bars
        .filter((bar) => isShown(start + bar.start))
        .map((bar) => {
          const isStart = bar.index === 0 && isOneOfMany;
          const at = x(start + bar.start);
          return (
            <g key={bar.index}>
              <line
                x1={at}
                y1={LINE + 18}
                x2={at}
                y2={LINE + (isStart ? 38 : 24)}
                stroke={isStart ? 'var(--dim)' : 'var(--line)'}
              />
              <text x={at + 5} y={LINE + 34} fontSize={13} style={{ fill: 'var(--dim)' }}>
                {bar.index + 1}
              </text>
            </g>
          );
        })}
      {chordSpans
        .filter((span) => isShown(start + span.start))
        .map((span) => {
          const at = start + span.start;
          const isNext = nextBeat !== null && Math.abs(nextBeat - at) < 1e-6;
          return (
            span.chord && (
              <ChordSvg
                key={span.start}
                x={x(at)}
                y={18}
                symbol={span.chord.symbol}
                size={18}
                weight={580}
                anchor="middle"
                fill={chordFill(isNext, beat !== null && at <= beat)}
              />
            )
          );
        })}
    </>
  );
}

function PlaceMark({
  place: { met, label, side },
  x,
  isNext,
}: {
  place: DrillPlace;
  x: number;
  isNext: boolean;
}) {
  const chip = x + side * 20;
  return (
    <g>
      <line
        x1={x}
        y1={LINE - 26}
        x2={x}
        y2={LINE + 14}
        stroke={placeStroke(met, isNext)}
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

function placeStroke(met: boolean | null, isNext: boolean) {
  if (met) return 'var(--h0)';
  if (isNext) return 'var(--now)';
  if (met === null) return 'var(--dim)';
  return 'var(--h3)';
}
