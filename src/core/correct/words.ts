import type { Beats } from '../shared';

/**
 * What a player wrote beside a take: to all of it, to a bar (from 1 through all choruses) or to the phrase
 * that begins at a beat.
 */
export type Remark = {
  readonly id: string;
  readonly text: string;
  readonly bar?: number;
  readonly phraseBeat?: Beats;
};
/** A player's own words on a take. */
export type TakeWords = {
  readonly stars: number;
  readonly tags: readonly string[];
  readonly remarks: readonly Remark[];
};

export const NO_WORDS: TakeWords = { stars: 0, tags: [], remarks: [] };

/** Everything that can be searched in them, in small letters. */
export const wordsText = ({ tags, remarks }: TakeWords): string =>
  [...tags, ...remarks.map(({ text }) => text)].join('\n').toLowerCase();
