import type { Report } from '@/core/analyse';
import type { Timeline } from '@/core/chart';
import { elementAt, present, type Beats } from '@/core/shared';

/** What is looked at: an index into the report's notes, changes, figures or phrases, or a chorus from 0. */
export type SelectionKind = 'note' | 'change' | 'figure' | 'phrase' | 'chorus';
export type Selection = { readonly kind: SelectionKind; readonly index: number };

const KINDS: readonly SelectionKind[] = ['note', 'change', 'figure', 'phrase', 'chorus'];

/** The part of an address that says it, counted from 1 as people count. */
export const addressOf = ({ kind, index }: Selection): string => `${kind}-${index + 1}`;

export function selectionFrom(text: string | null, report: Report): Selection | null {
  const found = /^([a-z]+)-(\d{1,6})$/.exec(text ?? '');
  const kind = KINDS.find((one) => one === found?.[1]);
  const index = Number(found?.[2]) - 1;
  return kind && index >= 0 && index < countOf(kind, report) ? { kind, index } : null;
}

const countOf = (kind: SelectionKind, report: Report): number =>
  ({
    note: report.notes.length,
    change: report.changes.length,
    figure: report.figures.length,
    phrase: report.phrases.length,
    chorus: report.summary.choruses,
  })[kind];

/** The beats a selection lies in. */
export function spanOf(
  { kind, index }: Selection,
  report: Report,
  timeline: Timeline,
): readonly [Beats, Beats] {
  const noteSpan = (at: number): readonly [Beats, Beats] => [
    elementAt(report.notes, at).onsetBeat,
    elementAt(report.notes, at).onsetBeat + elementAt(report.notes, at).durationBeats,
  ];
  switch (kind) {
    case 'note':
      return noteSpan(index);
    case 'change': {
      const { beat } = elementAt(report.changes, index);
      return [
        beat,
        Math.min(
          report.changes[index + 1]?.beat ?? Infinity,
          beat + 4,
          report.summary.choruses * timeline.formBeats,
        ),
      ];
    }
    case 'figure':
      return [
        noteSpan(present(elementAt(report.figures, index).noteIndices[0]))[0],
        noteSpan(elementAt(report.figures, index).targetIndex)[1],
      ];
    case 'phrase':
      return [elementAt(report.phrases, index).startBeat, elementAt(report.phrases, index).endBeat];
    case 'chorus':
      return [index * timeline.formBeats, (index + 1) * timeline.formBeats];
  }
}

/** The note that stands for a selection: its card is shown, and correcting begins with it. */
export function noteOf({ kind, index }: Selection, report: Report): number | null {
  switch (kind) {
    case 'note':
      return index;
    case 'change':
      return elementAt(report.changes, index).landing.noteIndex;
    case 'figure':
      return elementAt(report.figures, index).targetIndex;
    case 'phrase':
      return elementAt(report.phrases, index).noteIndices[0] ?? null;
    case 'chorus':
      return null;
  }
}

const EPSILON = 1e-6;

/**
 * The next or previous thing of a kind from where the selection lies; the first or last where nothing is
 * selected. It stays where it is at
 * either end.
 */
export function stepped(
  now: Selection | null,
  kind: SelectionKind,
  by: 1 | -1,
  report: Report,
  timeline: Timeline,
): Selection | null {
  const count = kind === 'note' ? report.notes.length : countOf(kind, report);
  if (count === 0) return now;
  if (now?.kind === kind && kind !== 'figure')
    return { kind, index: walk(now.index, by, kind, report, count) };
  const inOrder = Array.from({ length: count }, (_, index) => ({
    index,
    start: spanOf({ kind, index }, report, timeline)[0],
  })).sort((a, b) => a.start - b.start || a.index - b.index);
  if (!now) return { kind, index: elementAt(inOrder, by > 0 ? 0 : count - 1).index };
  const [from] = spanOf(now, report, timeline);
  if (now.kind === kind) {
    const place = inOrder.findIndex(({ index }) => index === now.index);
    return { kind, index: elementAt(inOrder, Math.max(0, Math.min(count - 1, place + by))).index };
  }
  const ahead =
    by > 0
      ? inOrder.find(({ start }) => start > from - EPSILON)
      : inOrder.findLast(({ start }) => start < from + EPSILON);
  return { kind, index: (ahead ?? elementAt(inOrder, by > 0 ? count - 1 : 0)).index };
}

/** Graces are passed over: they have no place of their own on the form. */
function walk(index: number, by: 1 | -1, kind: SelectionKind, report: Report, count: number): number {
  for (let next = index + by; next >= 0 && next < count; next += by)
    if (kind !== 'note' || elementAt(report.notes, next).function !== 'grace') return next;
  return index;
}

/** The same place a chorus later or earlier: the note nearest to it. */
export function acrossChoruses(
  now: Selection | null,
  by: 1 | -1,
  report: Report,
  timeline: Timeline,
): Selection | null {
  if (!now) return { kind: 'chorus', index: by > 0 ? 0 : report.summary.choruses - 1 };
  if (now.kind === 'chorus')
    return { kind: 'chorus', index: Math.max(0, Math.min(report.summary.choruses - 1, now.index + by)) };
  const [from] = spanOf(now, report, timeline);
  const wanted = from + by * timeline.formBeats;
  if (wanted < -timeline.formBeats / 2 || wanted > report.summary.choruses * timeline.formBeats) return now;
  const kind = now.kind === 'change' ? 'change' : 'note';
  const starts =
    kind === 'change'
      ? report.changes.map(({ beat }) => beat)
      : report.notes.map(({ onsetBeat, function: deed }) => (deed === 'grace' ? Infinity : onsetBeat));
  if (starts.length === 0) return now;
  return {
    kind,
    index: starts.reduce(
      (best, start, index) =>
        Math.abs(start - wanted) < Math.abs(elementAt(starts, best) - wanted) ? index : best,
      0,
    ),
  };
}
