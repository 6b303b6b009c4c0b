import { LIMITS } from '../contracts';
import Joi from 'joi';
import { accepted, refused, type Outcome, type Seconds, elementAt } from '../shared';
import { beatAt, steady, type Pace } from '../chart';
import type { PlayedNote } from '../analyse';
import type { SecondsNote } from '../correct';

/** Notes in seconds, as a transcription writes them, or in beats, as a hand does. */
export type NotesFile = { readonly schema?: string; readonly notes: readonly (SecondsNote | PlayedNote)[] };

export const NOTES_SCHEMA = 'idle-wander/notes@1';

const finite = Joi.number().min(-1e6).max(1e6);
/** A bend may be long, but no string rings for ten minutes, and none bends by four octaves. */
const bendPoint = Joi.array()
  .ordered(Joi.number().min(-1).max(600).required(), Joi.number().min(-4_800).max(4_800).required())
  .length(2);
const pitched = {
  midi: Joi.number().min(0).max(127).required(),
  cents: Joi.number().min(-4_800).max(4_800).optional(),
  confidence: Joi.number().min(0).max(1).optional(),
  level: finite.optional(),
  attack: Joi.string().valid('pick', 'hammer', 'pull', 'slide').optional(),
  bend: Joi.array().items(bendPoint).max(10_000).optional(),
  slide: Joi.object({
    fromMidi: Joi.number().min(0).max(127).required(),
    seconds: Joi.number().min(0).max(60).required(),
  })
    .unknown()
    .optional(),
};
/** A note as a transcription has it, in seconds; its other fields are let through. */
export const heardNote = Joi.object({
  ...pitched,
  onsetSec: finite.required(),
  offsetSec: finite.greater(Joi.ref('onsetSec')).required(),
}).unknown();
const inBeats = Joi.object({
  ...pitched,
  onsetBeat: finite.required(),
  durationBeats: Joi.number().greater(0).max(1e6).required(),
}).unknown();

/** idle-wander/notes@1 (docs/architecture.md, “Notes”); other fields of a note are let through. */
export const notesSchema = Joi.object<NotesFile>({
  schema: Joi.string().valid(NOTES_SCHEMA).optional(),
  notes: Joi.array()
    .max(LIMITS.notes.file)
    .required()
    .items(
      Joi.alternatives().conditional('.onsetBeat', { is: Joi.exist(), then: inBeats, otherwise: heardNote }),
    ),
}).unknown();

/** Reads notes JSON; a problem's `path` points into it. */
export function readNotes(text: string): Outcome<NotesFile> {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    return refused({
      code: 'notes.json',
      message: `This is not JSON: ${(error as Error).message}.`,
      suggestion: '{"notes":[{"onsetBeat":0,"durationBeats":1,"midi":60}]}',
    });
  }
  const { error, value } = notesSchema.validate(json, { convert: false });
  if (!error) return accepted(value);
  const detail = elementAt(error.details, 0);
  return refused({
    code: 'notes.shape',
    path: detail.path.join('.'),
    message: `Notes are not as they should be: ${detail.message}.`,
  });
}

/**
 * Notes in beats, whatever they came in.
 * @param pace one tempo, or how it moves from pass to pass
 * @param offset where beat 0 lies in the recording, in seconds
 */
export function toBeats({ notes }: NotesFile, pace: number | Pace, offset: Seconds): PlayedNote[] {
  const walk = typeof pace === 'number' ? steady(pace) : pace;
  return notes.map((note) => {
    if ('onsetBeat' in note) return note;
    const { onsetSec, offsetSec, ...rest } = note;
    const onsetBeat = beatAt(walk, onsetSec - offset);
    return { ...rest, onsetBeat, durationBeats: beatAt(walk, offsetSec - offset) - onsetBeat };
  });
}
