import Joi from 'joi';
import type { Edit, SecondsNote, TakeWords } from '@/core/correct';
import type { Drill, RuleCheck } from '@/core/drills';
import { editsSchema, planSchema, wordsSchema } from '@/core/formats';
import type { Ladder } from '@/core/scheduling';
import { Failure } from '../failure';

/*
 * JSON columns by their contracts. What was stored was checked on its way in; it is checked again when it is read,
 * because a file can be damaged, edited by hand, or brought back from another version.
 */

/** What was heard in a take, as it came in. */
export type HeardTake = { readonly notes: readonly SecondsNote[]; readonly certainty?: number } & Record<
  string,
  unknown
>;

const tempo = Joi.number().min(20).max(400);
const bar = Joi.number().integer().min(1).max(512);

const ladderSchema = Joi.object<Ladder>({
  rungs: Joi.array().items(tempo).min(1).max(200).required(),
  at: Joi.number().integer().min(0).max(199).required(),
  up: Joi.number().min(0).required(),
  down: Joi.number().min(0).required(),
}).unknown();

const drillSchema = Joi.object<Drill>({
  kind: Joi.string().max(40).required(),
  name: Joi.string().max(400).required(),
  reason: Joi.string().allow('').max(400).required(),
  words: Joi.string().max(400).required(),
  chartText: Joi.string().max(65_536).required(),
  span: Joi.array().items(bar).length(2).required(),
  tempo: tempo.required(),
  plan: planSchema.required(),
  rule: Joi.object({ kind: Joi.string().max(40).required() })
    .unknown()
    .required(),
  pass: Joi.number().min(0).max(1).required(),
}).unknown();

const placesSchema = Joi.array<readonly RuleCheck[]>().items(
  Joi.object({ beat: Joi.number().required(), met: Joi.boolean().required() }).unknown(),
);

/** @throws Failure where a stored document does not keep its contract; it names the document and the place in it */
function read<T>(schema: Joi.Schema<T>, value: unknown, what: string): T {
  const { error, value: kept } = schema.validate(value, { convert: false });
  if (error) throw unreadable(what, error.message);
  return kept;
}

const unreadable = (what: string, why: string): Failure =>
  new Failure(422, {
    code: 'stored.unreadable',
    message: `${what} cannot be read: ${why}.`,
    suggestion: 'Bring back a backup, or remove it.',
  });

export const readEdits = (value: unknown): readonly Edit[] =>
  read<readonly Edit[]>(editsSchema, value, 'The corrections of this take');

export const readWords = (value: unknown): TakeWords =>
  read<TakeWords>(wordsSchema, value, 'The words of this take');

export const readDrill = (value: unknown): Drill => read<Drill>(drillSchema, value, 'This drill');

export const readLadder = (value: unknown): Ladder =>
  read<Ladder>(ladderSchema, value, 'The tempo ladder of this drill');

export const readPlaces = (value: unknown): readonly RuleCheck[] =>
  read<readonly RuleCheck[]>(placesSchema, value, 'This attempt');

/** Thousands of notes: each number is looked at, without building a schema's answer for each. */
export function readHeard(value: unknown): HeardTake {
  const what = 'What was heard in this take';
  if (typeof value !== 'object' || value === null || !('notes' in value) || !Array.isArray(value.notes))
    throw unreadable(what, '"notes" is no list');
  value.notes.forEach((note: unknown, index) => {
    if (!isHeardNote(note)) throw unreadable(what, `"notes[${index}]" is no note`);
  });
  return value as HeardTake;
}

const isHeardNote = (note: unknown): note is SecondsNote =>
  typeof note === 'object' &&
  note !== null &&
  ['onsetSec', 'offsetSec', 'midi'].every((name) => Number.isFinite((note as Record<string, unknown>)[name]));
