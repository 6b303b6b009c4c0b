import { eq } from 'drizzle-orm';
import Joi from 'joi';
import { database, write } from './db/client';
import { settings } from './db/schema';
import { removeOldSound } from './trash';

/** What the player decides for all takes. */
export type SoundSettings = {
  /** Days that sound is kept; null for ever. */ readonly keepDays: number | null;
};
export const soundSettings = Joi.object<SoundSettings>({
  keepDays: Joi.number().integer().min(1).max(3_650).allow(null).required(),
});

const NAME = 'sound';
const FOR_EVER: SoundSettings = { keepDays: null };

export async function readSoundSettings(): Promise<SoundSettings> {
  const [kept] = await database().select().from(settings).where(eq(settings.name, NAME));
  const { error, value } = soundSettings.validate(kept?.json ?? FOR_EVER);
  return error ? FOR_EVER : value;
}

/** Stores them, and puts in the trash what they no longer keep. @returns how many takes lost their sound */
export async function writeSoundSettings(value: SoundSettings): Promise<number> {
  await write(async (tx) => {
    const row = { name: NAME, json: value };
    await tx
      .insert(settings)
      .values(row)
      .onConflictDoUpdate({ target: settings.name, set: { json: value } });
  });
  return value.keepDays === null ? 0 : removeOldSound(value.keepDays);
}
