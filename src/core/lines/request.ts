import { elementAt, type Beats, type BeatsPerMinute } from '../shared';

/** How much is played: fewer and longer notes, as most players would, or with triplets and sixteenths. */
export type Level = 'easy' | 'usual' | 'rich';

/** One note of a rhythm, and which part of its phrase it is. */
export type RhythmNote = {
  readonly beat: Beats;
  readonly duration: Beats;
  /** Which phrase it belongs to, from 0. */
  readonly phrase: number;
  readonly place: 'first' | 'inner' | 'last';
};

export type RhythmRequest = {
  /** Where the line ends, in beats from its beginning. */
  readonly end: Beats;
  /** Beats of a bar. */
  readonly bar: Beats;
  readonly tempo: BeatsPerMinute;
  readonly level: Level;
  /** What moves the line: mixed values, running eighths, quarters and longer, triplets, or offbeats. */
  readonly base: 'mixed' | 'running' | 'quarters' | 'triplets' | 'offbeats';
  /** Where chords change: no last note rings over one. */
  readonly changes: readonly Beats[];
  /**
   * Changes need a note of their own while the line is playing, and phrases begin on one or lead into one by at
   * least so many notes; null: changes need none, and phrases begin where they like.
   */
  readonly leadIn: number | null;
  /** Beats before each change on which the note for it is struck. */
  readonly ahead: Beats;
  /** Phrases of one place in the bar (in beats from its start) and one length, with so many bars of rest. */
  readonly phrase?: {
    readonly start: Beats;
    readonly bars: number;
    readonly rest: number;
    readonly turn?: true;
    /** Phrases begin earlier or later than that, each pair of them in another place. */
    readonly varied?: true;
  };
  /** How often a phrase has one, two, three … bars, where it is free: the usual ones, mostly two, if not said. */
  readonly lengths?: readonly number[];
  /** How often a phrase begins on its change, or one, two, three … half beats before it; else `leadIn` decides. */
  readonly pickups?: readonly number[];
  /** Where the phrases lie, if that is not free. */
  readonly windows?: readonly PhraseWindow[];
  /** Every second phrase has the rhythm of the one before it. */
  readonly answers: boolean;
  /** Only the cells of the plainest kind. */
  readonly plain?: boolean;
  /** Each bar begins with so many running eighths. */
  readonly runs?: number;
  readonly seed: number;
};

/** Whole bars a phrase lies in, where it begins, and where its last note is struck if that is said. */
export type PhraseWindow = {
  readonly from: Beats;
  readonly to: Beats;
  readonly start: Beats;
  readonly last?: Beats;
};

export const EPS = 1e-6;

/** One of several, the more likely the more it weighs. @param chance from 0 to 1 */
export function weighted<T>(values: readonly T[], weights: readonly number[], chance: number): T {
  let left = chance * weights.reduce((sum, weight) => sum + weight, 0);
  for (const [index, value] of values.entries()) {
    left -= elementAt(weights, index);
    if (left <= 0) return value;
  }
  return elementAt(values, values.length - 1);
}
