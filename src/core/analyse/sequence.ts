import { modulo } from '../vocabulary';
import type { Scale } from '../music';
import type { Ground } from './ground';
import { isLinked, type Belonging, type Line } from './voice';

export type Run = { readonly first: number; readonly last: number };

/**
 * Sequences: a cell of 2–4 notes stated at least three times, moved each time by one step of the chord-scale, key or home scale.
 * Rule: 2-theory, "Shapes". Places in the line, inclusive.
 */
export function sequencesOf(line: Line, belongings: readonly Belonging[], grounds: readonly Ground[]): Run[] {
  const runs: Run[] = [];
  for (let first = 0; first < line.length; first++) {
    const ground = grounds[belongings[first]!.sounding.stretch.index]!;
    for (let size = 2; size <= 4; size++) {
      const last = longestFrom(line, first, size, scalesAt(ground));
      if (last === null) continue;
      if (!runs.some((run) => run.first <= first && run.last >= last)) runs.push({ first, last });
    }
  }
  return runs;
}

const scalesAt = (ground: Ground): Scale[] => [ground.bareScale, ground.keyScale, ground.home];

function longestFrom(line: Line, first: number, size: number, scales: readonly Scale[]): number | null {
  let best: number | null = null;
  for (const scale of scales)
    for (const direction of [1, -1]) {
      let place = first;
      while (place + size < line.length && isLinked(line[place + size - 1], line[place + size]) && stepOf(scale, line[place]!.pitch, line[place + size]!.pitch) === direction) place++;
      const statements = Math.floor((place - first) / size) + 1;
      const linked = line.slice(first, first + size).every((note, at) => at === 0 || isLinked(line[first + at - 1], note));
      if (statements >= 3 && linked) best = Math.max(best ?? 0, first + statements * size - 1);
    }
  return best;
}

const ladders = new WeakMap<Scale, { readonly places: readonly number[]; readonly size: number }>();

/** The place of each pitch class on a scale's ladder, −1 where it has none. */
function ladderOf(scale: Scale): { readonly places: readonly number[]; readonly size: number } {
  const known = ladders.get(scale);
  if (known) return known;
  const sorted = [...new Set(scale.pcs)].sort((a, b) => a - b);
  const made = { places: Array.from({ length: 12 }, (_, pc) => sorted.indexOf(pc)), size: sorted.length };
  ladders.set(scale, made);
  return made;
}

/** Steps of a scale from one pitch to another; null where either lies outside it. */
function stepOf(scale: Scale, from: number, to: number): number | null {
  const { places, size } = ladderOf(scale);
  const index = (pitch: number) => {
    const place = places[modulo(pitch, 12)]!;
    return place < 0 ? null : Math.floor(pitch / 12) * size + place;
  };
  const [a, b] = [index(from), index(to)];
  return a === null || b === null ? null : b - a;
}
