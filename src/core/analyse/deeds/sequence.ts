import { modulo } from '../../vocabulary';
import { ladderOf, type Scale } from '../../music';
import type { Ground } from '../chord/ground';
import { isLinked, type Belonging, type Line } from '../notes/voice';

export type Run = { readonly first: number; readonly last: number };

/**
 * Sequences: a cell of 2–4 notes stated at least three times, moved each time by one step of the chord-scale, key or home scale.
 * Rule: 2-theory, "Shapes": "a cell of 2–4 notes stated ≥ 3 times, moved each time by one step of the chord-scale, key or home scale, rhythm free". Places in the
 * line, inclusive; those that lie in another one are left out.
 */
export function sequencesOf(line: Line, belongings: readonly Belonging[], grounds: readonly Ground[]): Run[] {
  const runs: Run[] = [];
  const linked = line.map((note, place) => isLinked(note, line[place + 1]));
  let reached = -1;
  for (let first = 0; first + 2 < line.length; first++) {
    const { bareScale, keyScale, home } = grounds[belongings[first]!.sounding.stretch.index]!;
    let last = -1;
    for (let size = 2; size <= 4; size++) {
      if (!linked[first + size - 2]) break;
      for (const scale of new Set([bareScale, keyScale, home])) last = Math.max(last, longestFrom(line, linked, first, size, scale));
    }
    if (last <= reached) continue;
    runs.push({ first, last });
    reached = last;
  }
  return runs;
}

/** The last note of a sequence of cells so long from a place on; −1 where there is none. */
function longestFrom(line: Line, linked: readonly boolean[], first: number, size: number, scale: Scale): number {
  const way = line[first + size] && linked[first + size - 1] ? stepOf(scale, line[first]!.pitch, line[first + size]!.pitch) : null;
  if (way !== 1 && way !== -1) return -1;
  let place = first;
  while (place + size < line.length && linked[place + size - 1] && stepOf(scale, line[place]!.pitch, line[place + size]!.pitch) === way) place++;
  const statements = Math.floor((place - first) / size) + 1;
  return statements >= 3 ? first + statements * size - 1 : -1;
}

/** Steps of a scale from one pitch to another; null where either lies outside it. */
function stepOf(scale: Scale, from: number, to: number): number | null {
  const { places, size } = ladderOf(scale);
  const [low, high] = [places[modulo(from, 12)]!, places[modulo(to, 12)]!];
  return low < 0 || high < 0 ? null : (Math.floor(to / 12) - Math.floor(from / 12)) * size + high - low;
}
