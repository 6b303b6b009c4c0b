import type { FormRowProps } from './geometry';
import { type Placed, type Slope } from './laneNotes';
import { Pill } from './Pill';
export function NoteMark({
  one,
  selected,
  onNote,
  slope,
  beatWidth,
}: { one: Placed; slope: Slope; beatWidth: number } & Pick<FormRowProps, 'selected' | 'onNote'>) {
  const { note, part, x, y, width, height, lead } = one;
  return (
    <g
      opacity={lead ? 0.4 : 1}
      onClick={onNote && !lead ? () => onNote(note.index) : undefined}
      className={onNote && !lead ? 'cursor-pointer' : undefined}
    >
      {one.ring !== null && one.ring > x + width && (
        <line
          x1={x + width}
          y1={y}
          x2={one.ring}
          y2={y}
          stroke={`var(--h${Math.min(3, part.height)})`}
          strokeWidth={2}
          strokeLinecap="round"
        />
      )}
      {!part.held && <Hand one={one} slope={slope} beatWidth={beatWidth} under />}
      <Pill
        x={x}
        y={y}
        width={width}
        height={height}
        tier={part.height}
        label={part.label}
        size={height >= 20 ? 13 : 11}
      />
      {!part.held && <Hand one={one} slope={slope} beatWidth={beatWidth} />}
      {note.doubtful && !lead && (
        <text
          x={x + width + 1}
          y={y - height / 2 + 3}
          fontSize={11}
          fontWeight={640}
          style={{ fill: 'var(--soft)' }}
        >
          ?
        </text>
      )}
      {selected === note.index && !lead && (
        <rect
          x={x - 2.5}
          y={y - height / 2 - 2.5}
          width={width + 5}
          height={height + 5}
          rx={height / 2 + 2.5}
          fill="none"
          stroke="var(--now)"
          strokeWidth={2.5}
        />
      )}
    </g>
  );
}

/**
 * What the hand did, drawn as it sounded: the way of a slide into the note and of a bend, and the waves of a
 * vibrato.
 */
export function Hand({
  one,
  slope,
  beatWidth,
  under = false,
}: {
  one: Placed;
  slope: Slope;
  beatWidth: number;
  under?: boolean;
}) {
  const { note, x, y, width, height, byPitch } = one;
  const rise = (semitones: number) => -semitones * (byPitch ? slope.perSemitone : 2.2);
  if (under) {
    const slide =
      note.slideFrom === undefined ? null : (
        <path
          d={`M${x - 7} ${y + Math.max(-16, Math.min(16, rise(note.slideFrom - note.midi)))}L${x + 2} ${y}`}
          stroke="var(--soft)"
          strokeWidth={2}
          strokeLinecap="round"
        />
      );
    return slide;
  }
  const top = y - height / 2;
  const bend =
    note.bend && note.bend.length > 1
      ? note.bend
          .map(
            ([beats, semitones], index) =>
              `${index === 0 ? 'M' : 'L'}${(x + Math.min(width, beats * beatWidth)).toFixed(1)} ${(byPitch ? y + rise(semitones) : top - 2 + rise(semitones) / 2).toFixed(1)}`,
          )
          .join('')
      : null;
  return (
    <>
      {bend && byPitch && (
        <path
          d={bend}
          fill="none"
          stroke="var(--row)"
          strokeWidth={6}
          strokeLinejoin="round"
          strokeLinecap="round"
          pointerEvents="none"
        />
      )}
      {bend && (
        <path
          d={bend}
          fill="none"
          stroke={byPitch ? 'var(--ink)' : 'var(--soft)'}
          strokeWidth={byPitch ? 2.5 : 1.75}
          strokeLinejoin="round"
          strokeLinecap="round"
          paintOrder="stroke"
          pointerEvents="none"
        />
      )}
      {note.vibrato && (
        <path
          d={wave(
            x + 4,
            top - 3,
            Math.max(8, width - 8),
            Math.max(3, width / Math.max(2, (width / beatWidth) * note.vibrato.perBeat)),
            Math.max(1.5, Math.min(5, note.vibrato.semitones * 4)),
          )}
          fill="none"
          stroke="var(--soft)"
          strokeWidth={1.5}
          pointerEvents="none"
        />
      )}
    </>
  );
}

export function wave(x: number, y: number, length: number, period: number, swing: number): string {
  let d = `M${x.toFixed(1)} ${y.toFixed(1)}`;
  for (let at = 0, up = true; at + period / 2 <= length; at += period / 2, up = !up)
    d += `q${(period / 4).toFixed(1)} ${up ? -swing : swing} ${(period / 2).toFixed(1)} 0`;
  return d;
}
