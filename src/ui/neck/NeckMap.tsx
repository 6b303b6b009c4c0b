import { typeset } from '@/core/findings';
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
};

/**
 * Some frets of a neck, string 1 above, true spacing; mirrored for a left hand. Every mark carries its
 * interval or name.
 */
export function NeckMap({
  tuning,
  from,
  to,
  marks,
  arrows = [],
  leftHanded = false,
  width,
  gap,
  label,
  numbers = true,
  names = false,
  size = 13,
  hand,
}: Props) {
  const strings = tuning.length;
  const left = names ? 30 : 0;
  const open = marks.some((mark) => mark.fret === 0) || from <= 1 ? gap * 1.3 : 0;
  const [low, high] = [fretDistance(from - 1), fretDistance(to)];
  const along = (share: number) => open + ((share - low) / (high - low)) * (width - open);
  // powers differ in their last digit from engine to engine: what the server drew must be what the browser
  // draws
  const turn = (x: number) => Math.round((leftHanded ? width - x : x) * 10) / 10;
  const wire = (fret: number) => turn(along(fretDistance(fret)));
  const centre = (fret: number) =>
    turn(fret < from ? open / 2 : (along(fretDistance(fret - 1)) + along(fretDistance(fret))) / 2);
  const y = (string: number) => (string - 1) * gap + gap / 2;
  const height = strings * gap + (numbers ? 22 : 0);
  const inHand = (fret: number) => !hand || fret === 0 || (fret >= hand[0] && fret <= hand[1]);
  return (
    <svg viewBox={`${-left} 0 ${width + left} ${height}`} className="w-full" role="img" aria-label={label}>
      {Array.from({ length: to - from + 2 }, (_, index) => from - 1 + index).map((fret) => (
        <line
          key={fret}
          x1={wire(fret)}
          y1={gap / 2}
          x2={wire(fret)}
          y2={strings * gap - gap / 2}
          stroke={fret === 0 ? 'var(--soft)' : 'var(--line)'}
          strokeWidth={fret === 0 ? 4 : 1.5}
        />
      ))}
      {numbers &&
        Array.from({ length: to - from + 1 }, (_, index) => from + index).map((fret) => (
          <text
            key={fret}
            x={centre(fret)}
            y={strings * gap + 16}
            fontSize={size}
            fontWeight={560}
            textAnchor="middle"
            style={{ fill: inHand(fret) ? 'var(--soft)' : 'var(--dim)' }}
          >
            {fret}
          </text>
        ))}
      {tuning.map((midi, index) => (
        <g key={index}>
          <line
            x1={turn(open)}
            y1={y(index + 1)}
            x2={turn(width)}
            y2={y(index + 1)}
            stroke="var(--dim)"
            strokeWidth={1 + index * 0.16}
          />
          {names && (
            <text x={-left + 2} y={y(index + 1) + 4.5} fontSize={13} style={{ fill: 'var(--dim)' }}>
              {typeset(stringName(midi))}
            </text>
          )}
        </g>
      ))}
      {arrows.map(({ string, from: start, to: end }) => {
        const way = centre(end) > centre(start) ? 1 : -1;
        const tip = centre(end) - way * (size + 4);
        return (
          <g key={`${string} ${start} ${end}`}>
            <line
              x1={centre(start) + way * size * 1.2}
              y1={y(string)}
              x2={tip - way * 6}
              y2={y(string)}
              stroke="var(--now)"
              strokeWidth={2.5}
            />
            <path d={`M${tip} ${y(string)}l${-way * 9} -5v10z`} fill="var(--now)" />
          </g>
        );
      })}
      {marks.map((mark) => (
        <Mark
          key={`${mark.string} ${mark.fret}`}
          mark={mark}
          x={centre(mark.fret)}
          y={y(mark.string)}
          size={size}
          gap={gap}
        />
      ))}
    </svg>
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
