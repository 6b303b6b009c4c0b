import { constants, existsSync } from 'node:fs';
import { access, mkdir, stat } from 'node:fs/promises';
import path from 'node:path';
import type { Client } from '@libsql/client';
import { sqliteCode, withDatabaseFile } from '../backup/openFile';
import { knownMigrations } from './client';

/** Why nothing can be served from a database: what happened, what is safe, what to do. */
export type DatabaseTrouble = { readonly happened: string; readonly safe: string; readonly todo: string };

/** A larger file is read through by backups and on demand, not at each start. */
const CHECKED_BYTES = 512 * 1024 * 1024;

const UNTOUCHED = 'Nothing was changed.';
const restoring = (backup: string | null): string =>
  backup === null
    ? 'Restore a backup by “wander restore”, or give the file another name to begin with an empty database.'
    : `Restore the last backup: wander restore ${backup}`;

/**
 * Looks at a database before anything is opened: can it be written, read, is it whole, and does this program
 * know its schema?
 * @param backup the newest backup beside it, named in the way out
 * @returns null where all is well, or there is no file yet
 */
export async function databaseTrouble(
  file: string,
  backup: string | null = null,
): Promise<DatabaseTrouble | null> {
  const folder = path.dirname(file);
  try {
    await mkdir(folder, { recursive: true });
    await access(folder, constants.W_OK);
    if (!existsSync(file)) return null;
    await access(file, constants.R_OK | constants.W_OK);
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code ?? '';
    return {
      happened: `${existsSync(file) ? file : folder} cannot be written (${code}).`,
      safe: UNTOUCHED,
      todo: 'Give this account the right to write there, or set DATABASE_URL=file:/another/place.db.',
    };
  }
  try {
    return await withDatabaseFile(file, async (client) => {
      const tables = await client.execute("SELECT name FROM sqlite_master WHERE type = 'table'");
      if ((await stat(file)).size <= CHECKED_BYTES) {
        const { rows } = await client.execute('PRAGMA quick_check(1)');
        if (rows[0]?.[0] !== 'ok') return damaged(file, backup);
      }
      if (!tables.rows.some(({ name }) => name === '__drizzle_migrations')) return null;
      const made = await client.execute('SELECT count(*) FROM __drizzle_migrations');
      return Number(made.rows[0]?.[0]) > (await knownMigrations()) ? newer(file) : null;
    });
  } catch (error) {
    const code = sqliteCode(error) ?? '';
    if (code.startsWith('SQLITE_NOTADB') || code.startsWith('SQLITE_CORRUPT')) return damaged(file, backup);
    if (code.startsWith('SQLITE_BUSY') || code.startsWith('SQLITE_LOCKED')) return locked(file);
    if (code === '') throw error;
    return { happened: `${file} cannot be opened (${code}).`, safe: UNTOUCHED, todo: restoring(backup) };
  }
}

/**
 * Looks at a database on a server before it is used: does it answer, does it take the token, does it keep rows that
 * belong together, and does this program know its schema?
 */
export async function serverTrouble(client: Client, url: string): Promise<DatabaseTrouble | null> {
  try {
    const { rows } = await client.execute('PRAGMA foreign_keys');
    if (Number(rows[0]?.[0]) !== 1)
      return {
        happened: `The database at ${url} does not enforce foreign keys.`,
        safe: UNTOUCHED,
        todo: 'Turn them on there: without them a removed take would leave its sound behind.',
      };
    const tables = await client.execute("SELECT 1 FROM sqlite_master WHERE name = '__drizzle_migrations'");
    if (tables.rows.length === 0) return null;
    const made = await client.execute('SELECT count(*) FROM __drizzle_migrations');
    return Number(made.rows[0]?.[0]) > (await knownMigrations()) ? newer(url) : null;
  } catch (error) {
    return {
      happened: `The database at ${url} does not answer: ${reasonOf(error)}.`,
      safe: UNTOUCHED,
      todo: 'Look whether its address in DATABASE_URL and its token in DATABASE_TOKEN are right, and whether it runs.',
    };
  }
}

/** What lies at the bottom of an error: “fetch failed” says nothing. */
function reasonOf(error: unknown): string {
  const { cause, message } = error as { cause?: unknown; message?: string };
  if (cause instanceof Error) return reasonOf(cause);
  return (message ?? String(error)).replace(/\/\/[^/@\s]*@/g, '//').replace(/\.$/, '');
}

const damaged = (file: string, backup: string | null): DatabaseTrouble => ({
  happened: `The database ${file} is damaged.`,
  safe: `${UNTOUCHED} The file is kept as it is when a backup takes its place.`,
  todo: restoring(backup),
});

const newer = (file: string): DatabaseTrouble => ({
  happened: `The database ${file} was written by a newer version of Idle Wander.`,
  safe: UNTOUCHED,
  todo: 'Update this program, or restore a backup from before: they lie beside the database.',
});

const locked = (file: string): DatabaseTrouble => ({
  happened: `Another program holds the database ${file}.`,
  safe: UNTOUCHED,
  todo: 'Close it, then start again.',
});

/** As it is printed: three short paragraphs, never a stack. */
export const troubleWords = ({ happened, safe, todo }: DatabaseTrouble): string =>
  `\nIdle Wander cannot start.\n\n  ${happened}\n  ${safe}\n  ${todo}\n`;
