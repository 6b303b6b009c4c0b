import { isChange } from '@/core/music';
import type { ChordSpan, Timeline } from '@/core/chart';
import { elementAt, type Beats } from '@/core/shared';

/** A chord on a row: beats from the start of the form. `changes` is false where it only goes on. */
export type RowChord = {
  readonly symbol: string;
  readonly start: Beats;
  readonly end: Beats;
  readonly changes: boolean;
  /** Its chord tones, for the ledges of the pitch view; `guide` marks third and seventh. */ readonly tones: readonly {
    readonly pc: number;
    readonly guide: boolean;
  }[];
};
export type RowBar = { readonly number: number; readonly start: Beats; readonly end: Beats };
/** Four bars of the form. */
export type FormRowModel = {
  readonly index: number;
  readonly start: Beats;
  readonly end: Beats;
  readonly bars: readonly RowBar[];
  readonly chords: readonly RowChord[];
};

export const BARS_A_ROW = 4;

/** The form as a lead sheet lays it out: one row per four bars. */
export function formRows(timeline: Timeline): FormRowModel[] {
  const rows: FormRowModel[] = [];
  for (let first = 0; first < timeline.bars.length; first += BARS_A_ROW) {
    const spans = timeline.bars.slice(first, first + BARS_A_ROW);
    const start = elementAt(spans, 0).start;
    const end = elementAt(spans, spans.length - 1).end;
    rows.push({
      index: rows.length,
      start,
      end,
      bars: spans.map((bar) => ({ number: bar.index + 1, start: bar.start, end: bar.end })),
      chords: timeline.chordSpans
        .filter((stretch) => stretch.start >= start - 1e-9 && stretch.start < end - 1e-9)
        .map((stretch) => rowChord(timeline, stretch)),
    });
  }
  return rows;
}

function rowChord({ chordSpans: stretches }: Timeline, stretch: ChordSpan): RowChord {
  const before = elementAt(stretches, (stretch.index - 1 + stretches.length) % stretches.length);
  const changes =
    before.chord && stretch.chord
      ? isChange(before.chord, stretch.chord) || before.chord.symbol !== stretch.chord.symbol
      : before.chord !== stretch.chord;
  return {
    symbol: stretch.chord?.symbol ?? 'N.C.',
    start: stretch.start,
    end: stretch.end,
    changes: changes || stretches.length === 1,
    tones:
      stretch.chord?.tones.map(({ pc, role }) => ({ pc, guide: role === 'third' || role === 'seventh' })) ??
      [],
  };
}
