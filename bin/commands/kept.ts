import path from 'node:path';
import { fileURLToPath } from 'node:url';
import {
  closeDatabase,
  databaseAddress,
  databaseClient,
  databaseFile,
  isFileDatabase,
} from '@/server/db/client';
import { databaseTrouble, serverTrouble } from '@/server/db/databaseTrouble';
import { Failure } from '@/server/failure';
import { BadInput, sentence } from './exit';

/** The command may be called from anywhere; what is kept lies with the program. */
const HOME = path.join(path.dirname(fileURLToPath(import.meta.url)), '..', '..');

/** Work on what is kept: the database opened and closed, its refusals as bad input. */
export async function onWhatIsKept<T>(work: () => Promise<T>): Promise<T> {
  const from = process.cwd();
  process.chdir(HOME);
  try {
    return await work();
  } catch (error) {
    if (error instanceof Failure) throw new BadInput(sentence(error.problem));
    const trouble = isFileDatabase()
      ? await databaseTrouble(databaseFile())
      : await serverTrouble(databaseClient(), databaseAddress());
    if (trouble) throw new BadInput([trouble.happened, trouble.safe, trouble.todo].join('\n'));
    throw error;
  } finally {
    closeDatabase();
    process.chdir(from);
  }
}
