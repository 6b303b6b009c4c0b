import Joi from 'joi';
import { NOTES_SCHEMA, notesSchema } from '@/core/formats';
import { PLAN_IDS, type PlanId } from '@/core/plan';
import type { Transcription } from '@/core/transcribe';

export const idSchema = Joi.string().pattern(/^[A-Za-z0-9_-]{1,40}$/).required();

export type ChartBody = { text: string };
/** The text may be wrong as a chart: it is kept while it is being typed. Only its size is limited. */
export const chartBody = Joi.object<ChartBody>({ text: Joi.string().allow('').max(65_536).required() });

export type PlanBody = { id: PlanId; home?: string };
const planBody = Joi.object<PlanBody>({ id: Joi.string().valid(...PLAN_IDS).required(), home: Joi.string().max(60).optional() });

export type NewTakeBody = { chartId: string; tempo: number; choruses: number; plan: PlanBody; rate: number; source: 'microphone' | 'file' | 'stand-in' };
export const newTakeBody = Joi.object<NewTakeBody>({
  chartId: idSchema, tempo: Joi.number().min(20).max(400).required(), choruses: Joi.number().integer().min(1).max(100).required(), plan: planBody.required(),
  rate: Joi.number().integer().min(4_000).max(384_000).required(), source: Joi.string().valid('microphone', 'file', 'stand-in').required(),
});

export type FinishBody = { frames: number; offsetSec: number; transcription: Transcription };
export const finishBody = Joi.object<FinishBody>({
  frames: Joi.number().integer().min(1).max(2 ** 32).required(), offsetSec: Joi.number().min(-600).max(600).required(),
  transcription: (notesSchema as Joi.ObjectSchema).keys({
    schema: Joi.string().valid(NOTES_SCHEMA).required(), durationSec: Joi.number().min(0).required(), playingLevel: Joi.number().required(), certainty: Joi.number().min(0).max(1).optional(),
    tuning: Joi.object({ a4: Joi.number().min(380).max(500).required() }).required(),
  }).required(),
});

export type PatchTakeBody = { offsetSec?: number; plan?: PlanBody };
export const patchTakeBody = Joi.object<PatchTakeBody>({ offsetSec: Joi.number().min(-600).max(600), plan: planBody }).or('offsetSec', 'plan');
