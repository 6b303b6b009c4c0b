import { mkdirSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { createClient } from '@libsql/client';
import { drizzle } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { Failure } from '../failure';
import * as schema from './schema';

export const DEFAULT_DATABASE = 'file:./data/idle-wander.db';

function connect() {
  const url = process.env.DATABASE_URL ?? DEFAULT_DATABASE;
  if (url.startsWith('file:'))
    mkdirSync(path.dirname(path.resolve(url.slice('file:'.length))), { recursive: true });
  const client = createClient({ url, timeout: 5000 });
  return { client, db: drizzle(client, { schema, casing: 'snake_case' }) };
}

type DatabaseConnection = ReturnType<typeof connect>;
export type Database = DatabaseConnection['db'];
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

// one client a process: development reloads modules, and each reload must not open another pool
const held = globalThis as { idleWander?: { connection: DatabaseConnection; writes: Promise<unknown> } };

function state() {
  return (held.idleWander ??= { connection: connect(), writes: Promise.resolve() });
}

export const database = (): Database => state().connection.db;

/**
 * One write after another, each in a transaction: SQLite has one writer, and a second one in the same
 * process would not wait but fail.
 * Inside `work` nothing but the database may be awaited.
 */
export function write<T>(work: (tx: Transaction) => Promise<T>): Promise<T> {
  const now = state();
  const next = now.writes.then(() => now.connection.db.transaction(work));
  now.writes = next.catch(() => undefined);
  return next;
}

/** Whether the database is a file of this machine, and not on a server elsewhere. */
export const isFileDatabase = (): boolean =>
  (process.env.DATABASE_URL ?? DEFAULT_DATABASE).startsWith('file:');

const migrations = (): string => path.resolve('drizzle');

/** The file all is kept in. Only a file can be backed up from here; a database elsewhere has its own keeper. */
export function databaseFile(): string {
  const url = process.env.DATABASE_URL ?? DEFAULT_DATABASE;
  if (!url.startsWith('file:'))
    throw new Failure(422, {
      code: 'database.remote',
      message: 'The database lies on another machine.',
      suggestion: 'Back it up there.',
    });
  return path.resolve(url.slice('file:'.length));
}

/** How many steps the newest schema is from the first. */
export async function knownMigrations(folder = migrations()): Promise<number> {
  return (
    JSON.parse(await readFile(path.join(folder, 'meta/_journal.json'), 'utf8')) as { entries: unknown[] }
  ).entries.length;
}

/** Brings another database file to the newest schema. */
export async function migrateFile(file: string, folder = migrations()): Promise<void> {
  const client = createClient({ url: `file:${file}` });
  try {
    await migrate(drizzle(client), { migrationsFolder: folder });
  } finally {
    client.close();
  }
}

/** Brings the database to the newest schema; forward only. */
export async function migrateDatabase(folder = migrations()): Promise<void> {
  const { client, db } = state().connection;
  if (isFileDatabase()) await client.execute('PRAGMA journal_mode = WAL');
  await client.execute('PRAGMA foreign_keys = ON');
  await migrate(db, { migrationsFolder: folder });
}

/** For tests and scripts that open another database in the same process. */
export function closeDatabase(): void {
  held.idleWander?.connection.client.close();
  delete held.idleWander;
}
