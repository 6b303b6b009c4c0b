import path from 'node:path';
import { backUpBeforeUpdate, backupFolder, doWhatWasAsked, listBackups } from '../backup';
import { databaseAddress, databaseClient, databaseFile, isFileDatabase, migrateDatabase } from './client';
import { databaseTrouble, serverTrouble, troubleWords } from './databaseTrouble';

/**
 * From a file on the disk to a database that can be served: what was asked for is done, the file is looked at,
 * backed up before an update, and brought to the newest schema.
 * @returns why it cannot be served, in words; null where it can
 */
export async function openDatabase(say: (words: string) => void = console.warn): Promise<string | null> {
  if (isFileDatabase()) {
    const done = await doWhatWasAsked();
    if (done !== null) say(done);
    const [last] = await listBackups();
    const trouble = await databaseTrouble(databaseFile(), last ? path.join(backupFolder(), last.name) : null);
    if (trouble) return troubleWords(trouble);
    await backUpBeforeUpdate().catch((error: Error) => say(`No backup before the update: ${error.message}`));
  } else {
    const trouble = await serverTrouble(databaseClient(), databaseAddress());
    if (trouble) return troubleWords(trouble);
  }
  await migrateDatabase();
  return null;
}
