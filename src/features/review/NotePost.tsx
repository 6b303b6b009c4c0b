import type { CorrectedNote, Doubt } from '@/core/correct';

/** Seconds across, keys upwards, in drawing units. */
export type BarScales = {
  readonly x: (seconds: number) => number;
  readonly y: (midi: number) => number;
  readonly perHalfStep: number;
  readonly left: number;
  readonly right: number;
};
type Props = {
  note: CorrectedNote;
  isHeld: boolean;
  doubt: Doubt | undefined;
  scales: BarScales;
  label: string;
  onHold: () => void;
};

function colourOf(note: CorrectedNote, isHeld: boolean): string {
  if (isHeld) return 'var(--now)';
  if (note.ghost) return 'var(--dim)';
  return note.edited ? 'var(--ink)' : 'var(--h1)';
}

/** The pitch as it sounded over the ledge of its key: bent, or a little off. */
function soundedPath(
  note: CorrectedNote,
  { x, y, perHalfStep }: BarScales,
  from: number,
  to: number,
): string {
  const line = y(note.midi) - 7;
  if (!note.bend) return `M${from + 3} ${line - ((note.cents ?? 0) / 100) * perHalfStep}H${to - 3}`;
  return note.bend
    .map(([seconds, cents], index) => {
      const at = `${x(note.onsetSec + seconds).toFixed(1)} ${(line - (cents / 100) * perHalfStep).toFixed(1)}`;
      return `${index === 0 ? 'M' : 'L'}${at}`;
    })
    .join('');
}

/** A note: a post where it begins, a ledge at its pitch, and how it sounded over it. */
export function NotePost({ note, isHeld, doubt, scales, label, onHold }: Props) {
  const { x, y, left, right } = scales;
  const [from, to] = [Math.max(left, x(note.onsetSec)), Math.min(right, x(note.offsetSec))];
  const colour = colourOf(note, isHeld);
  const dash = note.ghost ? '2 3' : undefined;
  const line = y(note.midi);
  const other = isHeld ? doubt?.readings.find(({ midi }) => midi !== note.midi && midi !== null)?.midi : null;
  return (
    <g onClick={onHold} className="cursor-pointer">
      <rect x={from - 2} y={line - 26} width={Math.max(10, to - from + 4)} height={34} fill="transparent" />
      <line
        x1={from}
        y1={line + 1}
        x2={from}
        y2={line - 26}
        stroke={colour}
        strokeWidth={isHeld ? 3 : 1.75}
        strokeDasharray={dash}
      />
      <line x1={from} y1={line} x2={to} y2={line} stroke={colour} strokeWidth={3} strokeDasharray={dash} />
      <path
        d={soundedPath(note, scales, from, to)}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.75}
        opacity={note.ghost ? 0.4 : 1}
      />
      <text
        x={(from + to) / 2}
        y={line - 30}
        fontSize={13}
        fontWeight={620}
        textAnchor="middle"
        style={{ fill: isHeld ? 'var(--ink)' : 'var(--soft)' }}
      >
        {note.ghost ? `(${label})` : label}
      </text>
      {other != null && (
        <line
          x1={from}
          y1={y(other)}
          x2={to}
          y2={y(other)}
          stroke="var(--now)"
          strokeWidth={2}
          strokeDasharray="5 4"
        />
      )}
    </g>
  );
}
