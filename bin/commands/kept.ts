import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { closeDatabase } from '@/server/db/client';
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
    throw error;
  } finally {
    closeDatabase();
    process.chdir(from);
  }
}
