import Joi from 'joi';
import { LIMITS } from '../contracts';
import { MOST_FRETS } from '../neck';
import { heardNote } from './notes';
import { MOST_EDITS, type Edit, type TakeWords } from '../correct';

const id = Joi.string()
  .pattern(/^[A-Za-z0-9_-]{1,24}$/)
  .required();
const seconds = Joi.number().min(-60).max(36_000).required();
const midi = Joi.number().integer().min(20).max(108).required();
const of = (kind: string, fields: Joi.PartialSchemaMap) =>
  Joi.object({ kind: Joi.string().valid(kind).required(), id, ...fields });
/** A player's edits as they come in from outside. */
export const editsSchema = Joi.array<readonly Edit[]>()
  .max(MOST_EDITS)
  .items(
    of('delete', {}),
    of('add', { onsetSec: seconds, offsetSec: seconds, midi }),
    of('pitch', { midi }),
    of('time', { onsetSec: seconds, offsetSec: seconds }),
    of('split', { atSec: seconds, newId: id }),
    of('merge', { withId: id }),
    of('ghost', { ghost: Joi.boolean().required() }),
    of('phrase', { border: Joi.string().valid('begins', 'goes-on', null).required() }),
    of('position', {
      ids: Joi.array().items(id).min(1).max(MOST_EDITS).required(),
      fret: Joi.number().integer().min(1).max(MOST_FRETS).allow(null).required(),
    }),
    of('attack', { attack: Joi.string().valid('pick', 'hammer', 'pull').required() }),
    of('again', {
      fromSec: seconds,
      toSec: seconds,
      notes: Joi.array()
        .items(heardNote.keys({ id, onsetSec: seconds, offsetSec: seconds }))
        .max(LIMITS.notes.playedAgain)
        .required(),
    }),
    of('sure', {}),
  );

const tag = Joi.string().trim().min(1).max(32);
/** A player's words on a take as they come in from outside. */
export const wordsSchema = Joi.object<TakeWords>({
  stars: Joi.number().integer().min(0).max(5).required(),
  tags: Joi.array().items(tag).max(24).unique().required(),
  remarks: Joi.array()
    .max(500)
    .required()
    .items(
      Joi.object({
        id: Joi.string()
          .pattern(/^[A-Za-z0-9_-]{1,24}$/)
          .required(),
        text: Joi.string().min(1).max(4_000).required(),
        bar: Joi.number().integer().min(1).max(100_000),
        phraseBeat: Joi.number().min(-64).max(1e6),
      }),
    ),
});
