import type { ScoreEntry } from './score';

/** Lengths that need no three come out even by this, in divisions. */
const EVEN = 24;

/**
 * What stands under one sign for three: three of a kind within a beat, or what adds up to it.
 * @param entries of a bar, in order
 */
export function tripletsOf<T extends Pick<ScoreEntry, 'at' | 'head'>>(entries: readonly T[]): T[][] {
  const groups: T[][] = [];
  let group: T[] = [];
  let sum = 0;
  for (const one of entries) {
    if (!one.head.triplet) {
      [group, sum] = [[], 0];
      continue;
    }
    group.push(one);
    sum += one.head.size;
    if (sum % EVEN === 0 && (one.at + one.head.size) % EVEN === 0) {
      groups.push(group);
      [group, sum] = [[], 0];
    }
  }
  return groups;
}
