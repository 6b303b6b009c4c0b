import { elementAt } from '@/core/shared';
import type { Study, StudyCell } from './studyView';

/** Height of a row and width of a bar, in drawing units. */
export const ROW = 137;
export const BAR = 220;

/** A row of the form: its bars, and the chords in them. */
export type StudyRowModel = {
  readonly first: number;
  readonly start: number;
  readonly end: number;
  readonly bars: Study['timeline']['bars'];
  readonly cells: readonly StudyCell[];
};

/** The form cut into rows of so many bars; a section begins a row of its own. */
export function rowsOf(study: Study, barsARow: number): StudyRowModel[] {
  const rows: StudyRowModel[] = [];
  const { bars } = study.timeline;
  let first = 0;
  while (first < bars.length) {
    let last = first + 1;
    while (
      last < bars.length &&
      last < first + barsARow &&
      elementAt(bars, last).section === elementAt(bars, first).section
    )
      last++;
    const spans = bars.slice(first, last);
    rows.push({
      first,
      start: elementAt(spans, 0).start,
      end: elementAt(spans, spans.length - 1).end,
      bars: spans,
      cells: study.cells.filter((cell) => cell.bar > first && cell.bar <= last),
    });
    first = last;
  }
  return rows;
}

/** Does a section begin with this bar, from 0? */
export const beginsSection = (study: Study, bar: number): boolean =>
  bar === 0 ||
  elementAt(study.timeline.bars, bar - 1).section !== elementAt(study.timeline.bars, bar).section;
