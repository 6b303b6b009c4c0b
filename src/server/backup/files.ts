import { open } from 'node:fs/promises';

/**
 * A database file with the files SQLite may keep beside it (https://www.sqlite.org/tempfiles.html, sections
 * 2.1 to 2.3).
 */
export const companionsOf = (file: string): string[] => [
  file,
  `${file}-wal`,
  `${file}-shm`,
  `${file}-journal`,
];

/**
 * Makes renames in a folder last through a loss of power. Some file systems do not offer it: there it is left
 * out.
 */
export async function syncFolder(folder: string): Promise<void> {
  const handle = await open(folder, 'r').catch(() => null);
  if (!handle) return;
  await handle
    .sync()
    .catch(() => undefined)
    .finally(() => handle.close());
}

/** Returns when what was written to a file is on the disk. */
export async function syncFile(file: string): Promise<void> {
  const handle = await open(file, 'r+');
  await handle.sync().finally(() => handle.close());
}
