import { scaleLinear } from 'd3-scale';
import { typeset } from '@/core/music';
import { fretDistance, stringName, type Tuning } from '@/core/neck';
import { Pill } from '../form/Pill';

/**
 * How a place is drawn: a tone the home scale lacks, a tone, a scale tone, a neighbour of the shape, a target
 * that is not under a finger yet.
 */
export type MarkLook = 'lacks' | 'tone' | 'scale' | 'neighbour' | 'target';
export type NeckMark = {
  readonly string: number;
  readonly fret: number;
  readonly label: string;
  readonly look: MarkLook;
  /** Aimed at: ringed. */ readonly ring?: boolean;
};
export type NeckArrow = { readonly string: number; readonly from: number; readonly to: number };

type Props = {
  tuning: Tuning;
  from: number;
  to: number;
  marks: readonly NeckMark[];
  arrows?: readonly NeckArrow[];
  leftHanded?: boolean;
  width: number;
  gap: number;
  label: string;
  numbers?: boolean;
  names?: boolean;
  size?: number;
  /** Frets under the hand; others fade. */ hand?: readonly [number, number];
  /** Lines behind the marks: through places in the order they are played, or between what sounds together. */
  links?: readonly (readonly { readonly string: number; readonly fret: number }[])[];
};

/**
 * Some frets of a neck, string 1 above, true spacing; mirrored for a left hand. Every mark carries its
 * interval or name.
 */
export function NeckMap(props: Props) {
  const { tuning, from, marks, arrows = [], width, gap, label, numbers = true, names = false } = props;
  const { size = 13 } = props;
  const left = names ? 30 : 0;
  const open = marks.some((mark) => mark.fret === 0) || from <= 1 ? gap * 1.3 : 0;
  const scale = neckScale(props, open);
  const height = tuning.length * gap + (numbers ? 22 : 0);
  return (
    <svg viewBox={`${-left} 0 ${width + left} ${height}`} className="w-full" role="img" aria-label={label}>
      <Frets {...props} scale={scale} />
      {tuning.map((midi, index) => (
        <g key={index}>
          <line
            x1={scale.turn(open)}
            y1={scale.y(index + 1)}
            x2={scale.turn(width)}
            y2={scale.y(index + 1)}
            stroke="var(--dim)"
            strokeWidth={1 + index * 0.16}
          />
          {names && (
            <text x={-left + 2} y={scale.y(index + 1) + 4.5} fontSize={13} style={{ fill: 'var(--dim)' }}>
              {typeset(stringName(midi))}
            </text>
          )}
        </g>
      ))}
      {props.links?.map((places, index) => (
        <polyline
          key={index}
          points={places.map(({ string, fret }) => `${scale.centre(fret)},${scale.y(string)}`).join(' ')}
          fill="none"
          stroke="var(--dim)"
          strokeWidth={1.5}
        />
      ))}
      {arrows.map((arrow) => (
        <Arrow key={`${arrow.string} ${arrow.from} ${arrow.to}`} arrow={arrow} scale={scale} size={size} />
      ))}
      {marks.map((mark) => (
        <Mark
          key={`${mark.string} ${mark.fret}`}
          mark={mark}
          x={scale.centre(mark.fret)}
          y={scale.y(mark.string)}
          size={size}
          gap={gap}
        />
      ))}
    </svg>
  );
}

/** Where frets, the room behind them and strings lie, mirrored for a left hand. */
type NeckScale = {
  readonly turn: (x: number) => number;
  readonly wire: (fret: number) => number;
  readonly centre: (fret: number) => number;
  readonly y: (string: number) => number;
};

/** @param open room for open strings before the first fret */
function neckScale({ from, to, width, gap, leftHanded = false }: Props, open: number): NeckScale {
  const along = scaleLinear([fretDistance(from - 1), fretDistance(to)], [open, width]);
  // powers differ in their last digit from engine to engine: what the server drew must be what the browser
  // draws
  const turn = (x: number) => Math.round((leftHanded ? width - x : x) * 10) / 10;
  const at = (fret: number) => along(fretDistance(fret));
  return {
    turn,
    wire: (fret) => turn(at(fret)),
    centre: (fret) => turn(fret < from ? open / 2 : (at(fret - 1) + at(fret)) / 2),
    y: (string) => (string - 1) * gap + gap / 2,
  };
}

function Frets({
  tuning,
  from,
  to,
  gap,
  numbers = true,
  size = 13,
  hand,
  scale,
}: Props & { scale: NeckScale }) {
  const inHand = (fret: number) => !hand || fret === 0 || (fret >= hand[0] && fret <= hand[1]);
  const bottom = tuning.length * gap;
  return (
    <>
      {Array.from({ length: to - from + 2 }, (_, index) => from - 1 + index).map((fret) => (
        <line
          key={fret}
          x1={scale.wire(fret)}
          y1={gap / 2}
          x2={scale.wire(fret)}
          y2={bottom - gap / 2}
          stroke={fret === 0 ? 'var(--soft)' : 'var(--line)'}
          strokeWidth={fret === 0 ? 4 : 1.5}
        />
      ))}
      {numbers &&
        Array.from({ length: to - from + 1 }, (_, index) => from + index).map((fret) => (
          <text
            key={fret}
            x={scale.centre(fret)}
            y={bottom + 16}
            fontSize={size}
            fontWeight={560}
            textAnchor="middle"
            style={{ fill: inHand(fret) ? 'var(--soft)' : 'var(--dim)' }}
          >
            {fret}
          </text>
        ))}
    </>
  );
}

type ArrowProps = { arrow: NeckArrow; scale: NeckScale; size: number };

function Arrow({ arrow: { string, from, to }, scale: { centre, y }, size }: ArrowProps) {
  const way = centre(to) > centre(from) ? 1 : -1;
  const tip = centre(to) - way * (size + 4);
  return (
    <g>
      <line
        x1={centre(from) + way * size * 1.2}
        y1={y(string)}
        x2={tip - way * 6}
        y2={y(string)}
        stroke="var(--now)"
        strokeWidth={2.5}
      />
      <path d={`M${tip} ${y(string)}l${-way * 9} -5v10z`} fill="var(--now)" />
    </g>
  );
}

function Mark({
  mark,
  x,
  y,
  size,
  gap,
}: {
  mark: NeckMark;
  x: number;
  y: number;
  size: number;
  gap: number;
}) {
  const { label, look, ring } = mark;
  const [width, height] = [size * 2.5, Math.min(gap - 2, size * 1.5)];
  if (look === 'scale')
    return (
      <>
        {ring && <circle cx={x} cy={y} r={7} fill="none" stroke="var(--now)" strokeWidth={2} />}
        <circle cx={x} cy={y} r={size * 0.26} fill="var(--h4)" />
      </>
    );
  if (look === 'target')
    return (
      <>
        <circle cx={x} cy={y} r={height / 2 + 3} fill="var(--bg)" stroke="var(--now)" strokeWidth={2} />
        <text x={x} y={y + size * 0.36} fontSize={size + 1} fontWeight={660} textAnchor="middle">
          {label}
        </text>
      </>
    );
  return (
    <>
      {ring && (
        <rect
          x={x - width / 2 - 4}
          y={y - height / 2 - 3}
          width={width + 8}
          height={height + 6}
          rx={height / 2 + 3}
          fill="none"
          stroke="var(--now)"
          strokeWidth={2}
        />
      )}
      <Pill
        x={x - width / 2}
        y={y}
        width={width}
        height={height}
        tier={dotTier(look)}
        label={label}
        size={size}
      />
    </>
  );
}

function dotTier(look: MarkLook) {
  if (look === 'lacks') return 0;
  if (look === 'tone') return 2;
  return 3;
}
