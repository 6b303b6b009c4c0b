import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { unzipSync, zipSync, strToU8 } from 'fflate';
import { backUp, restore } from './backup';
import { checksumOf, pcmRange, storeChunk } from './audio';
import { chartById, createChart, deleteChart, listCharts } from './charts';
import { closeDatabase, database, migrateDatabase } from './db/client';
import { Failure } from './failure';
import { beginTake, finishTake, takeById } from './takes';

const CHART = 'title: Kept\nkey: Bb\ntempo: 120\n\n| Bb7 | Eb7 | Cm7 F7 | Bb7 |\n';
let folder = '';
let databases = 0;
const at = (name: string) => path.join(folder, name);
beforeAll(() => { folder = mkdtempSync(path.join(tmpdir(), 'wander-backup-')); });
afterAll(() => { closeDatabase(); rmSync(folder, { recursive: true, force: true }); });
const elsewhere = async () => {
  closeDatabase();
  process.env.DATABASE_URL = `file:${folder}/${databases++}.db`;
  await migrateDatabase();
};
beforeEach(elsewhere);

async function aTake(): Promise<{ chart: string; id: string; pcm: Uint8Array }> {
  const chart = (await createChart(CHART)).id;
  const { id } = await beginTake({ chartId: chart, tempo: 120, choruses: 1, plan: { id: 'outline' }, rate: 8000, source: 'file', bits: 24 });
  const pcm = Uint8Array.from({ length: 8000 * 3 }, (_, at) => (at * 7) % 251);
  await storeChunk(id, 0, pcm, checksumOf(pcm));
  await finishTake(id, { frames: 8000, offsetSec: 0, transcription: { schema: 'idle-wander/notes@1', notes: [], tuning: { a4: 440 }, durationSec: 1, playingLevel: -90, certainty: 0 } });
  return { chart, id, pcm };
}
const refused = async (work: Promise<unknown>): Promise<string> => work.then(() => 'done', (error: unknown) => (error instanceof Failure ? error.problem.code : String(error)));

test('all that is kept goes out in one ZIP and comes back whole in another place; what was there is kept beside', async () => {
  const { chart, id, pcm } = await aTake();
  const { bytes } = await backUp(at('all.zip'));
  expect(readFileSync(at('all.zip'))).toHaveLength(bytes);
  // the ZIP opens with another reader, and holds a database as SQLite writes it (its file format, section 1.3: the header string)
  expect(Buffer.from(unzipSync(readFileSync(at('all.zip')))['idle-wander.db']!).subarray(0, 15).toString()).toBe('SQLite format 3');
  await elsewhere();
  const other = await createChart(CHART.replace('Kept', 'Other'));
  const { before } = await restore(at('all.zip'));
  expect((await listCharts()).map(({ id: one }) => one)).toEqual([chart]);
  expect((await takeById(id)).title).toBe('Kept');
  const sound: Buffer[] = [];
  for await (const piece of pcmRange(await takeById(id), 0, 8000 * 3)) sound.push(piece);
  expect(Buffer.concat(sound).equals(Buffer.from(pcm))).toBe(true);
  closeDatabase();
  process.env.DATABASE_URL = `file:${before}`;
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
  writeFileSync(at('fake.zip'), zipSync({ 'idle-wander.db': [strToU8('SQLite format 3 but not really'.repeat(200)), { level: 0 }] }));
  const damaged = Buffer.from(unzipSync(whole)['idle-wander.db']!);
  damaged.fill(0x5a, 4096 * 3, 4096 * 5);
  writeFileSync(at('damaged.zip'), zipSync({ 'idle-wander.db': [damaged, { level: 0 }] }));
  await database().run("INSERT INTO __drizzle_migrations (hash, created_at) VALUES ('later', 9999999999999)");
  await backUp(at('newer.zip'));
  await database().run("DELETE FROM __drizzle_migrations WHERE hash = 'later'");
  for (const name of ['cut', 'text', 'other', 'fake', 'damaged']) expect([name, await refused(restore(at(`${name}.zip`)))]).toEqual([name, 'backup.unreadable']);
  expect(await refused(restore(at('newer.zip')))).toBe('backup.newer');
  expect((await listCharts()).map(({ id }) => id)).toEqual([chart]);
  await deleteChart(chart);
  await restore(at('good.zip'));
  expect((await listCharts()).map(({ id }) => id)).toEqual([chart]);
});
