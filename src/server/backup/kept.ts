import { existsSync } from 'node:fs';
import { mkdir, readdir, rename, rm, stat, statfs } from 'node:fs/promises';
import path from 'node:path';
import { databaseFile, isFileDatabase, knownMigrations } from '../db/client';
import { Failure } from '../failure';
import { manifestOf, type BackupManifest } from './archive';
import { backUp, type BackupPhase } from './backUp';
import { syncFolder } from './files';
import { withDatabaseFile } from './openFile';

/** Why a backup was made: each day, before a new version changed the database, by the player, or brought in as a file. */
export const BACKUP_KINDS = ['daily', 'before-update', 'asked', 'brought'] as const;
export type BackupKind = (typeof BACKUP_KINDS)[number];

/** What is in a backup, counted. */
export type BackupContents = { readonly takes: number; readonly charts: number; readonly drills: number };

export type KeptBackup = {
  /** The file's name in the folder of backups. */
  readonly name: string;
  readonly kind: BackupKind;
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly bytes: number;
  /** Null in a file that cannot be read as a backup. */
  readonly contents: BackupContents | null;
};

/** So many of a kind are kept; what the player asked for or brought is never removed by itself. */
const MOST: Partial<Record<BackupKind, number>> = { daily: 7, 'before-update': 3 };
const DAY_MS = 24 * 3_600_000;
const LOOK_MS = 3_600_000;
/** The first look comes a while after the start, when nobody waits for the disk. */
const FIRST_LOOK_MS = 10 * 60_000;

const NAMED = /^idle-wander-(\d{4}-\d\d-\d\d)T(\d\d)-(\d\d)-(\d\d)-(\d{3})Z-([a-z-]+)\.zip$/;

/** The folder beside the database that holds its backups. */
export const backupFolder = (): string => `${databaseFile().replace(/\.db$/, '')}-backups`;

const nameOf = (kind: BackupKind, at: Date): string =>
  `idle-wander-${at.toISOString().replace(/[:.]/g, '-')}-${kind}.zip`;

/** What a file's name says; null where it is none of ours. */
function readName(name: string): { readonly kind: BackupKind; readonly at: number } | null {
  const [, day, hours, minutes, seconds, ms, word] = NAMED.exec(name) ?? [];
  const kind = BACKUP_KINDS.find((one) => one === word);
  const at = Date.parse(`${day}T${hours}:${minutes}:${seconds}.${ms}Z`);
  return kind && Number.isFinite(at) ? { kind, at } : null;
}

/** The backups beside the database, the newest first. */
export async function listBackups(): Promise<KeptBackup[]> {
  const names = await readdir(backupFolder()).catch(() => [] as string[]);
  const read = names.map(async (name): Promise<KeptBackup[]> => {
    const named = readName(name);
    const file = path.join(backupFolder(), name);
    const size = named ? await stat(file).catch(() => null) : null;
    if (!named || !size?.isFile()) return [];
    const manifest = await manifestOf(file).catch(() => null);
    return [{ name, ...named, bytes: size.size, contents: manifest && counted(manifest) }];
  });
  return (await Promise.all(read)).flat().sort((a, b) => b.at - a.at);
}

const counted = ({ tables }: BackupManifest): BackupContents => ({
  takes: tables['takes']?.rows ?? 0,
  charts: tables['charts']?.rows ?? 0,
  drills: tables['drills']?.rows ?? 0,
});

/**
 * The path of a kept backup.
 * @throws Failure where there is none of that name; a name never becomes a path outside the folder
 */
export async function backupNamed(name: string): Promise<string> {
  const file = path.join(backupFolder(), name);
  if (readName(name) && existsSync(file)) return file;
  throw new Failure(404, {
    code: 'backup.unknown',
    message: 'There is no such backup here.',
    suggestion: 'Choose one from the list in Settings.',
  });
}

/** Saves everything beside the database and removes what is too many of its kind. */
export async function keepBackup(
  kind: BackupKind,
  onPhase?: (phase: BackupPhase) => void,
  now = new Date(),
): Promise<string> {
  const name = nameOf(kind, now);
  await backUp(path.join(backupFolder(), name), onPhase);
  await prune(kind);
  return name;
}

async function prune(kind: BackupKind): Promise<void> {
  const most = MOST[kind];
  if (most === undefined) return;
  const names = (await readdir(backupFolder())).filter((name) => readName(name)?.kind === kind).sort();
  for (const name of names.slice(0, -most)) await removeBackup(name);
}

export async function removeBackup(name: string): Promise<void> {
  await rm(await backupNamed(name));
}

/**
 * Takes a file the player brought into the folder, once it is known to be a backup.
 * @param file written beside the folder's own files; it is moved
 */
export async function bringBackup(file: string, now = new Date()): Promise<string> {
  await manifestOf(file);
  const name = nameOf('brought', now);
  await mkdir(backupFolder(), { recursive: true });
  await rename(file, path.join(backupFolder(), name));
  await syncFolder(backupFolder());
  return name;
}

/** Where an upload is written before it is known to be a backup. */
export async function uploadPath(): Promise<string> {
  await mkdir(backupFolder(), { recursive: true });
  return path.join(backupFolder(), `.brought-${process.pid}-${Date.now()}`);
}

/** Before a new version changes the database: a backup of it as it is. Nothing where it is new or up to date. */
export async function backUpBeforeUpdate(): Promise<string | null> {
  const file = databaseFile();
  if (!existsSync(file)) return null;
  const made = await withDatabaseFile(file, (client) =>
    client.execute('SELECT count(*) FROM __drizzle_migrations'),
  ).catch(() => null);
  const steps = Number(made?.rows[0]?.[0] ?? 0);
  if (steps === 0 || steps >= (await knownMigrations())) return null;
  return keepBackup('before-update');
}

/** A backup each day the program runs, seven kept. @returns what stops it, for tests */
export function startDailyBackups(warn: (words: string) => void = console.warn): () => void {
  if (!isFileDatabase()) return () => undefined;
  const look = () => void backUpDaily().catch((error: Error) => warn(`No daily backup: ${error.message}`));
  const first = setTimeout(look, FIRST_LOOK_MS).unref();
  const again = setInterval(look, LOOK_MS).unref();
  return () => {
    clearTimeout(first);
    clearInterval(again);
  };
}

/**
 * Makes the day's backup where there is none yet and the disk has room for it twice over.
 * @returns its name; null where none was due
 */
export async function backUpDaily(now = new Date()): Promise<string | null> {
  const last = (await listBackups()).find(({ kind }) => kind === 'daily');
  if (last && Math.abs(now.getTime() - last.at) < DAY_MS) return null;
  const { size } = await stat(databaseFile());
  const { bavail, bsize } = await statfs(path.dirname(databaseFile()));
  // the copy, the archive and the trial restore stand beside one another for a moment
  if (bavail * bsize < 4 * size) throw new Error('the disk is nearly full');
  return keepBackup('daily', undefined, now);
}
