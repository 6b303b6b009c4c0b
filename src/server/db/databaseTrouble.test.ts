import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, expect, test } from '@jest/globals';
import { seededRandom } from '@/core/shared';
import { withDatabaseFile } from '../backup/openFile';
import { createChart } from '../charts';
import { closeDatabase, migrateDatabase } from './client';
import { databaseTrouble, troubleWords } from './databaseTrouble';
import { openDatabase } from './startUp';

const folder = mkdtempSync(path.join(tmpdir(), 'wander-trouble-'));
const at = (name: string) => path.join(folder, name);
afterAll(() => {
  closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});
const made = async (name: string): Promise<string> => {
  closeDatabase();
  process.env.DATABASE_URL = `file:${at(name)}`;
  await migrateDatabase();
  for (let chart = 0; chart < 40; chart++)
    await createChart(`title: Kept ${chart}\nkey: C\ntempo: 120\n\n| Dm7 | G7 | Cmaj7 | % |\n`);
  await withDatabaseFile(at(name), (client) => client.execute('PRAGMA wal_checkpoint(TRUNCATE)'));
  closeDatabase();
  return at(name);
};

test('a file that is there, and one that is not yet, are no trouble', async () => {
  expect(await databaseTrouble(await made('good.db'))).toBeNull();
  expect(await databaseTrouble(at('new/one.db'))).toBeNull();
});

test('a file that is no database, one cut short and one with overwritten pages are damaged; the way out names the last backup', async () => {
  writeFileSync(at('noise.db'), Buffer.from(Array.from({ length: 9_000 }, (_, byte) => (byte * 7) % 256)));
  const whole = readFileSync(await made('damaged.db'));
  writeFileSync(at('short.db'), whole.subarray(0, whole.length >> 1));
  const random = seededRandom(4);
  const torn = Buffer.from(whole);
  for (let page = 1; page < torn.length / 4096; page++)
    for (let byte = 0; byte < 64; byte++) torn[page * 4096 + byte] = Math.floor(random() * 256);
  writeFileSync(at('torn.db'), torn);
  for (const name of ['noise.db', 'short.db', 'torn.db']) {
    const trouble = await databaseTrouble(at(name), '/backups/last.zip');
    expect([name, trouble?.happened]).toEqual([name, `The database ${at(name)} is damaged.`]);
    expect(trouble && troubleWords(trouble)).toContain('wander restore /backups/last.zip');
  }
  // nothing of it was touched by looking
  expect(readFileSync(at('torn.db')).equals(torn)).toBe(true);
});

test('a newer schema is refused before anything is changed', async () => {
  const file = await made('newer.db');
  await withDatabaseFile(file, (client) =>
    client.execute(
      "INSERT INTO __drizzle_migrations (hash, created_at) VALUES ('of tomorrow', 9999999999999)",
    ),
  );
  expect((await databaseTrouble(file))?.happened).toContain('newer version');
  process.env.DATABASE_URL = `file:${file}`;
  expect(await openDatabase(() => undefined)).toContain('Update this program');
});

test('a folder that cannot be written says so', async () => {
  // the administrator may write anywhere: the folder's place is taken by a file instead
  writeFileSync(at('taken'), '');
  const trouble = await databaseTrouble(at('taken/one.db'));
  expect(trouble?.happened).toMatch(/cannot be written \((ENOTDIR|EEXIST)\)/);
  if (process.getuid?.() === 0) return;
  mkdirSync(at('locked'));
  chmodSync(at('locked'), 0o500);
  expect((await databaseTrouble(at('locked/one.db')))?.happened).toContain('EACCES');
});
