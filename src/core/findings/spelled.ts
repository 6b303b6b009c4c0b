import type { Report } from '../analyse';
import { formPositionOf, type Timeline } from '../chart';
import type { IntervalName } from '../music';
import { elementAt } from '../shared';

/** One arpeggio that was spelled over a chord: by name, on which degree of the chord, how often and in which bars. */
export type SpelledShape = {
  readonly name: string;
  readonly relation: IntervalName | null;
  readonly count: number;
  /** Bars of the form, from 1. */
  readonly bars: readonly number[];
};

/** What was spelled over one chord; on a vamp over one bar of it. */
export type SpelledOver = {
  readonly chord: string;
  /** Where the form has one chord only: the bar, from 1. */
  readonly bar: number | null;
  readonly shapes: readonly SpelledShape[];
};

/** The arpeggios of a take by the chord they were played over, in the order of the form; bar by bar on a vamp (T7.14). */
export function spelledOver(report: Report, timeline: Timeline): SpelledOver[] {
  const symbols = new Set(timeline.chordSpans.flatMap(({ chord }) => chord?.symbol ?? []));
  const isVamp = symbols.size === 1;
  const groups = new Map<string, { chord: string; bar: number; shapes: Map<string, SpelledShape> }>();
  for (const { kind, noteIndices, name, relation = null } of report.shapes) {
    const first = elementAt(report.notes, elementAt(noteIndices, 0));
    if (kind !== 'arpeggio' || first.chord === null) continue;
    const bar = formPositionOf(timeline, Math.max(0, first.onsetBeat) + 1e-6).bar + 1;
    const key = isVamp ? `${first.chord} ${bar}` : first.chord;
    const group = groups.get(key) ?? { chord: first.chord, bar, shapes: new Map<string, SpelledShape>() };
    const id = `${name} ${relation}`;
    const known = group.shapes.get(id) ?? { name, relation, count: 0, bars: [] };
    const bars = [...new Set([...known.bars, bar])].sort((a, b) => a - b);
    group.shapes.set(id, { ...known, count: known.count + 1, bars });
    groups.set(key, group);
  }
  return [...groups.values()]
    .sort((a, b) => a.bar - b.bar)
    .map(({ chord, bar, shapes }) => ({
      chord,
      bar: isVamp ? bar : null,
      shapes: [...shapes.values()].sort((a, b) => b.count - a.count),
    }));
}
