import { eq } from 'drizzle-orm';
import Joi from 'joi';
import { database, write } from './db/client';
import { settings } from './db/schema';
import { readSoundSettings } from './settings';
import { emptyTrash, removeOldSound } from './trash';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;

/**
 * The clock is looked at this often; the first time a while after the start, so that a start deletes nothing.
 */
const EVERY_MS = 6 * HOUR_MS;

/**
 * A clock that went on by more than this between two looks has jumped, or nobody was here: either way it is
 * waited.
 */
const JUMP_MS = 3 * DAY_MS;
const BACK_MS = HOUR_MS;

/** Nothing is deleted before the clock has run without a jump for so long. */
const STEADY_MS = 7 * DAY_MS;

type Clock = { readonly lastSeen: number; readonly steadySince: number };
const clockSchema = Joi.object<Clock>({
  lastSeen: Joi.number().required(),
  steadySince: Joi.number().required(),
});
const NAME = 'clock';

/**
 * Looks at the clock and writes down what it said. @returns whether it has run steadily long enough to delete
 * by it
 */
export async function clockIsSteady(now = Date.now()): Promise<boolean> {
  const [stored] = await database().select().from(settings).where(eq(settings.name, NAME));
  const { error, value: before } = clockSchema.required().validate(stored?.json);
  const jumped = error || now > before.lastSeen + JUMP_MS || now < before.lastSeen - BACK_MS;
  const clock: Clock = { lastSeen: now, steadySince: jumped ? now : before.steadySince };
  await write(async (tx) => {
    const values = { name: NAME, json: clock };
    await tx
      .insert(settings)
      .values(values)
      .onConflictDoUpdate({ target: settings.name, set: { json: clock } });
  });
  return now - clock.steadySince >= STEADY_MS;
}

/**
 * Old sound into the trash, and what has lain there long enough out of it; nothing where the clock is in
 * doubt.
 */
export async function applyRetention(now = Date.now()): Promise<void> {
  if (!(await clockIsSteady(now))) return;
  const { keepDays } = await readSoundSettings();
  if (keepDays !== null) await removeOldSound(keepDays, now);
  await emptyTrash(undefined, now);
}

/** Applies the retention while the program runs. */
export function startRetention(): void {
  setInterval(() => void applyRetention().catch((error: unknown) => console.error(error)), EVERY_MS).unref();
}
