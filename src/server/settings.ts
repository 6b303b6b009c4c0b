import { eq } from 'drizzle-orm';
import Joi from 'joi';
import { letSoundGo } from './audio';
import { database, write } from './db/client';
import { settings } from './db/schema';

/** What the player decides for all takes. */
export type SoundSettings = { /** Days that sound is kept; null for ever. */ readonly keepDays: number | null };
export const soundSettings = Joi.object<SoundSettings>({ keepDays: Joi.number().integer().min(1).max(3_650).allow(null).required() });

const NAME = 'sound';
const FOR_EVER: SoundSettings = { keepDays: null };

export async function readSoundSettings(): Promise<SoundSettings> {
  const [kept] = await database().select().from(settings).where(eq(settings.name, NAME));
  const { error, value } = soundSettings.validate(kept?.json ?? FOR_EVER);
  return error ? FOR_EVER : value;
}

/** Keeps them, and does at once what they say. @returns how many takes lost their sound */
export async function writeSoundSettings(value: SoundSettings): Promise<number> {
  await write(async (tx) => void (await tx.insert(settings).values({ name: NAME, json: value }).onConflictDoUpdate({ target: settings.name, set: { json: value } })));
  return tidySound();
}

/** Lets go of what is older than the player keeps: at every start, and when the setting changes. */
export async function tidySound(): Promise<number> {
  const { keepDays } = await readSoundSettings();
  return keepDays === null ? 0 : letSoundGo(keepDays);
}
