import { isDominant, rootPc, type Chord } from '../music';
import type { ChordReading } from './reading';
import type { ChordSpan } from './timeline';
import { defined, present } from '../shared';

/** Chords that belong together, over stretches `from` up to but not including `to`. */
export type Bracket = { readonly kind: 'ii-V' | 'turnaround'; readonly from: number; readonly to: number };

type Run = { readonly chord: Chord; readonly degree: string; readonly from: number; readonly to: number };

/** The walk as runs of one root and kind; N.C. ends a run. */
function runsOf(chordSpans: readonly ChordSpan[], readings: readonly (ChordReading | null)[]): Run[] {
  const runs: Run[] = [];
  chordSpans.forEach(({ chord }, index) => {
    const last = runs[runs.length - 1];
    if (!chord) return;
    const same =
      last &&
      last.to === index &&
      rootPc(last.chord) === rootPc(chord) &&
      last.chord.quality === chord.quality;
    if (same) runs[runs.length - 1] = { ...last, to: index + 1 };
    else runs.push({ chord, degree: present(readings[index]).degree, from: index, to: index + 1 });
  });
  return runs;
}

const prepares = (two: Run, five: Run): boolean =>
  ['minor', 'half-diminished'].includes(two.chord.quality) &&
  isDominant(five.chord) &&
  (rootPc(two.chord) + 5) % 12 === rootPc(five.chord) &&
  two.to === five.from;

/** ii–V: a minor or half-diminished chord and the dominant a fourth up, wherever they aim. */
function twoFives(runs: readonly Run[]): Bracket[] {
  return runs.flatMap((run, place) => {
    const next = runs[place + 1];
    return next && prepares(run, next) ? [{ kind: 'ii-V' as const, from: run.from, to: next.to }] : [];
  });
}

const OPENS = ['I', 'i', 'iii', 'bIII'];
const LEADS_HOME = ['V', 'subV'];

/**
 * Turnarounds: three chords or more in the last two bars before a section or the form comes round to its
 * tonic, from I (or iii) to V (or its
 * substitute). Common practice, no source.
 */
function turnarounds(
  chordSpans: readonly ChordSpan[],
  readings: readonly (ChordReading | null)[],
  ends: readonly number[],
): Bracket[] {
  return ends.flatMap((end) => {
    const lastBar = defined(chordSpans[end - 1]).bar;
    const from = chordSpans.findIndex(({ bar }) => bar === lastBar - 1);
    const inside = readings.slice(from, end);
    const next = readings[end % readings.length];
    if (from < 0 || inside.length < 3 || inside.some((reading) => reading === null)) return [];
    const home = next && ['I', 'i'].includes(next.degree);
    return home &&
      OPENS.includes(present(inside[0]).degree) &&
      LEADS_HOME.includes(present(inside[inside.length - 1]).degree)
      ? [{ kind: 'turnaround' as const, from, to: end }]
      : [];
  });
}

/**
 * Brackets over the form.
 * @param sections the section of each stretch: a turnaround may end each
 */
export function bracketsOf(
  chordSpans: readonly ChordSpan[],
  readings: readonly (ChordReading | null)[],
  sections: readonly (string | null)[],
): Bracket[] {
  const ends = chordSpans.flatMap(({ bar }, index) => {
    const next = chordSpans[index + 1];
    return !next || (next.bar !== bar && sections[index] !== sections[index + 1]) ? [index + 1] : [];
  });
  return [...twoFives(runsOf(chordSpans, readings)), ...turnarounds(chordSpans, readings, ends)];
}
