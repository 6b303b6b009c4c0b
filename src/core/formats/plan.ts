import Joi from 'joi';
import type { Pace } from '../chart';
import { HEIGHT_INTENTS, PLAN_IDS, RUNGS, type PlanWords, type Where } from '../plan';

const rung = Joi.string().valid(...RUNGS);
const degreeWord = Joi.string().max(6);
const bar = Joi.number().integer().min(1).max(512);

/** What a school leaves to the player; scales and degrees are read where the plan is. */
const settings = {
  id: Joi.string()
    .valid(...PLAN_IDS)
    .required(),
  home: Joi.string().max(60),
  target: rung,
  degrees: Joi.string().max(60),
  aims: Joi.array().items(degreeWord).max(7),
  mode: Joi.string().max(40),
  tonicSix: Joi.boolean(),
  height: Joi.string().valid(...HEIGHT_INTENTS),
  overlay: Joi.string().allow('').max(8_192),
  hand: Joi.string().max(12),
};

const where = Joi.object<Where>({
  chord: Joi.string().max(24),
  degree: Joi.string().max(12),
  section: Joi.string().max(40),
  chorus: Joi.number().integer().min(1).max(100),
  bars: Joi.array().ordered(bar.required(), bar.required()),
}).min(1);

/** A plan as it comes in from outside and as it is stored. */
export const planSchema = Joi.object<PlanWords>({
  ...settings,
  parts: Joi.array()
    .items(Joi.object({ where: where.required(), plan: Joi.object(settings).required() }))
    .max(24),
  heights: Joi.array()
    .items(Joi.string().valid(...HEIGHT_INTENTS))
    .max(100),
  ladder: Joi.array().items(rung).max(4),
});

/** How the tempo moves from pass to pass. */
export const paceSchema = Joi.object<Pace>({
  passBeats: Joi.number().greater(0).max(10_000).required(),
  tempi: Joi.array().items(Joi.number().min(20).max(400)).min(1).max(100).required(),
});

/** Choruses and bars, counted from 1. */
type DropOut = { readonly choruses?: readonly number[]; readonly bars?: readonly number[] };

const counted = Joi.array().items(Joi.number().integer().min(1).max(1000)).max(1000);
/** Where the band leaves the player alone, by chorus and by bar. */
export const dropOutSchema = Joi.object<DropOut>({ choruses: counted, bars: counted });
