import { scaleLinear } from 'd3-scale';
import { fretDistance, placesOf, STANDARD_TUNING, type FretPosition, type Tuning } from '@/core/neck';
import { Pill } from './form/Pill';

const WIDTH = 736;
const GAP = 31;
const PILL = 28;

type Props = {
  from: number;
  to: number;
  tones: readonly number[];
  targets: readonly number[];
  nameOf: (pc: number) => string;
  /** Open strings from the highest down. */ tuning?: Tuning;
  leftHanded?: boolean;
};

/**
 * A few frets of the neck, low string at the bottom, true spacing: tones sounding now pale, notes to land
 * on ringed, and an arrow where a tone
 * under the hand leads into one by a half step.
 */
export function Neck(props: Props) {
  const { from, to, tones, targets, nameOf, tuning = STANDARD_TUNING, leftHanded = false } = props;
  const ends = leftHanded ? [WIDTH, 0] : [0, WIDTH];
  const along = scaleLinear([fretDistance(from - 1), fretDistance(to)], ends);
  const x = (fret: number) => Math.round(along(fretDistance(fret)) * 10) / 10;
  const here = placesOf(
    tones.filter((pc) => !targets.includes(pc)),
    from,
    to,
    tuning,
  );
  const goals = placesOf(targets, from, to, tuning);
  const centre = (place: FretPosition): Point => [
    (x(place.fret - 1) + x(place.fret)) / 2,
    (place.string - 1) * GAP + TOP,
  ];
  const leads = goals.flatMap((goal) =>
    here
      .filter((place) => place.string === goal.string && Math.abs(place.fret - goal.fret) === 1)
      .map((place) => [centre(place), centre(goal)] as const),
  );
  const bottom = (tuning.length - 1) * GAP + TOP;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${bottom + 56}`}
      className="w-full"
      role="img"
      aria-label={`Frets ${from} to ${to}: ${targets.map(nameOf).join(', ') || 'no note'} to land on`}
    >
      <FretBoard from={from} to={to} strings={tuning.length} x={x} bottom={bottom} />
      {leads.map(([start, end]) => (
        <LeadArrow key={`${start.join()} ${end.join()}`} from={start} to={end} />
      ))}
      {here.map((place) => {
        const [cx, cy] = centre(place);
        return (
          <Pill
            key={`${place.string}-${place.fret}`}
            x={cx - 20}
            y={cy}
            width={40}
            height={PILL}
            tier={2}
            label={nameOf(place.midi % 12)}
            size={17}
          />
        );
      })}
      {goals.map((place) => (
        <Goal key={`${place.string}-${place.fret}`} at={centre(place)} name={nameOf(place.midi % 12)} />
      ))}
    </svg>
  );
}

const TOP = 24;
type Point = readonly [x: number, y: number];
type BoardProps = {
  from: number;
  to: number;
  strings: number;
  x: (fret: number) => number;
  bottom: number;
};

function FretBoard({ from, to, strings, x, bottom }: BoardProps) {
  return (
    <>
      {Array.from({ length: to - from + 2 }, (_, index) => from - 1 + index).map((fret) => (
        <g key={fret}>
          <line x1={x(fret)} y1={TOP} x2={x(fret)} y2={bottom} stroke="var(--line)" strokeWidth={1.5} />
          {fret >= from && (
            <text
              x={(x(fret - 1) + x(fret)) / 2}
              y={bottom + 48}
              fontSize={18}
              fontWeight={560}
              textAnchor="middle"
              style={{ fill: 'var(--soft)' }}
            >
              {fret}
            </text>
          )}
        </g>
      ))}
      {Array.from({ length: strings }, (_, index) => (
        <line
          key={index}
          x1={0}
          y1={TOP + index * GAP}
          x2={WIDTH}
          y2={TOP + index * GAP}
          stroke="var(--dim)"
          strokeWidth={1 + index * 0.18}
        />
      ))}
    </>
  );
}

/** From a tone under the hand to the one it leads into by a half step. */
function LeadArrow({ from: [start, y], to: [end] }: { from: Point; to: Point }) {
  const way = Math.sign(end - start);
  const tip = end - way * 29;
  return (
    <path
      d={`M${start + way * 20} ${y}H${tip}m${-way * 9} -6l${way * 9} 6l${-way * 9} 6`}
      stroke="var(--now)"
      strokeWidth={3}
      fill="none"
    />
  );
}

/** A note to land on, ringed. */
const Goal = ({ at: [cx, cy], name }: { at: Point; name: string }) => (
  <g>
    <circle cx={cx} cy={cy} r={16.5} fill="var(--h0)" />
    <circle cx={cx} cy={cy} r={19.5} fill="none" stroke="var(--now)" strokeWidth={3} />
    <text
      x={cx}
      y={cy + 6.5}
      fontSize={19}
      fontWeight={700}
      textAnchor="middle"
      style={{ fill: 'var(--on)' }}
    >
      {name}
    </text>
  </g>
);
