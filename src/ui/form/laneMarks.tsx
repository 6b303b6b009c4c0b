import type { PhraseEnd } from '@/core/analyse';
import { LandingLine } from './LandingLine';
import type { Placed } from './laneNotes';
import type { TakeOnForm } from './takeOnForm';
import { elementAt, type Beats } from '@/core/shared';

type Span = { take: TakeOnForm; from: Beats; to: Beats; x: (beat: Beats) => number; height: number };

/** A small bracket from a figure's first note to an arrow on its target. */
export function Brackets({ take, placed }: { take: TakeOnForm; placed: readonly Placed[] }) {
  const byIndex = new Map<number, Placed[]>();
  for (const one of placed) byIndex.set(one.note.index, [...(byIndex.get(one.note.index) ?? []), one]);
  const first = placed[0]?.note.index ?? 0;
  const last = placed[placed.length - 1]?.note.index ?? -1;
  return take.figures
    .filter((figure) => figure.to >= first && figure.from <= last)
    .map((figure) => {
      const members: Placed[] = [];
      for (let index = figure.from; index <= figure.to; index++)
        members.push(...(byIndex.get(index) ?? []).filter(({ lead }) => !lead || index === figure.from));
      const [start, target] = [
        members.find(({ note }) => note.index === figure.from),
        members.find(({ note, lead }) => note.index === figure.to && !lead),
      ];
      if (!start || !target) return null;
      const tops = members.map((one) => one.y - one.height / 2);
      const top = Math.min(...tops, target.y - target.height / 2 - 6) - 4;
      const [a, b, low] = [
        start.x + 7,
        target.x + Math.min(12, target.width / 2),
        target.y - target.height / 2,
      ];
      return (
        <g key={`${figure.from}-${figure.to}`} pointerEvents="none">
          <path
            d={`M${a} ${top + 3}V${top}H${b}V${low - 2}`}
            fill="none"
            stroke="var(--soft)"
            strokeWidth={1.25}
          />
          <path d={`M${b - 3} ${low - 5}h6l-3 4z`} fill="var(--soft)" />
        </g>
      );
    });
}

/** A step out of the scale: a dotted roof over its notes, and the way home from its end. */
export function StepOuts({ take, placed }: { take: TakeOnForm; placed: readonly Placed[] }) {
  return take.stepOuts.map(({ from, to, home }) => {
    const inside = placed.filter(({ note, lead }) => note.index >= from && note.index <= to && !lead);
    if (inside.length === 0) return null;
    const last = elementAt(inside, inside.length - 1);
    const top = Math.min(...inside.map((one) => one.y - one.height / 2)) - 6;
    const target = home === null ? undefined : placed.find(({ note, lead }) => note.index === home && !lead);
    const [a, b] = [elementAt(inside, 0).x + 2, last.x + last.width - 2];
    return (
      <g key={from} pointerEvents="none" stroke="var(--h3)" fill="none" strokeWidth={1.75}>
        <path d={`M${a} ${top + 4}V${top}H${b}`} strokeDasharray="1.5 3" strokeLinecap="round" />
        {target && (
          <path
            d={`M${b} ${top}Q${target.x + 6} ${top} ${target.x + 6} ${target.y - target.height / 2 - 3}`}
          />
        )}
        {target && (
          <path
            d={`M${target.x + 3} ${target.y - target.height / 2 - 6}h6l-3 5z`}
            fill="var(--h3)"
            stroke="none"
          />
        )}
      </g>
    );
  });
}

export function Phrases({ take, from, to, x, height }: Span) {
  const y = height - 4;
  return take.phrases
    .filter((phrase) => phrase.to > from + 1 && phrase.from < to)
    .map((phrase) => {
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
  if (end === 'floats')
    return <circle cx={x} cy={y} r={2.5} fill="var(--row)" stroke="var(--soft)" strokeWidth={1.25} />;
  return <line x1={x - 2} y1={y} x2={x + 3} y2={y - 6} stroke="var(--soft)" strokeWidth={1.5} />;
}

/**
 * Lines lie under the notes, so that a note pushed ahead of its change keeps its figure; words lie over them.
 */
export function ChangeMarks({
  take,
  chorus,
  from,
  to,
  x,
  height,
  what,
}: Span & { chorus: number; what: 'lines' | 'words' }) {
  return take.changes
    .filter((change) => change.chorus === chorus && change.at >= from + 1 - 1e-6 && change.at < to - 1e-6)
    .map((change) => {
      if (what === 'lines')
        return (
          <LandingLine key={change.index} x={x(change.at)} from={1} to={height - 2} mark={change.mark} />
        );
      const early = change.timing === 'early';
      return (
        change.word && (
          <text
            key={change.index}
            pointerEvents="none"
            x={x(change.at) + (early ? -5 : 5)}
            y={10}
            fontSize={11}
            textAnchor={early ? 'end' : 'start'}
            paintOrder="stroke"
            stroke="var(--row)"
            strokeWidth={3}
            style={{ fill: 'var(--soft)' }}
          >
            {change.word}
          </text>
        )
      );
    });
}
