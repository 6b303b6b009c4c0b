import type { Timeline } from '@/core/chart';
import type { Beats } from '@/core/vocabulary';
import { FormRow } from '@/ui/form/FormRow';
import { HEAD, LANE } from '@/ui/form/geometry';
import { formRows } from '@/ui/form/formRows';
import type { TakeOnForm } from '@/ui/form/takeOnForm';

const WIDTH = 872;
const GAP = 8;

type Props = {
  timeline: Timeline; choruses: number; take: TakeOnForm; cursor: Beats | null; selected: number | null;
  onNote: (index: number) => void; onBeat: (beat: Beats) => void;
};

/** The form, walked: one row per four bars, all choruses of it close below one another. */
export function FormPicture({ timeline, choruses, take, cursor, selected, onNote, onBeat }: Props) {
  const rows = formRows(timeline);
  const pitch = HEAD + choruses * LANE + GAP;
  return (
    <div className="overflow-x-auto">
      <svg viewBox={`0 0 ${WIDTH} ${rows.length * pitch}`} className="w-full min-w-[720px]" role="img" aria-label="The take on the form; the landings table says the same in words">
        {rows.map((row) => (
          <g key={row.index} transform={`translate(0 ${row.index * pitch})`}>
            <FormRow row={row} width={WIDTH} formBeats={timeline.formBeats} choruses={Array.from({ length: choruses }, (_, chorus) => chorus)} take={take}
              cursor={cursor} selected={selected} onNote={onNote} onBeat={onBeat} />
          </g>
        ))}
      </svg>
    </div>
  );
}
