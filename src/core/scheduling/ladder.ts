import { elementAt, type BeatsPerMinute } from '../shared';

/** One try at a drill: how fast, and how much of it was met. */
export type LadderTry = {
  readonly tempo: BeatsPerMinute;
  readonly met: number;
  readonly of: number;
  readonly passed: boolean;
};

/**
 * How a drill climbs: from its first tempo to its goal, up after so many passes in a row, down after so many
 * misses.
 */
export type Ladder = {
  readonly rungs: readonly BeatsPerMinute[];
  /** Which rung is played now. */ readonly at: number;
  readonly up: number;
  readonly down: number;
};

export type LadderWish = {
  readonly goal: BeatsPerMinute;
  readonly start?: BeatsPerMinute;
  readonly up?: number;
  readonly down?: number;
};

/** Every second mark of a metronome's scale: steps of about a tenth (common practice, no source). */
const MARKS: readonly BeatsPerMinute[] = [
  40, 44, 48, 52, 56, 60, 66, 72, 80, 88, 96, 104, 112, 120, 132, 144, 160, 176, 192, 208, 232, 256, 288, 320,
];
/** A drill begins at about three quarters of the tempo it is meant for, where there is time to think. */
const FIRST = 0.75;

export const SLOWEST: BeatsPerMinute = elementAt(MARKS, 0);

/** The rungs to a goal, from two below its beginning: there must be somewhere to go down to. */
export function ladderTo({ goal, start = goal * FIRST, up = 2, down = 2 }: LadderWish): Ladder {
  const rungs = [...MARKS.filter((mark) => mark < goal * 0.97), goal];
  const nearest = rungs.reduce(
    (best, rung, index) => (Math.abs(rung - start) < Math.abs(elementAt(rungs, best) - start) ? index : best),
    0,
  );
  const from = Math.max(0, nearest - 2);
  return { rungs: rungs.slice(from), at: nearest - from, up, down };
}

/** A slower rung under the ladder, where it has none below and one exists. */
export function lowered(ladder: Ladder): Ladder {
  const below = MARKS.filter((mark) => mark < elementAt(ladder.rungs, 0)).at(-1);
  return below === undefined ? ladder : { ...ladder, rungs: [below, ...ladder.rungs], at: ladder.at + 1 };
}

export type Climb = 'up' | 'down' | 'stay' | 'learnt';

/**
 * Where a ladder stands after another try: up after `up` passes in a row on this rung, down after `down`
 * misses in a row, learnt when the
 * passes were on the last one. Tries at other tempos are no part of a row.
 * @param tries in order of time, the new one last
 */
export function climbed(
  ladder: Ladder,
  tries: readonly LadderTry[],
): { readonly ladder: Ladder; readonly climb: Climb } {
  const row = inARow(ladder, tries);
  const last = tries[tries.length - 1];
  if (!last || row === 0) return { ladder, climb: 'stay' };
  if (last.passed && row >= ladder.up)
    return ladder.at === ladder.rungs.length - 1
      ? { ladder, climb: 'learnt' }
      : { ladder: { ...ladder, at: ladder.at + 1 }, climb: 'up' };
  if (last.passed || row < ladder.down) return { ladder, climb: 'stay' };
  const roomy = ladder.at > 0 ? ladder : lowered(ladder);
  return roomy.at === 0
    ? { ladder: roomy, climb: 'stay' }
    : { ladder: { ...roomy, at: roomy.at - 1 }, climb: 'down' };
}

/** How many tries of one kind, passes or misses, end the list at the present rung. */
export function inARow({ rungs, at }: Ladder, tries: readonly LadderTry[]): number {
  const last = tries[tries.length - 1];
  if (!last || last.tempo !== rungs[at]) return 0;
  let row = 0;
  while (
    row < tries.length &&
    elementAt(tries, tries.length - 1 - row).tempo === rungs[at] &&
    elementAt(tries, tries.length - 1 - row).passed === last.passed
  )
    row++;
  return row;
}

/** Tries at one tempo count for its row only since the ladder came to it. */
export function sinceArrival(ladder: Ladder, tries: readonly LadderTry[]): readonly LadderTry[] {
  const before = tries.findLastIndex(({ tempo }) => tempo !== ladder.rungs[ladder.at]);
  return tries.slice(before + 1);
}

/** What the next tries have to bring, in a sentence: soft words and the bold condition before them. */
export function ladderWords(
  ladder: Ladder,
  tries: readonly LadderTry[],
  pass: { readonly met: number; readonly of: number },
): { readonly bold: string; readonly soft: string } {
  const last = tries[tries.length - 1];
  const row = last?.passed ? inARow(ladder, tries) : 0;
  const next = ladder.rungs[ladder.at + 1];
  const left = ladder.up - (row % ladder.up);
  let times: string;
  if (ladder.up === 1) times = '';
  else if (ladder.up === 2) times = ' twice in a row';
  else times = ` ${ladder.up} times in a row`;
  const moved = next === undefined ? 'and it is learnt.' : `moves you up to ${next}.`;
  return {
    bold: `${pass.met} of ${pass.of}${times}`,
    soft: `${moved}${row > 0 && left < ladder.up ? ` ${['', 'One is in.', 'Two are in.', 'Three are in.'][ladder.up - left] ?? ''}` : ''}`.trim(),
  };
}

/** The fastest rung that was passed; null where none was. */
export const fastestPassed = (tries: readonly LadderTry[]): BeatsPerMinute | null =>
  tries.reduce<BeatsPerMinute | null>(
    (best, { tempo, passed }) => (passed && (best === null || tempo > best) ? tempo : best),
    null,
  );

/** Was a drill passed at the top of its ladder? */
export const isLearnt = ({ rungs }: Ladder, tries: readonly LadderTry[]): boolean =>
  (fastestPassed(tries) ?? 0) >= elementAt(rungs, rungs.length - 1);
