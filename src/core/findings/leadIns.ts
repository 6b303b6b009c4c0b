import type { NoteReport, Report } from '../analyse';
import type { IntervalName } from '../music';
import { elementAt } from '../shared';

/** How one tone of a chord was led into, anywhere in the bar: from which note of the chord, or by what gesture. */
export type LeadInto = {
  readonly chord: string;
  readonly into: IntervalName;
  /** The interval of the note before it over the same chord, or how the note itself arrived. */
  readonly from: IntervalName | 'slide' | 'bend' | 'grace';
  readonly side: 'below' | 'above';
  readonly count: number;
};

/** Chord tones that are led into, by chord, tone and source, the most frequent first; inside the bar as at changes. */
export function leadsInto(report: Report): LeadInto[] {
  const found = new Map<string, LeadInto>();
  const add = (target: NoteReport, from: LeadInto['from'], side: LeadInto['side']) => {
    if (target.chord === null || target.interval === null || target.tier !== 'chord') return;
    const key = `${target.chord} ${target.interval} ${from} ${side}`;
    const known = found.get(key) ?? { chord: target.chord, into: target.interval, from, side, count: 0 };
    found.set(key, { ...known, count: known.count + 1 });
  };
  for (const { kind, noteIndices, targetIndex } of report.figures) {
    const target = elementAt(report.notes, targetIndex);
    const last = elementAt(report.notes, elementAt(noteIndices, noteIndices.length - 1));
    const side = last.midi < target.midi ? 'below' : 'above';
    if (last.index === target.index) add(target, target.flags.includes('bend') ? 'bend' : 'slide', 'below');
    else if (last.function === 'grace') add(target, 'grace', side);
    else if (kind !== 'suspension' && kind !== 'retardation' && last.chord === target.chord && last.interval)
      add(target, last.interval, side);
  }
  return [...found.values()].sort((a, b) => b.count - a.count);
}
