import type { Beats } from '../vocabulary';
import { hasTone } from '../music';
import type { Walk } from './figures';
import type { Deed } from './functions';
import { HEIGHT, isLinked } from './voice';
import { EPSILON } from './windows';

/** A stretch of the line that left the chords; indices into the report's notes. */
export type StepOut = { readonly noteIndices: readonly number[]; readonly beats: Beats; readonly homeIndex: number | null };

/**
 * At least three linked notes over at least a beat at height 3 or more that are not all in figures that resolve.
 * Rule: 2-theory, "Figures". Moved shapes are not read yet.
 */
export function stepOutsOf(walk: Walk, deeds: readonly Deed[]): StepOut[] {
  const { line } = walk.scene;
  const found: StepOut[] = [];
  let first = 0;
  while (first < line.length) {
    let last = first;
    if (HEIGHT[deeds[first]!.tier] < 3) { first++; continue; }
    while (line[last + 1] && isLinked(line[last], line[last + 1]) && HEIGHT[deeds[last + 1]!.tier] >= 3) last++;
    const notes = line.slice(first, last + 1);
    const beats = notes[notes.length - 1]!.end - notes[0]!.onset;
    const unresolved = deeds.slice(first, last + 1).some((deed) => deed.target === undefined);
    if (notes.length >= 3 && beats >= 1 - EPSILON && unresolved) {
      const next = line[last + 1];
      const home = next && isLinked(line[last], next) && walk.ground(last + 1).chord && hasTone(walk.ground(last + 1).chord!, next.pc) ? next.index : null;
      found.push({ noteIndices: notes.map((note) => note.index), beats, homeIndex: home });
    }
    first = last + 1;
  }
  return found;
}
