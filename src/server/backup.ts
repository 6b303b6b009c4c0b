import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { once } from 'node:events';
import { createClient, type Client } from '@libsql/client';
import { Unzip, UnzipPassThrough, Zip, ZipPassThrough } from 'fflate';
import { databaseFile, knownMigrations, migrateFile, migrateDatabase } from './db/client';
import { Failure } from './failure';

/** The one file of a backup: a whole database, as SQLite writes it. */
const MEMBER = 'idle-wander.db';
/** A plain ZIP counts sizes in 32 bits. */
const MOST_BYTES = 2 ** 32 - 2 ** 20;

const quoted = (text: string): string => `'${text.replaceAll("'", "''")}'`;
const named = (name: string): string => `"${name.replaceAll('"', '""')}"`;

async function withDatabase<T>(file: string, work: (client: Client) => Promise<T>): Promise<T> {
  const client = createClient({ url: `file:${file}`, timeout: 10_000 });
  try {
    return await work(client);
  } finally {
    client.close();
  }
}

/**
 * Writes all that is kept — charts, takes with their sound, words, settings — to one ZIP. Safe while the program runs: SQLite copies a
 * state between two writes. What is half written is removed.
 */
export async function backUp(out: string): Promise<{ bytes: number }> {
  const source = databaseFile();
  const copy = `${path.resolve(out)}.writing`;
  await mkdir(path.dirname(copy), { recursive: true });
  await rm(copy, { force: true });
  try {
    await withDatabase(source, (client) => client.execute(`VACUUM INTO ${quoted(copy)}`));
    if ((await stat(copy)).size > MOST_BYTES) throw new Failure(413, { code: 'backup.too-large', message: 'More is kept than one ZIP can hold, 4 GB.', suggestion: 'Let old sound go in Settings, or copy the database file.' });
    await pack(copy, out);
    return { bytes: (await stat(out)).size };
  } catch (error) {
    await rm(out, { force: true });
    throw error;
  } finally {
    await rm(copy, { force: true });
  }
}

/** FLAC does not shrink any more: the database goes in as it is, piece by piece. */
async function pack(file: string, out: string): Promise<void> {
  const sink = createWriteStream(out);
  const zip = new Zip((error, piece) => { if (error) sink.destroy(error); else sink.write(piece); });
  const member = new ZipPassThrough(MEMBER);
  zip.add(member);
  for await (const piece of createReadStream(file, { highWaterMark: 1 << 20 }) as AsyncIterable<Buffer>) {
    member.push(piece);
    if (sink.writableNeedDrain) await once(sink, 'drain');
  }
  member.push(new Uint8Array(0), true);
  zip.end();
  sink.end();
  await once(sink, 'finish');
}

const notABackup = (why: string): Failure => new Failure(422, { code: 'backup.unreadable', message: `This is not a backup of Idle Wander: ${why}.`, suggestion: 'Choose a .zip that “backup” wrote.' });

/**
 * Puts a backup in the place of all that is kept, in one transaction: all of it, or nothing. What was there before is written beside the
 * database first, and its path is given back.
 */
export async function restore(archive: string): Promise<{ before: string }> {
  await migrateDatabase();
  const target = databaseFile();
  const unpacked = `${target}.restoring`;
  try {
    await unpack(archive, unpacked);
    await checked(unpacked);
    await migrateFile(unpacked);
    const before = `${target.replace(/\.db$/, '')}-before-restore-${new Date().toISOString().replace(/[:.]/g, '-')}.db`;
    await withDatabase(target, async (client) => {
      await client.execute(`VACUUM INTO ${quoted(before)}`);
      await client.executeMultiple(await replacing(client, unpacked));
    });
    return { before };
  } finally {
    for (const left of ['', '-wal', '-shm']) await rm(unpacked + left, { force: true });
  }
}

/** The database out of its ZIP, piece by piece; other names in it are never written anywhere. */
async function unpack(archive: string, file: string): Promise<void> {
  const sink = createWriteStream(file);
  let [found, ended, failed] = [false, false, null as Error | null];
  const unzip = new Unzip((member) => {
    if (member.name !== MEMBER || found) return;
    found = true;
    member.ondata = (error, piece, last) => {
      if (error) failed = error;
      else sink.write(piece);
      ended ||= last;
    };
    member.start();
  });
  unzip.register(UnzipPassThrough);
  try {
    for await (const piece of createReadStream(archive, { highWaterMark: 1 << 20 }) as AsyncIterable<Buffer>) {
      unzip.push(piece);
      if (failed) break;
      if (sink.writableNeedDrain) await once(sink, 'drain');
    }
    if (!failed) unzip.push(new Uint8Array(0), true);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).syscall) throw error;
    failed = error as Error;
  } finally {
    sink.end();
    await once(sink, 'close');
  }
  if (failed || !found) throw notABackup('there is no database in it');
  if (!ended) throw notABackup('it breaks off in the middle');
}

async function checked(file: string): Promise<void> {
  const { known, made } = await withDatabase(file, async (client) => {
    const whole = await client.execute('PRAGMA integrity_check');
    if (whole.rows[0]?.[0] !== 'ok') throw notABackup('its database is damaged');
    const { rows } = await client.execute('SELECT count(*) FROM __drizzle_migrations');
    return { known: await knownMigrations(), made: Number(rows[0]?.[0]) };
  }).catch((error: unknown) => { throw error instanceof Failure ? error : notABackup('its database cannot be opened'); });
  if (made > known) throw new Failure(409, { code: 'backup.newer', message: 'This backup was written by a newer version.', suggestion: 'Bring this program up to date first.' });
}

/** Every table emptied and filled from the backup. Foreign keys are asked at the end, when all rows are there. */
async function replacing(client: Client, from: string): Promise<string> {
  const { rows } = await client.execute("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name <> '__drizzle_migrations'");
  const statements: string[] = [];
  for (const name of rows.map((row) => String(row[0]))) {
    const { rows: columns } = await client.execute(`SELECT name FROM pragma_table_info(${quoted(name)})`);
    const list = columns.map((row) => named(String(row[0]))).join(', ');
    statements.push(`DELETE FROM main.${named(name)};`, `INSERT INTO main.${named(name)} (${list}) SELECT ${list} FROM saved.${named(name)};`);
  }
  return `ATTACH ${quoted(from)} AS saved; BEGIN IMMEDIATE; PRAGMA defer_foreign_keys = ON; ${statements.join(' ')} COMMIT; DETACH saved;`;
}
