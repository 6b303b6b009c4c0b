import { existsSync } from 'node:fs';
import { open, readdir, readFile, rm } from 'node:fs/promises';
import path from 'node:path';
import Joi from 'joi';
import { databaseFile } from '../db/client';
import { isServed } from '../db/serverLock';
import { Failure } from '../failure';
import { companionsOf, syncFolder } from './files';
import { backupFolder, backupNamed } from './kept';
import { restore, setAsideName } from './restore';
import { checkVersion, openChecked } from './verify';

/**
 * What the next start does before anything is opened. A running server cannot give its database another file:
 * connections that are not yet collected would go on writing to the old one (decision 0031).
 */
type AtNextStart = { readonly restore: string } | { readonly deleteAll: true; readonly backupsToo: boolean };

const asked = Joi.alternatives<AtNextStart>(
  Joi.object({ restore: Joi.string().max(200).required() }),
  Joi.object({ deleteAll: Joi.boolean().valid(true).required(), backupsToo: Joi.boolean().required() }),
);

const noteFile = (): string => `${databaseFile()}.at-next-start.json`;

async function ask(what: AtNextStart): Promise<void> {
  const handle = await open(noteFile(), 'w');
  await handle.writeFile(JSON.stringify(what)).finally(() => handle.sync().then(() => handle.close()));
  await syncFolder(path.dirname(noteFile()));
}

/**
 * Proves a kept backup by a trial restore and leaves word that the next start restores it.
 * @throws Failure where it is damaged or of a newer version; nothing is changed then
 */
export async function restoreAtNextStart(name: string): Promise<void> {
  const archive = await backupNamed(name);
  const trial = `${databaseFile()}.trial-${process.pid}.db`;
  try {
    await openChecked(archive, trial);
    await checkVersion(trial);
  } finally {
    for (const file of companionsOf(trial)) await rm(file, { force: true });
  }
  await ask({ restore: name });
}

/** What has to be typed before everything is deleted. */
export const DELETE_WORDS = 'delete everything';

/**
 * Leaves word that the next start deletes the database, and the backups beside it where that is wanted.
 * @throws Failure where the words are not the ones asked for
 */
export async function deleteAllAtNextStart(words: string, backupsToo: boolean): Promise<void> {
  if (words.trim().toLowerCase() !== DELETE_WORDS)
    throw new Failure(422, {
      code: 'everything.words',
      message: 'Nothing was deleted.',
      suggestion: `Type “${DELETE_WORDS}”.`,
    });
  await ask({ deleteAll: true, backupsToo });
}

/**
 * Does what was asked for, before the database is opened. Word of it is removed in every case: a backup that
 * cannot be restored must not stop every start.
 * @returns what was done or why not; null where nothing was asked
 */
export async function doWhatWasAsked(): Promise<string | null> {
  if (!existsSync(noteFile())) return null;
  if (await isServed(databaseFile()))
    return 'Another Idle Wander runs on this database; what was asked waits.';
  try {
    const { error, value } = asked.validate(JSON.parse(await readFile(noteFile(), 'utf8')));
    if (error) throw error;
    if ('restore' in value) {
      const { before } = await restore(await backupNamed(value.restore));
      return `Restored ${value.restore}.${before === null ? '' : ` What was there before is in ${before}.`}`;
    }
    for (const file of companionsOf(databaseFile())) await rm(file, { force: true });
    if (value.backupsToo) await removeBackups();
    return 'Everything was deleted, as it was asked for.';
  } catch (error) {
    return `What was asked for could not be done, and nothing was changed: ${(error as Error).message}`;
  } finally {
    await rm(noteFile(), { force: true });
  }
}

/** The folder of backups, and the databases that restores set aside. */
async function removeBackups(): Promise<void> {
  await rm(backupFolder(), { recursive: true, force: true });
  const file = databaseFile();
  const aside = path.basename(setAsideName(file, ''), '.db');
  for (const name of await readdir(path.dirname(file)))
    if (name.startsWith(aside)) await rm(path.join(path.dirname(file), name), { force: true });
}

/** The exit code that asks whoever started the server to start it again. */
export const RESTART_CODE = 75;

/** Ends this server so that it is started again, where somebody does that. @returns whether it will be */
export function restartServer(): boolean {
  if (process.env.IDLE_WANDER_RESTARTS !== 'yes') return false;
  setTimeout(() => process.exit(RESTART_CODE), 300);
  return true;
}
