import { existsSync } from 'node:fs';
import { copyFile, link, mkdir, mkdtemp, rename, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { closeDatabase, databaseFile, isFileDatabase, migrateFile } from '../db/client';
import { isServed } from '../db/serverLock';
import { Failure } from '../failure';
import { restoreToServer } from './byTables';
import { notABackup } from './archive';
import { companionsOf, syncFile, syncFolder } from './files';
import { sqliteCode, withDatabaseFile } from './openFile';
import { checkVersion, openChecked } from './verify';

export type RestoreResult = {
  /** The database as it was before, beside the new one; null where there was none. */
  readonly before: string | null;
};

/**
 * Puts a backup in the place of the database. The new file is built and proven beside it, then takes its
 * name in one rename: whenever
 * this stops, the database is the old one or the new one, whole. The old one is kept.
 * @throws Failure where the backup cannot be used, or another process has the database open
 */
export async function restore(archive: string): Promise<RestoreResult> {
  if (!isFileDatabase()) return restoreRemotely(archive);
  const target = databaseFile();
  const staged = `${target}.restoring-${process.pid}`;
  if (await isServed(target)) throw inUse();
  await mkdir(path.dirname(target), { recursive: true });
  try {
    await openChecked(archive, staged);
    await checkVersion(staged);
    await migrateFile(staged);
    if (!(await foldJournal(staged))) throw notABackup('its database is damaged');
    await syncFile(staged);
    closeDatabase();
    const before = await setAside(target);
    await rename(staged, target);
    await syncFolder(path.dirname(target));
    return { before };
  } finally {
    for (const file of companionsOf(staged)) await rm(file, { force: true });
  }
}

/** To a server's empty database, from a copy that is proven here first. */
async function restoreRemotely(archive: string): Promise<RestoreResult> {
  const folder = await mkdtemp(path.join(tmpdir(), 'idle-wander-restore-'));
  const staged = path.join(folder, 'staged.db');
  try {
    await openChecked(archive, staged);
    await checkVersion(staged);
    await migrateFile(staged);
    await restoreToServer(staged);
    return { before: null };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** The name a database keeps when a backup takes its place. */
export const setAsideName = (target: string, stamp: string): string =>
  `${target.replace(/\.db$/, '')}-before-restore-${stamp}.db`;

/** Gives the old database a second name. Its first name stays until the rename replaces it. */
async function setAside(target: string): Promise<string | null> {
  if (!existsSync(target)) return null;
  const stamp = new Date().toISOString().replace(/[:.]/g, '-');
  const before = setAsideName(target, stamp);
  const isWhole = await foldJournal(target);
  const [, ...companions] = companionsOf(target);
  for (const file of companions) {
    // the journal of a database too damaged to be opened may be what it can be repaired from
    if (isWhole) await rm(file, { force: true });
    else if (existsSync(file)) await rename(file, before + file.slice(target.length));
  }
  await link(target, before).catch(() => copyFile(target, before));
  return before;
}

const PATIENCE_MS = 1_000;

/**
 * Writes the journal into its database file and empties it
 * (https://www.sqlite.org/pragma.html#pragma_wal_checkpoint).
 * @returns false where the database is too damaged for that
 * @throws Failure where somebody is reading or writing it
 */
async function foldJournal(file: string): Promise<boolean> {
  try {
    const fold = 'PRAGMA wal_checkpoint(TRUNCATE)';
    const { rows } = await withDatabaseFile(file, (client) => client.execute(fold), PATIENCE_MS);
    if (rows[0]?.['busy'] === 1) throw inUse();
    return true;
  } catch (error) {
    const code = sqliteCode(error) ?? '';
    if (code.startsWith('SQLITE_BUSY') || code.startsWith('SQLITE_LOCKED')) throw inUse();
    if (code.startsWith('SQLITE_NOTADB') || code.startsWith('SQLITE_CORRUPT')) return false;
    throw error;
  }
}

const inUse = (): Failure =>
  new Failure(409, {
    code: 'restore.in-use',
    message: 'Idle Wander is running on this database. Nothing was changed.',
    suggestion: 'Stop it, then restore again.',
  });
