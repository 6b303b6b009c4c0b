import Joi from 'joi';
import type { Beats } from '../vocabulary';

/** What a player wrote beside a take: to all of it, to a bar (from 1 through all choruses) or to the phrase that begins at a beat. */
export type Remark = { readonly id: string; readonly text: string; readonly bar?: number; readonly phraseBeat?: Beats };
/** A player's own words on a take. */
export type TakeWords = { readonly stars: number; readonly tags: readonly string[]; readonly remarks: readonly Remark[] };

export const NO_WORDS: TakeWords = { stars: 0, tags: [], remarks: [] };

const tag = Joi.string().trim().min(1).max(32);
export const wordsSchema = Joi.object<TakeWords>({
  stars: Joi.number().integer().min(0).max(5).required(),
  tags: Joi.array().items(tag).max(24).unique().required(),
  remarks: Joi.array().max(500).required().items(Joi.object({ id: Joi.string().pattern(/^[A-Za-z0-9_-]{1,24}$/).required(), text: Joi.string().min(1).max(4_000).required(), bar: Joi.number().integer().min(1).max(100_000), phraseBeat: Joi.number().min(-64).max(1e6) })),
});

/** Everything that can be searched in them, in small letters. */
export const wordsText = ({ tags, remarks }: TakeWords): string => [...tags, ...remarks.map(({ text }) => text)].join('\n').toLowerCase();
