import type { Client, InStatement, Row, Transaction } from '@libsql/client';
import { databaseClient, migrateDatabase, migrateFile } from '../db/client';
import { persistently } from '../db/remote';
import { Failure } from '../failure';
import { sqlName, withDatabaseFile } from './openFile';
import { differingTable, tableDigests, type TableDigests } from './tableDigests';

/** Rows at a time: a piece of sound has a hundred kilobytes, and a server takes some megabytes in one request. */
const PAGE = 16;
/** Tables that say how a database came about, not what is kept in it. */
const OWN = ['__drizzle_migrations', 'completed_writes'];
/** Stands among the completed writes for as long as a backup is being written to a server. */
const MARK = 'being-restored';
/** A restore may be begun again whenever: its mark is not let go with old writes. */
const NEVER_OLD = Number.MAX_SAFE_INTEGER;

type Reader = Pick<Client, 'execute'> | Pick<Transaction, 'execute'>;

async function tablesOf(reader: Reader): Promise<string[]> {
  const { rows } = await reader.execute(
    "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' ORDER BY name",
  );
  return rows.map((row) => String(row['name'])).filter((name) => !OWN.includes(name));
}

/** The rows of a table in pages, by rowid; columns that are computed from others are left out. */
async function* pagesOf(reader: Reader, table: string): AsyncGenerator<readonly Row[]> {
  const columns = await reader.execute(`PRAGMA table_info(${sqlName(table)})`);
  const names = columns.rows.map((row) => sqlName(String(row['name']))).join(', ');
  for (let last: unknown = -1; ;) {
    const { rows } = await reader.execute({
      sql: `SELECT rowid AS "rowid of copy", ${names} FROM ${sqlName(table)} WHERE rowid > ? ORDER BY rowid LIMIT ${PAGE}`,
      args: [last as number],
    });
    if (rows.length > 0) yield rows;
    if (rows.length < PAGE) return;
    last = rows.at(-1)?.[0];
  }
}

/** The same row in another database of this schema, under the same rowid; one that is there already is left. */
function insertOf(table: string, row: Row): InStatement {
  const names = Object.keys(row)
    .slice(1)
    .map((name) => sqlName(name));
  const values = Array.from({ length: row.length }, (_, column) => row[column] ?? null);
  return {
    sql: `INSERT OR IGNORE INTO ${sqlName(table)} (rowid, ${names.join(', ')}) VALUES (${values.map(() => '?').join(', ')})`,
    args: values,
  };
}

/** Copies a database on a server to a new file here, table by table out of one state of it. */
export async function copyFromServer(file: string): Promise<void> {
  await persistently(async () => {
    await migrateFile(file);
    const reading = await databaseClient().transaction('read');
    try {
      await withDatabaseFile(file, async (copy) => {
        await copy.execute('PRAGMA foreign_keys = OFF');
        for (const table of await tablesOf(copy)) {
          await copy.execute(`DELETE FROM ${sqlName(table)}`);
          for await (const rows of pagesOf(reading, table))
            await copy.batch(
              rows.map((row) => insertOf(table, row)),
              'write',
            );
        }
      });
    } finally {
      reading.close();
    }
  });
}

/**
 * Writes a proven backup to a database on a server that holds nothing yet, and compares both table by table. Where
 * it is broken off it can be begun again; a database that is used is never written to.
 * @param staged the backup's database, at the newest schema
 */
export async function restoreToServer(staged: string): Promise<void> {
  await migrateDatabase();
  const server = databaseClient();
  if (!(await canBeFilled(server))) throw notEmpty();
  const mark = 'INSERT OR IGNORE INTO completed_writes (id, at) VALUES (?, ?)';
  await persistently(() => server.execute({ sql: mark, args: [MARK, NEVER_OLD] }));
  await withDatabaseFile(staged, async (backup) => {
    const tables = await inOrderOfNeed(backup);
    for (const table of [...tables].reverse())
      await persistently(() => server.execute(`DELETE FROM ${sqlName(table)}`));
    for (const table of tables)
      for await (const rows of pagesOf(backup, table)) {
        const inserts = rows.map((row) => insertOf(table, row));
        await persistently(() => server.batch(inserts, 'write'));
      }
    const differs = differingTable(kept(await tableDigests(backup)), kept(await tableDigests(server)));
    if (differs !== null) throw new Error(`The table ${differs} on the server differs from the backup.`);
  });
  await persistently(() =>
    server.execute({ sql: 'DELETE FROM completed_writes WHERE id = ?', args: [MARK] }),
  );
}

const kept = (digests: TableDigests): TableDigests =>
  Object.fromEntries(Object.entries(digests).filter(([name]) => !OWN.includes(name)));

/** Empty, or left by a restore that was broken off. What the program writes at every start does not count. */
async function canBeFilled(server: Client): Promise<boolean> {
  const marked = await server.execute({ sql: 'SELECT 1 FROM completed_writes WHERE id = ?', args: [MARK] });
  if (marked.rows.length > 0) return true;
  for (const table of (await tablesOf(server)).filter((name) => name !== 'settings')) {
    const { rows } = await server.execute(`SELECT 1 FROM ${sqlName(table)} LIMIT 1`);
    if (rows.length > 0) return false;
  }
  return true;
}

/** Each table after those its rows point to. */
async function inOrderOfNeed(reader: Reader): Promise<string[]> {
  const ordered: string[] = [];
  const visit = async (table: string, above: readonly string[]): Promise<void> => {
    if (ordered.includes(table) || above.includes(table)) return;
    const { rows } = await reader.execute(`PRAGMA foreign_key_list(${sqlName(table)})`);
    for (const row of rows) await visit(String(row['table']), [...above, table]);
    ordered.push(table);
  };
  for (const table of await tablesOf(reader)) await visit(table, []);
  return ordered;
}

const notEmpty = (): Failure =>
  new Failure(409, {
    code: 'restore.not-empty',
    message: 'The database on the server is not empty. Nothing was changed.',
    suggestion: 'Make an empty one there, name it in DATABASE_URL, then restore again.',
  });
