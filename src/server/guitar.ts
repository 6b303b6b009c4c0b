import Joi from 'joi';
import { readTuning, STANDARD_INSTRUMENT, withCapo, type Instrument } from '@/core/neck';
import { Failure } from './failure';

type GuitarQuery = { tuning: string; frets: number; capo: number };

const guitarQuery = Joi.object<GuitarQuery>({
  tuning: Joi.string().max(60).required(),
  frets: Joi.number().integer().min(12).max(36).required(),
  capo: Joi.number().integer().min(0).max(11).required(),
});

/** The guitar an address names (`tuning`, `frets`, `capo`): the standard one where it names none. */
export function guitarFrom(query: URLSearchParams): Instrument {
  const given = ['tuning', 'frets', 'capo'].filter((name) => query.has(name));
  if (given.length === 0) return STANDARD_INSTRUMENT;
  const { error, value } = guitarQuery.validate(
    Object.fromEntries(given.map((name) => [name, query.get(name)])),
  );
  const tuning = error ? null : readTuning((value as GuitarQuery).tuning);
  if (!tuning?.ok)
    throw new Failure(422, {
      code: 'guitar',
      message: `This is no guitar: ${error?.message ?? 'its tuning cannot be read'}.`,
      suggestion: 'tuning=E2 A2 D3 G3 B3 E4, frets=22, capo=0',
    });
  const { frets, capo } = value as GuitarQuery;
  return withCapo({ tuning: tuning.value, frets }, capo);
}
