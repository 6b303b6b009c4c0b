import { check, lock } from 'proper-lockfile';

/** A lock that was not renewed for this long belongs to a process that is gone. */
const STALE_MS = 15_000;

const options = (file: string) => ({ lockfilePath: `${file}.in-use`, realpath: false, stale: STALE_MS });

/**
 * Says that this process serves a database file, for as long as it runs. Other processes may still open the
 * file: SQLite keeps them
 * apart; only putting another file in its place must wait.
 * @returns what gives the lock back; null where another process holds it
 */
export async function lockForServing(file: string): Promise<(() => Promise<void>) | null> {
  try {
    return await lock(file, {
      ...options(file),
      onCompromised: (error) => console.warn(`The lock beside the database was lost: ${error.message}`),
    });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ELOCKED') return null;
    throw error;
  }
}

/** Whether a process serves this database file now. */
export const isServed = (file: string): Promise<boolean> => check(file, options(file));
