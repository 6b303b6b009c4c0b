import { LIMITS } from '../contracts';
import Joi from 'joi';

/** Something to be ready for: its words, its day as `YYYY-MM-DD`, ids of its tunes, minutes a day there are. */
export type GoalWords = { words: string; day: string; charts: string[]; minutes: number };

/** Characters the words of a goal may have. */
export const GOAL_WORDS = 80;

/** Whether a month has such a day: a date that does not exist is carried over into the next month. */
const exists = (day: string): boolean => {
  const time = Date.parse(`${day}T00:00:00Z`);
  return !Number.isNaN(time) && new Date(time).toISOString().startsWith(day);
};

/** A calendar day as `YYYY-MM-DD`. */
export const daySchema = Joi.string()
  .pattern(/^\d{4}-\d\d-\d\d$/)
  .custom((day: string, helpers) => (exists(day) ? day : helpers.error('any.invalid')))
  .required();

const chartId = Joi.string().pattern(/^[A-Za-z0-9_-]{1,40}$/);

/** A goal as a form gives it and as the server takes it; each problem is a sentence for the player. */
export const goalSchema = Joi.object<GoalWords>({
  words: Joi.string().trim().min(1).max(GOAL_WORDS).required().messages({ '*': 'What is it?' }),
  day: daySchema.messages({ '*': 'When is it?' }),
  charts: Joi.array()
    .items(chartId)
    .single()
    .min(1)
    .max(LIMITS.goal.tunes)
    .unique()
    .required()
    .messages({ 'array.max': `At most ${LIMITS.goal.tunes} tunes.`, '*': 'Which tunes?' }),
  minutes: Joi.number()
    .integer()
    .min(5)
    .max(240)
    .required()
    .messages({ '*': 'How many minutes a day? From 5 to 240, in whole minutes.' }),
});
