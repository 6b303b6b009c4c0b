import type { Report } from '@/core/analyse';
import { barStart, formPositionOf, type Timeline } from '@/core/chart';
import type { CorrectedNote, NoteId } from '@/core/correct';
import { elementAt, type Beats } from '@/core/shared';
import { intervalLabel } from '@/ui/intervalLabel';
import type { NoteGesture } from '@/ui/form/takeOnForm';
import type { FormChange } from './formChanges';
import { intervalAt } from './noteNames';
import type { Selection } from './selection';
import { placeText } from './Transport';

export type Span = readonly [from: Beats, to: Beats];

/** A note of the report that another pitch would have put right. */
export type FixAsked = { readonly noteIndex: number; readonly toMidi: number };

const BARS_A_ROW = 4;

export const countIn = ({ kind }: Selection, report: Report): number =>
  ({
    note: report.notes.length,
    change: report.changes.length,
    figure: report.figures.length,
    phrase: report.phrases.length,
    chorus: report.summary.choruses,
  })[kind];

/** The bars a span lies in, with the bar before it to lead in. */
export function aroundBars([from, to]: Span, timeline: Timeline): Span {
  const chorus = formPositionOf(timeline, Math.max(0, from)).chorus;
  const starts = [
    ...timeline.bars.map(({ start }) => start + chorus * timeline.formBeats),
    (chorus + 1) * timeline.formBeats,
  ];
  const first = Math.max(
    0,
    starts.findLastIndex((start) => start <= from + 1e-6),
  );
  const end = starts.find((start) => start >= to - 1e-6) ?? (chorus + 1) * timeline.formBeats;
  const leadIn = from - elementAt(starts, first) < 1 ? 1 : 0;
  return [elementAt(starts, Math.max(0, first - leadIn)), Math.max(end, elementAt(starts, first) + 1)];
}

/** The row of the form a beat lies in, from 0. */
export const rowOf = (beat: Beats, timeline: Timeline): number =>
  Math.floor(formPositionOf(timeline, Math.max(0, beat)).bar / BARS_A_ROW);

/** The bars a finding is heard in: its first, and the next one where it goes on. */
export function barsRound(bars: readonly number[], timeline: Timeline): Span | null {
  const [first, second] = bars;
  if (first === undefined) return null;
  return [barStart(timeline, first), barStart(timeline, first + (second === first + 1 ? 2 : 1))];
}

/** The two bars a change of the form is looped in: the one it comes in, and the one before. */
export function barsOfFormChange({ bar, beatInBar }: FormChange): readonly [number, number] {
  return [Math.max(1, beatInBar > 0 ? bar : bar - 1), bar];
}

const changeAt = (selection: Selection, report: Report) => {
  if (selection.kind === 'change') return report.changes[selection.index];
  if (selection.kind !== 'note') return undefined;
  return report.changes.find(({ landing }) => landing.noteIndex === selection.index);
};

/** The smallest change that would have met the chord, where something is selected that missed it. */
export function fixOf(selection: Selection | null, report: Report): FixAsked | null {
  return (selection && changeAt(selection, report)?.fix) ?? null;
}

export function fixLabel(selection: Selection | null, report: Report): string {
  const change = selection ? changeAt(selection, report) : undefined;
  return change?.fix ? intervalLabel(intervalAt(change.to, change.fix.toMidi)) : '';
}

/** What a remark would belong to. */
export function remarkPlace(
  selection: Selection | null,
  span: Span | null,
  timeline: Timeline,
): { bar?: number; phraseBeat?: number; words: string } | null {
  if (!selection || !span) return null;
  const [beat] = span;
  if (selection.kind === 'phrase')
    return { phraseBeat: beat, words: `the phrase from ${placeText(timeline, beat).toLowerCase()}` };
  const { chorus, bar } = formPositionOf(timeline, Math.max(0, beat));
  return {
    bar: chorus * timeline.bars.length + bar + 1,
    words: placeText(timeline, Math.max(0, beat)).toLowerCase(),
  };
}

/** What the hand did to each note of the report, in beats and semitones. */
export function gesturesOf(
  places: readonly NoteId[],
  byId: ReadonlyMap<NoteId, CorrectedNote>,
  doubted: ReadonlySet<NoteId>,
  tempo: number,
): (index: number) => NoteGesture {
  const beats = (seconds: number) => (seconds * tempo) / 60;
  return (index) => {
    const note = byId.get(elementAt(places, index));
    if (!note) return {};
    const vibrato = (note as { vibrato?: { hz: number; cents: number } }).vibrato;
    return {
      ...(note.bend && { bend: note.bend.map(([seconds, cents]) => [beats(seconds), cents / 100] as const) }),
      ...(note.slide && { slideFrom: note.slide.fromMidi }),
      ...(vibrato && { vibrato: { perBeat: (vibrato.hz * 60) / tempo, semitones: vibrato.cents / 100 } }),
      ...(doubted.has(note.id) && { doubtful: true }),
    };
  };
}
