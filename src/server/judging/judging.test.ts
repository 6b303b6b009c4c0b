import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { eq } from 'drizzle-orm';
import { writeMidi } from 'midi-file';
import type { TakeCase } from '@/core/review';
import { NOTES_SCHEMA, packTake, TAKE_SCHEMA, type TakeDocument } from '@/core/formats';
import { closeDatabase, migrateDatabase, write } from '../db/client';
import { takes } from '../db/schema';
import { Failure } from '../failure';
import { reviewOf } from '../reviews';
import { createChart } from '../charts';
import { listedTakes } from '../judgedTakes';
import { amendTake, takeById } from '../takes';
import { today } from '../practice';
import { removeTake } from '../trash';
import { judgingThread } from './judgingThread';
import { importArchive } from '../takeImport';
import { importLine } from '../takeImport';

let folder = '';
beforeAll(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'wander-judging-'));
  process.env.DATABASE_URL = `file:${folder}/own.db`;
  await migrateDatabase();
});
afterAll(() => {
  closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

const CHART = 'title: Poison\nkey: C\ntempo: 120\n\n| Dm7 | G7 | Cmaj7 | % |\n';
const note = (change: object = {}) => ({ onsetSec: 1, offsetSec: 1.5, midi: 64, confidence: 1, ...change });
const document = (change: Partial<TakeDocument> = {}): TakeDocument => ({
  schema: TAKE_SCHEMA,
  title: 'Poison',
  chartText: CHART,
  tempo: 120,
  choruses: 1,
  plan: { id: 'outline' },
  pace: null,
  offsetSec: 0,
  source: 'file',
  device: null,
  latencySec: null,
  createdAt: 1,
  heard: { schema: NOTES_SCHEMA, notes: [note()] },
  edits: [],
  words: { stars: 0, tags: [], remarks: [] },
  ...change,
});
const bring = (change: Partial<TakeDocument>) => importArchive(packTake(document(change), null));
const refusal = async (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'done',
    (error: unknown) => (error instanceof Failure ? error.problem.code : String(error)),
  );
const heard = (...notes: object[]): Partial<TakeDocument> => ({
  heard: { schema: NOTES_SCHEMA, notes: notes as never },
});

test.each<[string, Partial<TakeDocument>, string]>([
  ['an unknown plan', { plan: { id: 'magic' } as never }, 'archive.shape'],
  [
    'a part without a place',
    { plan: { id: 'outline', parts: [{ plan: { id: 'outline' } }] } as never },
    'archive.shape',
  ],
  ['a note of 300,000 seconds', heard(note({ offsetSec: 300_001 })), 'archive.times'],
  ['a note before the take', heard(note({ onsetSec: -500, offsetSec: 1 })), 'archive.times'],
  [
    'a bend that lasts hours',
    heard(
      note({
        bend: [
          [0, 0],
          [299_999, 100],
        ],
      }),
    ),
    'archive.shape',
  ],
  ['a pitch no instrument has', heard(note({ midi: 128 })), 'archive.shape'],
  ['a chart that cannot be read', { chartText: '| Cq |' }, 'chord.unknown'],
])('an archive with %s is refused', async (_, change, code) => {
  const found = await refusal(bring(change));
  expect(code === 'chord.unknown' ? found !== 'done' : found === code).toBe(true);
});

test('notes in unison are judged, however many', async () => {
  for (const count of [24, 1_000]) {
    const { id } = await bring(heard(...Array.from({ length: count }, () => note())));
    expect((await reviewOf(id)).report.notes).toHaveLength(count);
    await removeTake(id);
  }
});

const ONE: TakeCase = {
  chartText: CHART,
  tempo: 120,
  pace: null,
  choruses: 1,
  plan: { id: 'outline' },
  offsetSec: 0,
  isLatencyMeasured: false,
  heard: [note()],
  edits: [],
};

test('a take that takes too long is given up; the next one is judged', async () => {
  const notes = Array.from({ length: 60_000 }, (_, n) =>
    note({ onsetSec: n * 0.001, offsetSec: n * 0.001 + 5 }),
  );
  const judge = (own: TakeCase, deadlineMs?: number) =>
    judgingThread().judge({ own, earlier: [] }, deadlineMs);
  expect(await judge({ ...ONE, choruses: 20, heard: notes }, 50)).toEqual({
    error: 'It takes too long to judge.',
    lost: true,
  });
  expect(await judge(ONE)).toMatchObject({ judged: { report: { notes: [{ midi: 64 }] } } });
  expect(await judge({ ...ONE, chartText: '| Cq |' })).toEqual({
    error: expect.stringMatching(/^Judging it failed: .+[^.]\.$/),
  });
  expect(await judge(ONE)).toMatchObject({ judged: { report: { notes: [{ midi: 64 }] } } });
});

test('a take that cannot be judged is listed with its reason, stops no other, and can be removed', async () => {
  const good = await bring({});
  const bad = await bring({ title: 'Bad' });
  const worse = await bring({ title: 'Worse' });
  await write(async (tx) => {
    await tx.update(takes).set({ chartText: '| Cq |' }).where(eq(takes.id, bad.id));
    await tx
      .update(takes)
      .set({ plan: { id: 'magic' } })
      .where(eq(takes.id, worse.id));
  });
  for (let visit = 0; visit < 2; visit++) {
    const { entries } = await listedTakes({ from: 0, most: 10 });
    const troubles = new Map(entries.map(({ take, line, trouble }) => [take.id, line === null && trouble]));
    expect(troubles.get(good.id)).toBe(false);
    expect(troubles.get(bad.id)).toMatch(/cannot be judged/);
    expect(troubles.get(worse.id)).toMatch(/settings cannot be read/);
  }
  expect(await refusal(reviewOf(bad.id))).toBe('take.unjudged');
  expect((await today()).last?.take.id).toBe(good.id);
  await amendTake(worse.id, { plan: { id: 'outline' } });
  expect((await reviewOf(worse.id)).take.trouble).toBeNull();
  await removeTake(bad.id);
  expect(await refusal(takeById(bad.id))).toBe('not-found');
});

test('a line is not imported onto a chart that cannot be read', async () => {
  const { id } = await createChart('title: Half typed\n| C7b |\n');
  const midi = Uint8Array.from(
    writeMidi({
      header: { format: 0, numTracks: 1, ticksPerBeat: 480 },
      tracks: [
        [
          { deltaTime: 0, type: 'noteOn', channel: 0, noteNumber: 60, velocity: 90 },
          { deltaTime: 480, type: 'noteOff', channel: 0, noteNumber: 60, velocity: 0 },
          { deltaTime: 0, meta: true, type: 'endOfTrack' },
        ],
      ],
    }),
  );
  expect(await refusal(importLine(midi, { chart: id, tempo: 120, name: 'Line' }))).toBe('chord.unknown');
});
