import { noteName } from '@/core/music';
import { typeset } from '@/core/music';
import { elementAt } from '@/core/shared';
import { Pill } from '@/ui/form/Pill';
import type { StudyRowModel } from './studyRows';
import type { Study, StudyCell } from './studyView';

type ThreadProps = {
  cell: StudyCell;
  study: Study;
  row: StudyRowModel;
  x: (beat: number) => number;
  at: (midi: number) => number;
  width: number;
};

/** Each voice runs level, then bends to where it goes: amber for a half step, dotted over a skip. */
export function Threads({ cell, study, row, x, at, width }: ThreadProps) {
  const stop = study.thread[cell.index];
  if (!stop) return null;
  const next = row.cells.find((one) => one.index === cell.index + 1);
  const from = x(cell.start) + 22;
  const to = next ? x(next.start) + 22 : width;
  return stop.map(({ midi, toNext }, voice) => {
    const half = toNext !== null && Math.abs(toNext) === 1;
    const move = toNext ?? 0;
    const bend = move === 0 ? 0 : Math.min(72, (to - from) * 0.6) * (next ? 1 : 0.5);
    const [y, goal] = [at(midi), at(midi + move * (next ? 1 : 0.5))];
    return (
      <g key={voice}>
        <line x1={from} y1={y} x2={to - bend} y2={y} stroke="var(--h3)" strokeWidth={1.5} />
        {bend > 0 && (
          <line
            x1={to - bend}
            y1={y}
            x2={next ? to - 8 : to}
            y2={goal}
            stroke={half ? 'var(--now)' : 'var(--h3)'}
            strokeWidth={half ? 3 : 1.5}
            strokeDasharray={Math.abs(move) > 2 ? '2 3' : undefined}
          />
        )}
      </g>
    );
  });
}

type NamesProps = { cell: StudyCell; study: Study; x: number; at: (midi: number) => number };

/** The thirds and sevenths of a chord by their names. */
export function ThreadNames({ cell, study, x, at }: NamesProps) {
  const stop = study.thread[cell.index];
  if (!stop) return null;
  const home = elementAt(study.plan.homeScales, cell.index);
  return stop.map(({ midi, tone }, voice) => (
    <Pill
      key={voice}
      x={x + 8}
      y={at(midi)}
      width={28}
      height={17}
      tier={home.pcs.includes(tone.pc) ? 2 : 0}
      label={typeset(noteName(tone.note))}
      size={12.5}
    />
  ));
}
