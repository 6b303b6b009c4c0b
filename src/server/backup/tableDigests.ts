import { createHash, type Hash } from 'node:crypto';
import type { Client, Row } from '@libsql/client';
import { sqlName } from './openFile';

/** How many rows a table has, and the SHA-256 of them all in order of rowid. */
export type TableDigest = { readonly rows: number; readonly sha256: string };
export type TableDigests = Readonly<Record<string, TableDigest>>;

/** Rows are read in pages: chunks of sound are large, and a database is larger than memory. */
const PAGE = 64;

/**
 * A digest of every table but SQLite's own, by name. Two databases hold the same rows where these are equal.
 */
export async function tableDigests(client: Client): Promise<TableDigests> {
  const tables = await client.execute(
    "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' ORDER BY name",
  );
  const digests: Record<string, TableDigest> = {};
  for (const table of tables.rows) {
    const name = String(table['name']);
    digests[name] = await digestOf(client, name);
  }
  return digests;
}

async function digestOf(client: Client, table: string): Promise<TableDigest> {
  const hash = createHash('sha256');
  let [rows, last] = [0, -1];
  for (;;) {
    const page = await client.execute({
      sql: `SELECT rowid AS "rowid of digest", * FROM ${sqlName(table)} WHERE rowid > ? ORDER BY rowid LIMIT ${PAGE}`,
      args: [last],
    });
    for (const row of page.rows) addRow(hash, row, page.columns.length);
    rows += page.rows.length;
    const end = page.rows.at(-1);
    if (!end || page.rows.length < PAGE) return { rows, sha256: hash.digest('hex') };
    last = Number(end[0]);
  }
}

/**
 * Each value with its type and length before it, so that no two rows read alike. The rowid itself is left out.
 */
function addRow(hash: Hash, row: Row, columns: number): void {
  for (let column = 1; column < columns; column++) {
    const value = row[column];
    const isBlob = value instanceof ArrayBuffer;
    const bytes = isBlob ? Buffer.from(value) : Buffer.from(String(value ?? ''));
    hash.update(`${value === null ? 'null' : typeof value}:${bytes.length}:`).update(bytes);
  }
}

/** The first table in which two databases differ; null where they are equal. */
export function differingTable(expected: TableDigests, found: TableDigests): string | null {
  const names = new Set([...Object.keys(expected), ...Object.keys(found)]);
  for (const name of names) {
    const [one, other] = [expected[name], found[name]];
    if (one?.rows !== other?.rows || one?.sha256 !== other?.sha256) return name;
  }
  return null;
}
