import type { ReactNode } from 'react';
import type { Beats } from '@/core/vocabulary';
import type { PhraseEnd } from '@/core/analyse';
import { GateLine } from './Gate';
import { LANE, type FormRowProps, type RowGeometry } from './geometry';
import { Pill } from './Pill';
import type { DrawnNote, DrawnPart, TakeOnForm } from './takeOnForm';

const GROUND = LANE - 16;
const STEP = 5;

type LaneProps = FormRowProps & { chorus: number; geometry: RowGeometry };
type Placed = { note: DrawnNote; part: DrawnPart; x: number; width: number; y: number; height: number; lead: boolean };

/** One chorus of a row: the ground line, notes by height, figures, phrases and gates. */
export function FormLane(props: LaneProps) {
  const { row, chorus, formBeats, take, geometry, cursor, onBeat } = props;
  const offset = chorus * formBeats;
  const from = row.start + offset - 1;
  const to = row.end + offset;
  const x = (beat: Beats) => geometry.x(beat - offset);
  const placed = take ? placeNotes(take, from, to, x) : [];
  return (
    <>
      <line x1={geometry.left} y1={GROUND} x2={geometry.right} y2={GROUND} stroke="var(--line)" />
      {onBeat && (
        <rect x={geometry.left} y={1} width={geometry.right - geometry.left} height={LANE - 3} fill="transparent" className="cursor-pointer"
          onClick={(event) => onBeat(beatUnder(event, geometry, row.start + offset))} />
      )}
      {take && gates(take, chorus, from, to, x, 'lines')}
      <path d={contour(placed)} stroke="var(--h4)" strokeWidth={1.5} fill="none" pointerEvents="none" />
      {placed.map((one) => <NoteMark key={`${one.note.index}-${one.part.from}`} one={one} {...props} />)}
      {take && brackets(take, placed)}
      {take && phrases(take, from, to, x)}
      {take && gates(take, chorus, from, to, x, 'words')}
      {cursor !== undefined && cursor !== null && cursor >= from + 1 && cursor < to && <line x1={x(cursor)} y1={-1} x2={x(cursor)} y2={LANE - 1} stroke="var(--now)" strokeWidth={3} pointerEvents="none" />}
    </>
  );
}

function beatUnder(event: React.MouseEvent<SVGRectElement>, { left, beatWidth }: RowGeometry, start: Beats): Beats {
  const matrix = event.currentTarget.getScreenCTM();
  const inside = matrix ? (event.clientX - matrix.e) / matrix.a : left;
  return start + (inside - left) / beatWidth;
}

function placeNotes(take: TakeOnForm, from: Beats, to: Beats, x: (beat: Beats) => number): Placed[] {
  const placed: Placed[] = [];
  for (const note of take.notes) {
    if (note.end <= from || note.onset >= to) continue;
    const lead = note.onset < from + 1 && note.end <= from + 1 + 1e-6;
    for (const part of note.parts) {
      const [a, b] = [Math.max(part.from, from), Math.min(part.to, to)];
      if (b <= a || (part.from < from - 1e-6 && b <= from + 1 && b - a < 0.35)) continue; // a sliver in the lead-in says nothing
      const left = x(a) + (part.held ? -1 : 1.5);
      placed.push({ note, part, lead, x: left, width: Math.max(11, x(b) - x(a) - (part.held ? 0.5 : 3)), y: GROUND - part.height * STEP, height: note.landing && !lead ? 20 : 14 });
    }
  }
  return placed;
}

/** Joins notes less than half a beat apart: the walker's path. */
function contour(placed: readonly Placed[]): string {
  return placed.slice(1).map((one, index) => {
    const before = placed[index]!;
    return one.part.from - before.part.to <= 0.51 ? `M${before.x + before.width} ${before.y}L${one.x} ${one.y}` : '';
  }).join('');
}

function NoteMark({ one, selected, onNote }: { one: Placed } & Pick<FormRowProps, 'selected' | 'onNote'>) {
  const { note, part, x, y, width, height, lead } = one;
  return (
    <g opacity={lead ? 0.4 : 1} onClick={onNote && !lead ? () => onNote(note.index) : undefined} className={onNote && !lead ? 'cursor-pointer' : undefined}>
      <Pill x={x} y={y} width={width} height={height} tier={part.height} label={part.label} size={height === 20 ? 13 : 11} />
      {selected === note.index && !lead && <rect x={x - 2.5} y={y - height / 2 - 2.5} width={width + 5} height={height + 5} rx={height / 2 + 2.5} fill="none" stroke="var(--now)" strokeWidth={2.5} />}
    </g>
  );
}

/** A small bracket from a figure's first note to an arrow on its target. */
function brackets(take: TakeOnForm, placed: readonly Placed[]): ReactNode {
  return take.figures.map((figure) => {
    const members = placed.filter(({ note, lead }) => note.index >= figure.from && note.index <= figure.to && (!lead || note.index === figure.from));
    const [first, target] = [members.find(({ note }) => note.index === figure.from), members.find(({ note, lead }) => note.index === figure.to && !lead)];
    if (!first || !target) return null;
    const tops = members.map((one) => one.y - one.height / 2);
    const top = Math.min(...tops, target.y - target.height / 2 - 6) - 4;
    const [a, b, low] = [first.x + 7, target.x + Math.min(12, target.width / 2), target.y - target.height / 2];
    return (
      <g key={`${figure.from}-${figure.to}`} pointerEvents="none">
        <path d={`M${a} ${top + 3}V${top}H${b}V${low - 2}`} fill="none" stroke="var(--soft)" strokeWidth={1.25} />
        <path d={`M${b - 3} ${low - 5}h6l-3 4z`} fill="var(--soft)" />
      </g>
    );
  });
}

function phrases(take: TakeOnForm, from: Beats, to: Beats, x: (beat: Beats) => number): ReactNode {
  const y = LANE - 4;
  return take.phrases.filter((phrase) => phrase.to > from + 1 && phrase.from < to).map((phrase) => {
    const [a, b] = [Math.max(phrase.from, from), Math.min(phrase.to, to)];
    return (
      <g key={phrase.from} stroke="var(--dim)" strokeWidth={1.5} pointerEvents="none">
        <line x1={x(a) + 2} y1={y} x2={x(b) - 3} y2={y} />
        {phrase.from >= from && <line x1={x(a) + 2} y1={y - 3} x2={x(a) + 2} y2={y} />}
        {phrase.to <= to && <PhraseEndMark x={x(b) - 4} y={y} end={phrase.end} />}
      </g>
    );
  });
}

/** How a phrase ends: home a disc, floats a ring, asks a rising tick. */
export function PhraseEndMark({ x, y, end }: { x: number; y: number; end: PhraseEnd }) {
  if (end === 'home') return <circle cx={x} cy={y} r={2.75} fill="var(--soft)" stroke="none" />;
  if (end === 'floats') return <circle cx={x} cy={y} r={2.5} fill="var(--row)" stroke="var(--soft)" strokeWidth={1.25} />;
  return <line x1={x - 2} y1={y} x2={x + 3} y2={y - 6} stroke="var(--soft)" strokeWidth={1.5} />;
}

/** Lines lie under the notes, so that a note pushed ahead of its change keeps its figure; words lie over them. */
function gates(take: TakeOnForm, chorus: number, from: Beats, to: Beats, x: (beat: Beats) => number, what: 'lines' | 'words'): ReactNode {
  return take.gates.filter((gate) => gate.chorus === chorus && gate.at >= from + 1 - 1e-6 && gate.at < to - 1e-6).map((gate) => {
    if (what === 'lines') return <GateLine key={gate.index} x={x(gate.at)} from={1} to={LANE - 2} mark={gate.mark} />;
    const early = gate.timing === 'early';
    return gate.word && (
      <text key={gate.index} pointerEvents="none" x={x(gate.at) + (early ? -5 : 5)} y={10} fontSize={11} textAnchor={early ? 'end' : 'start'} paintOrder="stroke" stroke="var(--row)" strokeWidth={3} style={{ fill: 'var(--soft)' }}>{gate.word}</text>
    );
  });
}
