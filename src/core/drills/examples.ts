import type { PlayedNote } from '../analyse';
import { changesOf } from '../chart';
import { lineWorth, type Level } from '../lines';
import { groundOf, type Drill } from './drill';
import { exampleFor, withoutChords } from './example';

/** One line of several that pass a drill. `worth` ranks them, 0 to 1. */
export type RankedExample = {
  readonly seed: number;
  readonly line: readonly PlayedNote[];
  readonly passes: number;
  readonly worth: number;
};

/** So many lines are offered at once. */
export const LINES_OFFERED = 8;
/** After so many seeds that bring nothing new there is nothing more to be had. */
const BARREN = 6;

/**
 * Lines that pass a drill, each different from the others, in the order they are found: the caller shows them
 * as they come, and ranks them with `byWorth`.
 * @param from the seed to begin with
 */
export function* differentExamples(
  drill: Drill,
  { from = 1, level = 'usual' }: { readonly from?: number; readonly level?: Level } = {},
): Generator<RankedExample> {
  const { timeline } = groundOf(drill);
  const known = new Set<string>();
  for (let seed = from, barren = 0; barren < BARREN; seed++) {
    const made = exampleFor(drill, seed, level);
    const notes = made && spelledOut(made.line);
    if (!made || !notes || known.has(notes)) {
      barren++;
      continue;
    }
    barren = 0;
    known.add(notes);
    const changes = changesOf(timeline, made.passes).map(({ at }) => at);
    const end = made.passes * timeline.formBeats;
    yield { seed, ...made, worth: lineWorth(withoutChords(made.line), end, changes) };
  }
}

/**
 * Different lines for a drill, the one most worth copying first; fewer where there are no more.
 * @example
 * examplesOf(drill, 8).length // 8
 */
export function examplesOf(drill: Drill, count = LINES_OFFERED, level: Level = 'usual'): RankedExample[] {
  const found: RankedExample[] = [];
  for (const one of differentExamples(drill, { level })) {
    found.push(one);
    if (found.length === count) break;
  }
  return byWorth(found);
}

export const byWorth = (lines: readonly RankedExample[]): RankedExample[] =>
  [...lines].sort((a, b) => b.worth - a.worth || a.seed - b.seed);

const spelledOut = (line: readonly PlayedNote[]): string =>
  line.map(({ onsetBeat, midi }) => `${onsetBeat.toFixed(3)} ${midi}`).join(' ');
