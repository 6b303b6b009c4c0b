import { linkSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { createClient } from '@libsql/client';
import { sql } from 'drizzle-orm';
import { unzipSync, zipSync, strToU8 } from 'fflate';
import { seededRandom } from '@/core/shared';
import { backUp, restore } from '.';
import { BACKUP_SCHEMA, writeArchive } from './archive';
import { reviewOf } from '../reviews';
import { lockForServing } from '../db/serverLock';
import { sqlText, withDatabaseFile } from './openFile';
import { tableDigests } from './tableDigests';
import { pcmRange, storeChunk } from '../audio';
import { checksumOf } from '../checksum';
import { chartById, createChart, removeChart, listCharts } from '../charts';
import { closeDatabase, database, databaseFile, migrateDatabase } from '../db/client';
import { Failure } from '../failure';
import { beginTake, finishTake, takeById } from '../takes';

const CHART = 'title: Kept\nkey: Bb\ntempo: 120\n\n| Bb7 | Eb7 | Cm7 F7 | Bb7 |\n';
let folder = '';
let databases = 0;
const at = (name: string) => path.join(folder, name);
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'wander-backup-'));
});
afterAll(() => {
  closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});
const elsewhere = async () => {
  closeDatabase();
  process.env.DATABASE_URL = `file:${folder}/${databases++}.db`;
  await migrateDatabase();
};
beforeEach(elsewhere);

async function aTake(): Promise<{ chart: string; id: string; pcm: Uint8Array }> {
  const chart = (await createChart(CHART)).id;
  const { id } = await beginTake({
    chartId: chart,
    tempo: 120,
    choruses: 1,
    plan: { id: 'outline' },
    rate: 8000,
    source: 'file',
    bits: 24,
  });
  const pcm = Uint8Array.from({ length: 8000 * 3 }, (_, at) => (at * 7) % 251);
  await storeChunk(id, 0, pcm, checksumOf(pcm));
  await finishTake(id, {
    frames: 8000,
    offsetSec: 0,
    transcription: {
      schema: 'idle-wander/notes@1',
      notes: [],
      tuning: { a4: 440 },
      durationSec: 1,
      playingLevel: -90,
      certainty: 0,
    },
  });
  return { chart, id, pcm };
}
const refused = async (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'done',
    (error: unknown) => (error instanceof Failure ? error.problem.code : String(error)),
  );

test('all that is kept goes out in one ZIP and comes back whole in another place; what was there is kept beside', async () => {
  const { chart, id, pcm } = await aTake();
  const { bytes } = await backUp(at('all.zip'));
  expect(readFileSync(at('all.zip'))).toHaveLength(bytes);
  // the ZIP opens with another reader, and holds a database as SQLite writes it (its file format, section
  // 1.3: the header string)
  expect(
    Buffer.from(unzipSync(readFileSync(at('all.zip')))['idle-wander.db']!)
      .subarray(0, 15)
      .toString(),
  ).toBe('SQLite format 3');
  await elsewhere();
  const other = await createChart(CHART.replace('Kept', 'Other'));
  const { before } = await restore(at('all.zip'));
  expect((await listCharts()).map(({ id: one }) => one)).toEqual([chart]);
  expect((await takeById(id)).title).toBe('Kept');
  const sound: Buffer[] = [];
  for await (const piece of pcmRange(await takeById(id), 0, 8000 * 3)) sound.push(piece);
  expect(Buffer.concat(sound).equals(Buffer.from(pcm))).toBe(true);
  closeDatabase();
  process.env.DATABASE_URL = `file:${before!}`;
  expect((await chartById(other.id)).title).toBe('Other');
  expect(readdirSync(folder).filter((name) => /restoring|writing/.test(name))).toEqual([]);
});

test('a broken, foreign or newer file changes nothing and says why', async () => {
  const { chart } = await aTake();
  await backUp(at('good.zip'));
  const whole = readFileSync(at('good.zip'));
  writeFileSync(at('cut.zip'), whole.subarray(0, whole.length / 2));
  writeFileSync(at('text.zip'), 'no archive');
  writeFileSync(at('other.zip'), zipSync({ 'readme.txt': strToU8('hello') }));
  writeFileSync(
    at('fake.zip'),
    zipSync({ 'idle-wander.db': [strToU8('SQLite format 3 but not really'.repeat(200)), { level: 0 }] }),
  );
  const damaged = Buffer.from(unzipSync(whole)['idle-wander.db']!);
  damaged.fill(0x5a, 4096 * 3, 4096 * 5);
  writeFileSync(at('damaged.zip'), zipSync({ 'idle-wander.db': [damaged, { level: 0 }] }));
  await database().run("INSERT INTO __drizzle_migrations (hash, created_at) VALUES ('later', 9999999999999)");
  await backUp(at('newer.zip'));
  await database().run("DELETE FROM __drizzle_migrations WHERE hash = 'later'");
  for (const name of ['cut', 'text', 'other', 'fake', 'damaged'])
    expect([name, await refused(restore(at(`${name}.zip`)))]).toEqual([name, 'backup.unreadable']);
  expect(await refused(restore(at('newer.zip')))).toBe('backup.newer');
  expect((await listCharts()).map(({ id }) => id)).toEqual([chart]);
  await removeChart(chart);
  await restore(at('good.zip'));
  expect((await listCharts()).map(({ id }) => id)).toEqual([chart]);
});

/** All that a database holds, as its tables' digests. */
const contents = (file: string) => withDatabaseFile(file, tableDigests);

test('restoring onto the database it came from leaves every table as it was', async () => {
  const { id } = await aTake();
  await reviewOf(id);
  const { tables } = await backUp(at('own.zip'));
  expect(tables['audio_chunks']!.rows).toBeGreaterThan(0);
  expect(tables['reports']!.rows).toBe(1);
  await restore(at('own.zip'));
  await migrateDatabase();
  expect(await contents(databaseFile())).toEqual(tables);
});

test('sound that looks like the end of a ZIP member is no end', async () => {
  const chart = (await createChart(CHART)).id;
  const { id } = await beginTake({
    chartId: chart,
    tempo: 120,
    choruses: 1,
    plan: { id: 'outline' },
    rate: 8000,
    source: 'file',
    bits: 24,
  });
  const pcm = Buffer.alloc(8000 * 3);
  // PKWARE APPNOTE 6.3.10: signatures of the central directory, a local header, a data descriptor and the
  // end record
  ['PK\x01\x02', 'PK\x03\x04', 'PK\x07\x08', 'PK\x05\x06'].forEach((signature, n) =>
    pcm.write(signature, n * 300, 'latin1'),
  );
  await storeChunk(id, 0, pcm, checksumOf(pcm));
  await database().run(sql`UPDATE audio_chunks SET pcm = ${pcm}, codec = 'pcm'`);
  await backUp(at('signatures.zip'));
  await elsewhere();
  await restore(at('signatures.zip'));
  const sound: Buffer[] = [];
  for await (const piece of pcmRange(await takeById(id), 0, pcm.length)) sound.push(piece);
  expect(Buffer.concat(sound).equals(pcm)).toBe(true);
});

test('a backup with a changed byte anywhere is refused, or comes back equal where the byte says nothing', async () => {
  await aTake();
  const { tables } = await backUp(at('flip.zip'));
  const whole = readFileSync(at('flip.zip'));
  const random = seededRandom(7);
  let refusals = 0;
  for (let n = 0; n < 40; n++) {
    const changed = Buffer.from(whole);
    const place = n < 10 ? whole.length - 1 - n * 20 : Math.floor(random() * whole.length);
    changed.fill(
      n % 2 ? changed[place]! ^ (1 << (n % 8)) : 0xee,
      place,
      Math.min(whole.length, place + 1 + (n % 3) * 50),
    );
    writeFileSync(at('flipped.zip'), changed);
    await elsewhere();
    if ((await refused(restore(at('flipped.zip')))) === 'done')
      expect(await contents(databaseFile())).toEqual(tables);
    else refusals++;
  }
  expect(refusals).toBeGreaterThan(30);
});

test('a backup that fails leaves the one before it, and never replaces the database or a folder', async () => {
  await aTake();
  await backUp(at('kept.zip'));
  const before = readFileSync(at('kept.zip'));
  const own = databaseFile();
  await withDatabaseFile(own, (client) => client.execute(`VACUUM INTO ${sqlText(at('own.db'))}`));
  expect(await refused(backUp(own))).toBe('backup.own-file');
  expect(await refused(backUp(`${own}-wal`))).toBe('backup.own-file');
  mkdirSync(at('a-folder'));
  expect(await refused(backUp(at('a-folder')))).toBe('backup.not-a-file');
  linkSync(own, at('linked.zip'));
  expect(await refused(backUp(at('linked.zip')))).toBe('backup.own-file');
  closeDatabase();
  const damaged = readFileSync(at('own.db'));
  damaged.fill(0x5a, 4096, 4096 * 4);
  writeFileSync(at('damaged.db'), damaged);
  process.env.DATABASE_URL = `file:${at('damaged.db')}`;
  await expect(backUp(at('kept.zip'))).rejects.toThrow();
  expect(readFileSync(at('kept.zip')).equals(before)).toBe(true);
  expect(readdirSync(folder).filter((name) => name.includes('writing'))).toEqual([]);
});

test('a database that another process has open is not replaced', async () => {
  const { chart } = await aTake();
  await backUp(at('running.zip'));
  const release = await lockForServing(databaseFile());
  expect(await lockForServing(databaseFile())).toBeNull();
  expect(await refused(restore(at('running.zip')))).toBe('restore.in-use');
  await release!();
  const other = createClient({ url: `file:${databaseFile()}` });
  const writing = await other.transaction('write');
  await writing.execute('DELETE FROM settings');
  expect(await refused(restore(at('running.zip')))).toBe('restore.in-use');
  writing.close();
  other.close();
  expect((await listCharts()).map(({ id }) => id)).toEqual([chart]);
  expect(await refused(restore(at('running.zip')))).toBe('done');
});

test('a damaged database is set aside as it is, and the backup takes its place', async () => {
  const { chart } = await aTake();
  await backUp(at('rescue.zip'));
  closeDatabase();
  process.env.DATABASE_URL = `file:${at('garbage.db')}`;
  writeFileSync(at('garbage.db'), 'no database any more');
  const { before } = await restore(at('rescue.zip'));
  expect(readFileSync(before!).equals(Buffer.from('no database any more'))).toBe(true);
  expect((await listCharts()).map(({ id }) => id)).toEqual([chart]);
});

test('a copy that is gone before it is packed ends the backup with an error, and nothing else', async () => {
  const packing = writeArchive(at('gone.db'), { schema: BACKUP_SCHEMA, tables: {} }, at('gone.zip'));
  await expect(packing).rejects.toMatchObject({ code: 'ENOENT' });
});
