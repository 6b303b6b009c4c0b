import type { Report } from '@/core/analyse';
import { FLAT_NAMES, intervalOver, noteName, readChord, spellOver } from '@/core/music';
import { typeset } from '@/core/music';
import { unwrap, pitchClassOf, elementAt } from '@/core/shared';

/** A note of the report by name, spelled over its chord. @param midi another pitch in its place */
export function noteNameIn(
  report: Report,
  index: number,
  midi = elementAt(report.notes, index).midi,
): string {
  return nameOver(elementAt(report.notes, index).chord, midi);
}

export function nameOver(chord: string | null, midi: number): string {
  const pc = pitchClassOf(midi);
  return typeset(chord ? noteName(spellOver(unwrap(readChord(chord)), pc)) : elementAt(FLAT_NAMES, pc));
}

/** How a pitch prints over a chord. */
export const intervalAt = (chord: string, midi: number): string =>
  intervalOver(unwrap(readChord(chord)), pitchClassOf(midi));
