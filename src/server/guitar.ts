import Joi from 'joi';
import {
  HAND_SIZES,
  NECK_AREAS,
  OPEN_STRINGS,
  readTuning,
  STANDARD_INSTRUMENT,
  USUAL_HABITS,
  withCapo,
  type HandHabits,
  type Instrument,
} from '@/core/neck';
import { Failure } from './failure';

type GuitarQuery = { tuning: string; frets: number; capo: number } & Partial<HandHabits>;

const guitarQuery = Joi.object<GuitarQuery>({
  tuning: Joi.string().max(60).required(),
  frets: Joi.number().integer().min(12).max(36).required(),
  capo: Joi.number().integer().min(0).max(11).required(),
  size: Joi.valid(...HAND_SIZES),
  open: Joi.valid(...OPEN_STRINGS),
  area: Joi.valid(...NECK_AREAS),
});

/** The guitar an address names (`tuning`, `frets`, `capo`) and the hand on it (`size`, `open`, `area`): the standard one where it names none. */
export function guitarFrom(query: URLSearchParams): Instrument {
  const given = ['tuning', 'frets', 'capo', 'size', 'open', 'area'].filter((name) => query.has(name));
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
  const { frets, capo, size, open, area } = value as GuitarQuery;
  const habits = {
    size: size ?? USUAL_HABITS.size,
    open: open ?? USUAL_HABITS.open,
    area: area ?? USUAL_HABITS.area,
  };
  return withCapo({ tuning: tuning.value, frets, habits }, capo);
}
