import { mkdir, rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { databaseFile, isFileDatabase } from '../db/client';
import { Failure } from '../failure';
import { copyFromServer } from './byTables';
import { BACKUP_SCHEMA, writeArchive } from './archive';
import { companionsOf, syncFolder } from './files';
import { sqlText, withDatabaseFile } from './openFile';
import { tableDigests, type TableDigests } from './tableDigests';
import { openChecked } from './verify';

/** What making a backup is busy with, in this order. */
export type BackupPhase = 'copying' | 'writing' | 'proving';

export type BackupResult = { readonly bytes: number; readonly tables: TableDigests };

/**
 * Writes everything that is stored (charts, takes with their sound, notes, settings) to one ZIP. Safe while
 * the program runs: SQLite
 * copies one consistent state; a database on a server is copied by tables. The archive is written beside `out`, proven by a trial restore, and only
 * then takes the name `out`:
 * whatever goes wrong, a file of that name stays as it was.
 * @throws Failure where `out` is a folder, or one of the database's own files
 */
export async function backUp(
  out: string,
  onPhase: (phase: BackupPhase) => void = () => undefined,
): Promise<BackupResult> {
  const source = isFileDatabase() ? databaseFile() : null;
  const target = path.resolve(out);
  await checkDestination(target, source);
  await mkdir(path.dirname(target), { recursive: true });
  const writing = `${target}.writing-${process.pid}`;
  const [copy, archive, trial] = [`${writing}.db`, `${writing}.zip`, `${writing}.trial.db`];
  try {
    onPhase('copying');
    await rm(copy, { force: true });
    if (source === null) await copyFromServer(copy);
    else await withDatabaseFile(source, (client) => client.execute(`VACUUM INTO ${sqlText(copy)}`));
    const tables = await withDatabaseFile(copy, tableDigests);
    onPhase('writing');
    await writeArchive(copy, { schema: BACKUP_SCHEMA, tables }, archive);
    onPhase('proving');
    await openChecked(archive, trial);
    await rename(archive, target);
    await syncFolder(path.dirname(target));
    return { bytes: (await stat(target)).size, tables };
  } finally {
    for (const file of [copy, archive, trial].flatMap(companionsOf)) await rm(file, { force: true });
  }
}

async function checkDestination(target: string, source: string | null): Promise<void> {
  const found = await stat(target).catch(() => null);
  if (found && !found.isFile()) {
    throw new Failure(422, {
      code: 'backup.not-a-file',
      message: `${target} is not a file that a backup can be written to.`,
      suggestion: `Name a file: ${path.join(target, 'idle-wander-backup.zip')}`,
    });
  }
  for (const own of source === null ? [] : companionsOf(source)) {
    const there = await stat(own).catch(() => null);
    const isSame = target === own || (found && there && found.ino === there.ino && found.dev === there.dev);
    if (!isSame) continue;
    throw new Failure(422, {
      code: 'backup.own-file',
      message: `${target} is the database itself; a backup there would replace it.`,
      suggestion: 'Choose another name, such as idle-wander-backup.zip.',
    });
  }
}
