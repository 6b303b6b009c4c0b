import type { Beats } from '@/core/vocabulary';
import { ChordSvg } from '@/ui/ChordSymbol';
import { Pill } from '@/ui/form/Pill';
import type { DrillStage, Place } from './drillView';

const WIDTH = 1216;
const LINE = 64;

type Props = { stage: DrillStage; places: readonly Place[]; /** The beat of the running pass; null before it. */ beat: Beats | null };

/** The bars of the drill as one line: a change is a tick, thick where the rule was met, dotted where not, with what was landed on. */
export function PassStrip({ stage: { timeline }, places, beat }: Props) {
  const x = (at: Beats) => 4 + (at / timeline.formBeats) * (WIDTH - 40);
  const next = places.find(({ met, beat: at }) => met === null && (beat === null || at > beat - 0.5));
  return (
    <svg viewBox={`0 0 ${WIDTH} 104`} className="w-full" role="img" aria-label={places.filter(({ met }) => met !== null).map(({ beat: at, met }) => `beat ${at + 1}: ${met ? 'met' : 'not met'}`).join(', ') || 'Nothing has been played yet'}>
      <line x1={x(0)} y1={LINE} x2={x(timeline.formBeats)} y2={LINE} stroke="var(--line)" strokeWidth={2} />
      {timeline.bars.map((bar) => (
        <g key={bar.index}><line x1={x(bar.start)} y1={LINE + 18} x2={x(bar.start)} y2={LINE + 24} stroke="var(--line)" /><text x={x(bar.start) + 5} y={LINE + 34} fontSize={13} style={{ fill: 'var(--dim)' }}>{bar.index + 1}</text></g>
      ))}
      {timeline.stretches.map((stretch) => {
        const isNext = next !== undefined && Math.abs(next.beat - stretch.start) < 1e-6;
        const past = beat !== null && stretch.start <= beat;
        return stretch.chord && <ChordSvg key={stretch.start} x={x(stretch.start) - 10} y={18} symbol={stretch.chord.symbol} size={18} weight={580} fill={isNext ? 'var(--now)' : past ? 'var(--soft)' : 'var(--ink)'} />;
      })}
      {places.map((place) => <Gate key={place.beat} place={place} x={x(place.beat)} isNext={place === next} />)}
      {beat !== null && beat >= 0 && beat < timeline.formBeats && <line x1={x(beat)} y1={LINE - 34} x2={x(beat)} y2={LINE + 18} stroke="var(--now)" strokeWidth={3} />}
    </svg>
  );
}

function Gate({ place: { met, label, side }, x, isNext }: { place: Place; x: number; isNext: boolean }) {
  const chip = x + side * 20;
  return (
    <g>
      <line x1={x} y1={LINE - 26} x2={x} y2={LINE + 14} stroke={met ? 'var(--h0)' : isNext ? 'var(--now)' : met === null ? 'var(--dim)' : 'var(--h3)'} strokeWidth={met || isNext ? 3 : 1.5} strokeDasharray={met === false ? '2 3.5' : undefined} />
      {met !== null && label && <Pill x={chip - 15} y={LINE - 6} width={30} height={20} tier={met ? 0 : 3} label={label} size={13} />}
      {met !== null && !label && <circle cx={x} cy={LINE - 6} r={6} fill={met ? 'var(--h0)' : 'var(--row)'} stroke={met ? 'none' : 'var(--h3)'} strokeWidth={1.5} />}
    </g>
  );
}
