import { mkdirSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { createClient, type Client } from '@libsql/client';
import { drizzle } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { eq, lt } from 'drizzle-orm';
import { Failure } from '../failure';
import { newId } from '../ids';
import { askServer, persistently } from './remote';
import { completedWrites } from './schema';
import * as schema from './schema';

export const DEFAULT_DATABASE = 'file:./data/idle-wander.db';

/** A database of this machine, or on a server elsewhere that `DATABASE_TOKEN` opens. */
function connect() {
  const url = process.env.DATABASE_URL ?? DEFAULT_DATABASE;
  if (url.startsWith('file:'))
    mkdirSync(path.dirname(path.resolve(url.slice('file:'.length))), { recursive: true });
  const client = isFileDatabase()
    ? createClient({ url, timeout: 5000 })
    : createClient({ url, fetch: askServer, ...tokenFrom(process.env.DATABASE_TOKEN) });
  return { client, db: drizzle(client, { schema, casing: 'snake_case' }) };
}

const tokenFrom = (authToken: string | undefined) => (authToken ? { authToken } : {});

type DatabaseConnection = ReturnType<typeof connect>;
export type Database = DatabaseConnection['db'];
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

// one client a process: development reloads modules, and each reload must not open another pool
const held = globalThis as { idleWander?: { connection: DatabaseConnection; writes: Promise<unknown> } };

function state() {
  return (held.idleWander ??= { connection: connect(), writes: Promise.resolve() });
}

/** The connection itself, for what is copied table by table. */
export const databaseClient = (): Client => state().connection.client;

export const database = (): Database => state().connection.db;

/**
 * One write after another, each in a transaction: SQLite has one writer, and a second one in the same
 * process would not wait but fail.
 * Inside `work` nothing but the database may be awaited.
 */
export function write<T>(work: (tx: Transaction) => Promise<T>): Promise<T> {
  const now = state();
  const { db } = now.connection;
  const next = now.writes.then(() => (isFileDatabase() ? db.transaction(work) : writeOnce(db, work)));
  now.writes = next.catch(() => undefined);
  return next;
}

/**
 * A transaction on a server: tried again where the connection is lost or another server writes. Whether one whose
 * end was not heard of took place, the database itself can tell.
 */
function writeOnce<T>(db: Database, work: (tx: Transaction) => Promise<T>): Promise<T> {
  const id = newId();
  let done: { readonly value: T } | null = null;
  return persistently(() =>
    db.transaction(async (tx) => {
      if (done) {
        const [known] = await tx.select().from(completedWrites).where(eq(completedWrites.id, id));
        if (known) return done.value;
      }
      const value = await work(tx);
      await tx.insert(completedWrites).values({ id, at: Date.now() });
      await forgetOldWrites(tx);
      done = { value };
      return value;
    }),
  );
}

const HOUR_MS = 3_600_000;
let forgottenAt = -Infinity;

/** Nobody asks for a write of yesterday: their names are let go now and then. */
async function forgetOldWrites(tx: Transaction, now = Date.now()): Promise<void> {
  if (now - forgottenAt < HOUR_MS) return;
  await tx.delete(completedWrites).where(lt(completedWrites.at, now - 24 * HOUR_MS));
  forgottenAt = now;
}

/** Whether the database is a file of this machine, and not on a server elsewhere. */
export const isFileDatabase = (): boolean =>
  (process.env.DATABASE_URL ?? DEFAULT_DATABASE).startsWith('file:');

/** Where the database is, without what opens it. */
export const databaseAddress = (): string =>
  (process.env.DATABASE_URL ?? DEFAULT_DATABASE).replace(/[?#].*$/, '').replace(/\/\/[^/@]*@/, '//');

const migrations = (): string => path.resolve('drizzle');

/** The file all is kept in. A database on a server has none. */
export function databaseFile(): string {
  const url = process.env.DATABASE_URL ?? DEFAULT_DATABASE;
  if (!url.startsWith('file:'))
    throw new Failure(422, {
      code: 'database.remote',
      message: 'The database lies on another machine.',
      suggestion: '“wander backup” copies it to a file of this machine.',
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
  // of two servers that start at once one is too late: the next look finds nothing left to do
  const toNewest = () => migrate(db, { migrationsFolder: folder });
  await (isFileDatabase() ? toNewest() : toNewest().catch(toNewest));
}

/** For tests and scripts that open another database in the same process. */
export function closeDatabase(): void {
  held.idleWander?.connection.client.close();
  delete held.idleWander;
  forgottenAt = -Infinity;
}
