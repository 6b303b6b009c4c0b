import { createReadStream, createWriteStream } from 'node:fs';
import { statfs } from 'node:fs/promises';
import path from 'node:path';
import { Readable, Transform } from 'node:stream';
import { text } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import { crc32 } from 'node:zlib';
import Joi from 'joi';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import yazl from 'yazl';
import { Failure } from '../failure';
import type { TableDigests } from './tableDigests';

/** The whole database, as SQLite writes it, and what is in it. */
const DATABASE = 'idle-wander.db';
const MANIFEST = 'manifest.json';
const MANIFEST_BYTES = 1024 * 1024;

export const BACKUP_SCHEMA = 'idle-wander/backup@1';

/** What a backup says of itself: its tables are compared with this before it is trusted. */
export type BackupManifest = { readonly schema: typeof BACKUP_SCHEMA; readonly tables: TableDigests };

const manifestSchema = Joi.object<BackupManifest>({
  schema: Joi.string().valid(BACKUP_SCHEMA).required(),
  tables: Joi.object()
    .pattern(
      Joi.string().max(200),
      Joi.object({
        rows: Joi.number().integer().min(0).required(),
        sha256: Joi.string().hex().length(64).required(),
      }),
    )
    .required(),
});

export const notABackup = (why: string): Failure =>
  new Failure(422, {
    code: 'backup.unreadable',
    message: `This is not a backup of Idle Wander: ${why}.`,
    suggestion: 'Choose a .zip that “backup” wrote.',
  });

/**
 * Writes a database file and its manifest as a ZIP, stored as they are (FLAC does not shrink further), and
 * syncs it.
 */
export async function writeArchive(
  databaseFile: string,
  manifest: BackupManifest,
  out: string,
): Promise<void> {
  const zip = new yazl.ZipFile();
  zip.addBuffer(Buffer.from(JSON.stringify(manifest, null, 1)), MANIFEST);
  zip.addReadStreamLazy(DATABASE, { compress: false }, (give) => {
    // what cannot be read any more ends the writing, not the server
    const fail = (error: Error) => (zip.outputStream as Readable).destroy(error);
    give(null, createReadStream(databaseFile).on('error', fail));
  });
  zip.end();
  await pipeline(Readable.from(zip.outputStream), createWriteStream(out, { flush: true }));
}

/**
 * Takes the database out of a backup into `file`. Members are found by the central directory (PKWARE
 * APPNOTE 6.3.10, section 4.3.12),
 * never by looking for signatures, which a stored database may itself contain; sizes and CRC-32 are checked.
 * @returns the manifest; null in backups written before there was one
 * @throws Failure where the archive is none of ours, is cut off or damaged, or does not fit on the disk
 */
export async function readArchive(archive: string, file: string): Promise<BackupManifest | null> {
  const zip = await yauzl.openPromise(archive, { lazyEntries: true, autoClose: false }).catch(unreadable);
  try {
    const members = await membersOf(zip);
    const database = members.get(DATABASE);
    if (!database) throw notABackup('there is no database in it');
    await checkRoom(database.uncompressedSize, path.dirname(file));
    const manifest = members.get(MANIFEST);
    const read = manifest ? await readManifest(zip, manifest) : null;
    await extract(zip, database, file);
    return read;
  } catch (error) {
    return unreadable(error);
  } finally {
    zip.close();
  }
}

/**
 * What a backup says is in it, without unpacking it; null in backups written before there was a manifest.
 * @throws Failure where it is no backup
 */
export async function manifestOf(archive: string): Promise<BackupManifest | null> {
  const zip = await yauzl.openPromise(archive, { lazyEntries: true, autoClose: false }).catch(unreadable);
  try {
    const members = await membersOf(zip);
    if (!members.has(DATABASE)) throw notABackup('there is no database in it');
    const manifest = members.get(MANIFEST);
    return manifest ? await readManifest(zip, manifest) : null;
  } catch (error) {
    return unreadable(error);
  } finally {
    zip.close();
  }
}

/** Errors of the file system pass; all else that goes wrong while reading is the archive's fault. */
function unreadable(error: unknown): never {
  if (error instanceof Failure || (error as NodeJS.ErrnoException).syscall) throw error;
  throw notABackup('it is cut off or damaged');
}

async function membersOf(zip: ZipFile): Promise<ReadonlyMap<string, Entry>> {
  const members = new Map<string, Entry>();
  for await (const entry of zip.eachEntry()) {
    if (entry.fileName === DATABASE || entry.fileName === MANIFEST) members.set(entry.fileName, entry);
  }
  return members;
}

async function checkRoom(bytes: number, folder: string): Promise<void> {
  const { bavail, bsize } = await statfs(folder);
  if (bytes < bavail * bsize) return;
  throw new Failure(422, {
    code: 'backup.no-room',
    message: `This backup needs ${Math.ceil(bytes / 1e6)} MB, and the disk has ${Math.floor((bavail * bsize) / 1e6)} MB left.`,
    suggestion: 'Make room on the disk, then restore again. Nothing was changed.',
  });
}

async function readManifest(zip: ZipFile, entry: Entry): Promise<BackupManifest> {
  if (entry.uncompressedSize > MANIFEST_BYTES) throw notABackup('its table of contents is too large');
  const content = await text((await zip.openReadStreamPromise(entry)).pipe(checkedCrc(entry)));
  const { error, value } = manifestSchema.validate(JSON.parse(content), { convert: false });
  if (error) throw notABackup(`its table of contents is wrong: ${error.message}`);
  return value;
}

async function extract(zip: ZipFile, entry: Entry, file: string): Promise<void> {
  const content = await zip.openReadStreamPromise(entry);
  await pipeline(content, checkedCrc(entry), createWriteStream(file));
}

/** Passes bytes on and fails at their end where their CRC-32 is not the one of the central directory. */
function checkedCrc(entry: Entry): Transform {
  let sum = 0;
  return new Transform({
    transform(piece: Buffer, _encoding, next) {
      sum = crc32(piece, sum);
      next(null, piece);
    },
    flush(next) {
      next(sum === entry.crc32 ? null : notABackup('it is damaged'));
    },
  });
}
