import { existsSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeEach, expect, test } from '@jest/globals';
import { createChart, listCharts } from '../charts';
import { closeDatabase, databaseFile, migrateDatabase } from '../db/client';
import { lockForServing } from '../db/serverLock';
import { Failure } from '../failure';
import {
  backUpBeforeUpdate,
  backUpDaily,
  backupFolder,
  backupNamed,
  bringBackup,
  deleteAllAtNextStart,
  doWhatWasAsked,
  keepBackup,
  listBackups,
  removeBackup,
  restoreAtNextStart,
  uploadPath,
} from '.';
import { withDatabaseFile } from './openFile';

const CHART = 'title: Kept\nkey: Bb\ntempo: 120\n\n| Bb7 | Eb7 | Cm7 F7 | Bb7 |\n';
const DAY = 24 * 3_600_000;
const folder = mkdtempSync(path.join(tmpdir(), 'wander-kept-'));
let databases = 0;

const titles = async () => (await listCharts()).map(({ title }) => title);
const code = (work: Promise<unknown>) =>
  work.then(
    () => 'done',
    (error: unknown) => (error instanceof Failure ? error.problem.code : String(error)),
  );

beforeEach(async () => {
  closeDatabase();
  process.env.DATABASE_URL = `file:${folder}/${databases++}.db`;
  await migrateDatabase();
  await createChart(CHART);
});
afterAll(() => {
  closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

test('a backup a day, seven kept; what the player asked for stays', async () => {
  const start = Date.UTC(2026, 0, 1, 12);
  await keepBackup('asked', undefined, new Date(start - DAY));
  for (let day = 0; day < 9; day++) {
    expect(await backUpDaily(new Date(start + day * DAY))).not.toBeNull();
    expect(await backUpDaily(new Date(start + day * DAY + DAY / 2))).toBeNull();
  }
  const kept = await listBackups();
  expect(kept.map(({ kind }) => kind)).toEqual([...Array<string>(7).fill('daily'), 'asked']);
  expect(kept[0]).toMatchObject({ at: start + 8 * DAY, contents: { takes: 0, charts: 1, drills: 0 } });
});

test('what is busy is told in order; a name leads nowhere else; one can be removed', async () => {
  const phases: string[] = [];
  const name = await keepBackup('asked', (phase) => phases.push(phase));
  expect(phases).toEqual(['copying', 'writing', 'proving']);
  for (const other of ['../0.db', `../${path.basename(backupFolder())}/${name}`, 'idle-wander.zip', ''])
    expect(await code(backupNamed(other))).toBe('backup.unknown');
  await removeBackup(name);
  expect(await listBackups()).toEqual([]);
});

test('a file that is no backup is refused and leaves nothing; one that is stands in the list', async () => {
  const name = await keepBackup('asked');
  const upload = await uploadPath();
  writeFileSync(upload, 'PK nothing of ours');
  expect(await code(bringBackup(upload))).toBe('backup.unreadable');
  rmSync(upload);
  await bringBackup(await backupNamed(name));
  expect((await listBackups()).map(({ kind }) => kind)).toEqual(['brought']);
});

test('a restore is proven now and done at the next start, before anything is open', async () => {
  const name = await keepBackup('asked');
  await createChart(CHART.replace('Kept', 'Later'));
  await restoreAtNextStart(name);
  expect(await titles()).toContain('Later');
  // another process still serves the database: what was asked waits
  const release = await lockForServing(databaseFile());
  expect(await doWhatWasAsked()).toContain('waits');
  await release?.();
  closeDatabase();
  expect(await doWhatWasAsked()).toContain(`Restored ${name}`);
  expect(await titles()).toEqual(['Kept']);
  expect(await doWhatWasAsked()).toBeNull();
});

test('a damaged backup is refused when it is chosen; one that is lost by then changes nothing and is not asked for again', async () => {
  const name = await keepBackup('asked');
  await restoreAtNextStart(name);
  await removeBackup(name);
  closeDatabase();
  expect(await doWhatWasAsked()).toContain('nothing was changed');
  expect(await titles()).toEqual(['Kept']);
  expect(await doWhatWasAsked()).toBeNull();
  const damaged = await keepBackup('asked');
  writeFileSync(await backupNamed(damaged), Buffer.alloc(300_000, 7));
  expect(await code(restoreAtNextStart(damaged))).toBe('backup.unreadable');
});

test('everything is deleted only by its words, with the backups only where that is wanted', async () => {
  const name = await keepBackup('asked');
  await restoreAtNextStart(name);
  closeDatabase();
  await doWhatWasAsked();
  const setAside = () =>
    readdirSync(folder).filter((one) => one.startsWith(`${databases - 1}-before-restore`));
  expect(setAside()).toHaveLength(1);
  expect(await code(deleteAllAtNextStart('delete', true))).toBe('everything.words');
  expect(await doWhatWasAsked()).toBeNull();
  for (const backupsToo of [false, true]) {
    await deleteAllAtNextStart(' Delete Everything ', backupsToo);
    closeDatabase();
    expect(await doWhatWasAsked()).toContain('deleted');
    expect([existsSync(backupFolder()), setAside().length]).toEqual(backupsToo ? [false, 0] : [true, 1]);
    await migrateDatabase();
    expect(await titles()).toEqual([]);
  }
  expect(readdirSync(folder).filter((one) => one.includes('at-next-start'))).toEqual([]);
});

test('before a new version changes the database, it is backed up as it was; never otherwise', async () => {
  expect(await backUpBeforeUpdate()).toBeNull();
  await withDatabaseFile(databaseFile(), (client) =>
    client.execute(
      'DELETE FROM __drizzle_migrations WHERE rowid = (SELECT max(rowid) FROM __drizzle_migrations)',
    ),
  );
  const name = await backUpBeforeUpdate();
  expect((await listBackups()).map(({ kind }) => kind)).toEqual(['before-update']);
  expect(await backupNamed(name ?? '')).toContain('before-update');
});
