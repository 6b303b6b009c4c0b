import { knownMigrations } from '../db/client';
import { Failure } from '../failure';
import { notABackup, readArchive } from './archive';
import { sqliteCode, withDatabaseFile } from './openFile';
import { differingTable, tableDigests } from './tableDigests';

/**
 * Unpacks a backup into `file` and proves it: CRC, SQLite's integrity check, foreign keys, and every table
 * against the manifest.
 * @throws Failure where it is no backup or damaged
 */
export async function openChecked(archive: string, file: string): Promise<void> {
  const manifest = await readArchive(archive, file);
  try {
    await withDatabaseFile(file, async (client) => {
      const integrity = await client.execute('PRAGMA integrity_check');
      if (integrity.rows[0]?.[0] !== 'ok') throw notABackup('its database is damaged');
      const broken = await client.execute('PRAGMA foreign_key_check');
      if (broken.rows.length > 0)
        throw notABackup(`rows of ${String(broken.rows[0]?.[0])} belong to nothing`);
      await client.execute('SELECT count(*) FROM __drizzle_migrations');
      const differing = manifest && differingTable(manifest.tables, await tableDigests(client));
      if (differing) throw notABackup(`its table ${differing} is not what was written`);
    });
  } catch (error) {
    if (error instanceof Failure || sqliteCode(error) === null) throw error;
    throw notABackup('its database cannot be opened');
  }
}

/** @throws Failure where a database has more migrations than this program knows */
export async function checkVersion(file: string): Promise<void> {
  const made = await withDatabaseFile(file, (client) =>
    client.execute('SELECT count(*) FROM __drizzle_migrations'),
  );
  if (Number(made.rows[0]?.[0]) <= (await knownMigrations())) return;
  throw new Failure(409, {
    code: 'backup.newer',
    message: 'This backup was written by a newer version.',
    suggestion: 'Update this program first.',
  });
}
