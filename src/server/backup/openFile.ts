import { createClient, type Client } from '@libsql/client';

/**
 * Runs `work` on a database file by a connection of its own, which is closed in every case.
 * @param patienceMs how long another writer is waited for
 */
export async function withDatabaseFile<T>(
  file: string,
  work: (client: Client) => Promise<T>,
  patienceMs = 10_000,
): Promise<T> {
  const client = createClient({ url: `file:${file}`, timeout: patienceMs });
  try {
    return await work(client);
  } finally {
    client.close();
  }
}

/** Text as an SQL string literal. */
export const sqlText = (text: string): string => `'${text.replaceAll("'", "''")}'`;

/** A table or column name as an SQL identifier. */
export const sqlName = (name: string): string => `"${name.replaceAll('"', '""')}"`;

/**
 * The SQLite result code of an error of the client, or of the error it wraps: `SQLITE_BUSY`, `SQLITE_NOTADB`.
 */
export function sqliteCode(error: unknown): string | null {
  if (typeof error !== 'object' || error === null) return null;
  const { code, cause } = error as { code?: unknown; cause?: unknown };
  return typeof code === 'string' && code.startsWith('SQLITE_') ? code : sqliteCode(cause);
}
