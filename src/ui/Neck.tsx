import { fretDistance, placesOf, STANDARD_TUNING, type Place } from '@/core/neck';
import { Pill } from './form/Pill';

const WIDTH = 736;
const GAP = 31;
const PILL = 28;

type Props = { from: number; to: number; tones: readonly number[]; targets: readonly number[]; nameOf: (pc: number) => string };

/** A few frets of the neck, low string at the bottom, true spacing: tones sounding now pale, notes to land on ringed. */
export function Neck({ from, to, tones, targets, nameOf }: Props) {
  const [low, high] = [fretDistance(from - 1), fretDistance(to)];
  const x = (fret: number) => ((fretDistance(fret) - low) / (high - low)) * WIDTH;
  const centre = (place: Place): [number, number] => [(x(place.fret - 1) + x(place.fret)) / 2, (place.string - 1) * GAP + 24];
  const bottom = 5 * GAP + 24;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${bottom + 56}`} className="w-full" role="img" aria-label={`Frets ${from} to ${to}: ${targets.map(nameOf).join(', ') || 'no note'} to land on`}>
      {Array.from({ length: to - from + 2 }, (_, index) => from - 1 + index).map((fret) => (
        <g key={fret}>
          <line x1={x(fret)} y1={24} x2={x(fret)} y2={bottom} stroke="var(--line)" strokeWidth={1.5} />
          {fret >= from && <text x={(x(fret - 1) + x(fret)) / 2} y={bottom + 48} fontSize={18} fontWeight={560} textAnchor="middle" style={{ fill: 'var(--soft)' }}>{fret}</text>}
        </g>
      ))}
      {STANDARD_TUNING.map((_, index) => <line key={index} x1={0} y1={24 + index * GAP} x2={WIDTH} y2={24 + index * GAP} stroke="var(--dim)" strokeWidth={1 + index * 0.18} />)}
      {placesOf(tones.filter((pc) => !targets.includes(pc)), from, to).map((place) => {
        const [cx, cy] = centre(place);
        return <Pill key={`${place.string}-${place.fret}`} x={cx - 20} y={cy} width={40} height={PILL} tier={2} label={nameOf(place.midi % 12)} size={17} />;
      })}
      {placesOf(targets, from, to).map((place) => {
        const [cx, cy] = centre(place);
        return (
          <g key={`${place.string}-${place.fret}`}>
            <circle cx={cx} cy={cy} r={16.5} fill="var(--h0)" />
            <circle cx={cx} cy={cy} r={19.5} fill="none" stroke="var(--now)" strokeWidth={3} />
            <text x={cx} y={cy + 6.5} fontSize={19} fontWeight={700} textAnchor="middle" style={{ fill: 'var(--on)' }}>{nameOf(place.midi % 12)}</text>
          </g>
        );
      })}
    </svg>
  );
}
