import { randomBytes } from 'node:crypto';
import Joi from 'joi';
import { notFound } from './failure';

export const idSchema = Joi.string()
  .pattern(/^[A-Za-z0-9_-]{1,40}$/)
  .required();

/** 96 random bits in URL-safe letters. */
export const newId = (): string => randomBytes(12).toString('base64url');

/** An id from an address, or "does not exist": what cannot be an id names nothing. */
export function knownId(text: string, what: string): string {
  if (idSchema.validate(text).error) throw notFound(what);
  return text;
}
