import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { LIMITS } from '@/core/contracts';
import { createClient } from '@libsql/client';
import { eq, sql } from 'drizzle-orm';
import { improvise, perform } from '@/core/band';
import { readChart } from '@/core/chart';
import { readWav } from '@/core/formats';
import { transcribe } from '@/core/transcribe';
import { unwrap } from '@/core/shared';
import { toPcm16, toPcm24 } from '@/audio/pcm';
import { pcmRange, soundStored, spaceUsed, storeChunk } from './audio';
import { checksumOf } from './checksum';
import { readBytes, readJson } from './body';
import {
  chartById,
  createChart,
  removeChart,
  restoreChart,
  listCharts,
  restoreVersion,
  updateChart,
  versionsOf,
} from './charts';
import { closeDatabase, database, migrateDatabase, write } from './db/client';
import { audioChunks, charts, settings, takes } from './db/schema';
import { Failure } from './failure';
import { reviewOf } from './reviews';
import { readSoundSettings, writeSoundSettings } from './settings';
import { damageOf } from './soundDamage';
import { findTakeSummaries, takeSummaryOf } from './takeSummaries';
import { amendTake, beginTake, finishTake, interruptedTakes, listTakes, takeById } from './takes';
import { clockIsSteady, applyRetention } from './retention';
import {
  deleteTake,
  emptyTrash,
  readTrash,
  removeOldSound,
  removeTake,
  restoreSound,
  restoreTake,
} from './trash';
import { chartBody, finishBody, newTakeBody, planInAddress } from './validation';
import { readRange, wavHeader, wavResponse } from './wavStream';

const CHART = 'title: Kept\nkey: C\ntempo: 200\n\n| Dm7 | G7 | Cmaj7 | % |\n';
const RATE = 22_050;
let folder = '';

beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'wander-'));
});
afterAll(() => {
  closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});
let databases = 0;
beforeEach(async () => {
  closeDatabase();
  process.env.DATABASE_URL = `file:${folder}/${databases++}.db`;
  await migrateDatabase();
});

const failure = async (work: Promise<unknown>): Promise<[number, string]> => {
  try {
    await work;
  } catch (error) {
    if (error instanceof Failure) return [error.status, error.problem.code];
    throw error;
  }
  return [200, ''];
};

const newTake = async (choruses = 1) => ({
  chartId: (await createChart(CHART)).id,
  tempo: 200,
  choruses,
  plan: { id: 'outline' as const },
  rate: RATE,
  source: 'microphone' as const,
});
const begin = async (choruses = 1) => beginTake(await newTake(choruses));
const chunk = (values: number[]) => toPcm16(Float32Array.from(values));
const send = (id: string, sequence: number, pcm = chunk([0.1, 0.2])) =>
  storeChunk(id, sequence, pcm, checksumOf(pcm));

async function wholeTake(): Promise<string> {
  const notes = improvise({
    chart: unwrap(readChart(CHART)),
    tempo: 200,
    choruses: 1,
    plan: { id: 'outline' },
    seed: 2,
  });
  const samples = perform({ notes, tempo: 200, rate: RATE, seed: 2 });
  const take = await begin();
  for (let at = 0, sequence = 0; at < samples.length; at += RATE, sequence++)
    await send(take.id, sequence, toPcm16(samples.subarray(at, at + RATE)));
  await finishTake(take.id, {
    frames: samples.length,
    offsetSec: 0,
    transcription: transcribe(samples, RATE),
  });
  return take.id;
}

test('charts are kept as typed, titled by their own words, and removed without their takes', async () => {
  const chart = await createChart(CHART);
  expect(chart.title).toBe('Kept');
  expect((await updateChart(chart.id, 'title: Half\n| Cq |')).title).toBe('Half');
  expect((await chartById(chart.id)).text).toContain('Cq');
  const take = await begin();
  const removed = take.chartId!;
  await removeChart(removed);
  expect((await listCharts()).map((one) => one.id)).toEqual([chart.id]);
  expect(await failure(chartById(removed))).toEqual([404, 'not-found']);
  expect(await failure(updateChart(removed, '| C |'))).toEqual([404, 'not-found']);
  expect(await failure(removeChart(removed))).toEqual([404, 'not-found']);
  expect((await readTrash()).charts.map(({ id }) => id)).toEqual([removed]);
  expect((await restoreChart(removed)).text).toBe(CHART);
  expect((await listCharts()).map((one) => one.id)).toContain(removed);
  // after thirty days it is gone for good, and its takes stay
  await removeChart(removed, Date.now() - 31 * 86_400_000);
  expect(await emptyTrash()).toEqual({ takes: 0, charts: 1 });
  expect((await takeById(take.id)).chartId).toBeNull();
  expect(await failure(restoreChart(removed))).toEqual([404, 'not-found']);
  expect(await failure(chartById('none'))).toEqual([404, 'not-found']);
});

test('a take begins only on a chart that can be played, with a frozen copy of it', async () => {
  const broken = await createChart('| Cq |');
  expect(
    await failure(
      beginTake({
        chartId: broken.id,
        tempo: 100,
        choruses: 1,
        plan: { id: 'outline' },
        rate: RATE,
        source: 'file',
      }),
    ),
  ).toEqual([422, 'chord.unknown']);
  expect(
    await failure(
      beginTake({
        chartId: (await createChart(CHART)).id,
        tempo: 100,
        choruses: 1,
        plan: { id: 'home-scale', home: 'nonsense' },
        rate: RATE,
        source: 'file',
      }),
    ),
  ).toEqual([422, 'scale.root']);
  const take = await begin();
  await updateChart(take.chartId!, '| F |');
  expect((await takeById(take.id)).chartText).toBe(CHART);
  expect((await begin()).number).toBe(take.number + 1);
});

test('chunks come in order, whole and unharmed; a repeated one is acknowledged again', async () => {
  const { id } = await begin();
  await send(id, 0);
  expect(await send(id, 0)).toEqual({ sequence: 0 });
  expect(await failure(send(id, 0, chunk([0.5])))).toEqual([409, 'chunk.twice']);
  expect(await failure(send(id, 2))).toEqual([409, 'chunk.order']);
  expect(await failure(send(id, LIMITS.request.chunks - 1))).toEqual([409, 'chunk.order']);
  expect(await failure(send(id, LIMITS.request.chunks))).toEqual([413, 'take.long']);
  expect(await failure(storeChunk(id, 1, chunk([0.1]), '0'.repeat(64)))).toEqual([422, 'chunk.checksum']);
  expect(await failure(storeChunk(id, 1, new Uint8Array(3), ''))).toEqual([422, 'chunk.size']);
  expect(await failure(send('none', 0))).toEqual([404, 'not-found']);
  expect(await failure(send(id, 20_000))).toEqual([413, 'take.long']);
  await send(id, 1, chunk([0.3]));
  expect(await soundStored(id)).toEqual({ frames: 3, next: 2 });
});

test('a take is finished only when all its sound is there, once, and shows up only then', async () => {
  const { id } = await begin();
  await send(id, 0);
  const transcription = transcribe(new Float32Array(2000), RATE);
  expect(await failure(finishTake(id, { frames: 3, offsetSec: 0, transcription }))).toEqual([
    409,
    'take.incomplete',
  ]);
  expect([(await listTakes()).length, (await interruptedTakes()).length]).toEqual([0, 1]);
  await finishTake(id, { frames: 2, offsetSec: 0.25, transcription });
  expect([(await listTakes()).length, (await interruptedTakes()).length]).toEqual([1, 0]);
  // said twice because the answer was lost, it is the same; with other sound it is not
  expect((await finishTake(id, { frames: 2, offsetSec: 0, transcription })).offsetSec).toBe(0.25);
  expect(await failure(finishTake(id, { frames: 3, offsetSec: 0, transcription }))).toEqual([
    409,
    'take.closed',
  ]);
  expect(await failure(send(id, 1))).toEqual([409, 'chunk.twice']);
});

test('a review is made from the notes, kept, and made anew by another plan or offset', async () => {
  const id = await wholeTake();
  const first = await reviewOf(id);
  expect(first.report.summary.notes).toBeGreaterThan(10);
  expect(first.marks).toHaveLength(first.report.changes.length);
  expect((await reviewOf(id)).report).toEqual(JSON.parse(JSON.stringify(first.report)));
  await amendTake(id, { plan: { id: 'home-scale' } });
  const other = await reviewOf(id);
  expect(other.report.notes.map((note) => note.height)).toEqual(
    first.report.notes.map((note) => note.height),
  );
  await amendTake(id, { offsetSec: 0.6 });
  expect((await reviewOf(id)).report.notes[0]!.onsetBeat).toBeCloseTo(
    first.report.notes[0]!.onsetBeat - 2,
    3,
  );
  expect(await failure(amendTake('none', { offsetSec: 1 }))).toEqual([404, 'not-found']);
});

test('what a take does better than the ones before it on the same chart is said first', async () => {
  /**
   * A take whose notes are given: eighths over four bars, landing on thirds where `meet` says so, else a
   * fourth above the root.
   */
  const played = async (meet: boolean): Promise<string> => {
    const take = await begin(4);
    await send(take.id, 0);
    const seconds = 60 / 200;
    const [third, fourth] = [
      [65, 71, 64, 64],
      [67, 72, 65, 65],
    ];
    const notes = Array.from({ length: 64 }, (_, beat) => ({
      onsetSec: beat * seconds,
      offsetSec: (beat + 0.9) * seconds,
      midi: beat % 4 > 0 ? [69, 67, 69][(beat % 4) - 1]! : (meet ? third : fourth)[(beat / 4) % 4]!,
      cents: 0,
      attack: 'pick' as const,
      level: -20,
      confidence: 1,
    }));
    await finishTake(take.id, {
      frames: 2,
      offsetSec: 0,
      transcription: { ...transcribe(new Float32Array(2000), RATE), notes },
    });
    return take.id;
  };
  const [first, second, third] = [await played(false), await played(false), await played(true)];
  const kinds = async (id: string) => (await reviewOf(id)).findings.map(({ kind }) => kind);
  expect([await kinds(first), await kinds(second)].flat()).not.toContain('improved');
  const better = (await reviewOf(third)).findings;
  expect(better[0]).toMatchObject({ kind: 'improved', where: { bars: [] } });
  expect(better[0]!.sentence).toMatch(/: better than before, \d+ of \d+ now, \d+ of \d+ then\.$/);
  expect(better.filter(({ kind }) => kind === 'improved')).toHaveLength(1);
});

test('a removed take takes its sound, notes and reports along', async () => {
  const id = await wholeTake();
  await reviewOf(id);
  await deleteTake(id);
  for (const table of ['takes', 'audio_chunks', 'notes', 'reports'])
    expect([
      table,
      Number((await database().all<{ n: number }>(sql.raw(`select count(*) as n from ${table}`)))[0]!.n),
    ]).toEqual([table, 0]);
});

test('a removed take lies in the trash for thirty days, out of every list, and comes back as it was', async () => {
  const id = await wholeTake();
  await reviewOf(id);
  const now = Date.now();
  expect(await removeTake(id, { now })).toEqual({ recoverable: true });
  expect(await listTakes()).toEqual([]);
  expect((await findTakeSummaries({}, 0, 10)).total).toBe(0);
  expect(await failure(takeById(id))).toEqual([404, 'not-found']);
  expect((await readTrash()).takes).toMatchObject([{ id, number: 1, title: 'Kept', removedAt: now }]);
  await emptyTrash(undefined, now + 29 * 86_400_000);
  expect((await restoreTake(id)).removedAt).toBeNull();
  expect((await reviewOf(id)).report.summary.notes).toBeGreaterThan(0);
  await removeTake(id, { now });
  expect(await emptyTrash(undefined, now + 31 * 86_400_000)).toEqual({ takes: 1, charts: 0 });
  expect(await failure(restoreTake(id))).toEqual([404, 'not-found']);
});

test('a recording that was stopped before anything was played is deleted; one that was played can be brought back and finished', async () => {
  const short = await begin();
  await amendTake(short.id, { offsetSec: 2 });
  await send(short.id, 0, toPcm16(new Float32Array(RATE * 2)));
  expect(await removeTake(short.id, { hasMore: true })).toEqual({ recoverable: true });
  expect(await removeTake(short.id)).toEqual({ recoverable: false });
  const { id } = await begin();
  await send(id, 0, toPcm16(new Float32Array(RATE)));
  expect(await removeTake(id)).toEqual({ recoverable: true });
  expect(await interruptedTakes()).toEqual([]);
  await restoreTake(id);
  expect((await interruptedTakes()).map((take) => take.id)).toEqual([id]);
});

test('a clock that jumped deletes nothing until it has run steadily for a week', async () => {
  const id = await wholeTake();
  await writeSoundSettings({ keepDays: 365 });
  const DAY = 86_400_000;
  const start = Date.now();
  expect(await clockIsSteady(start)).toBe(false);
  for (let day = 1; day < 7; day++) expect(await clockIsSteady(start + day * DAY)).toBe(false);
  expect(await clockIsSteady(start + 7 * DAY)).toBe(true);
  const ahead = start + 4_000 * DAY;
  await applyRetention(ahead);
  await applyRetention(ahead + DAY);
  expect((await takeById(id)).soundGoneAt).toBeNull();
  expect(await clockIsSteady(start + 8 * DAY)).toBe(false);
  // a clock that stays wrong puts the sound in the trash, from where it comes back
  for (let day = 0; day <= 8; day++) await applyRetention(ahead + day * DAY);
  expect((await takeById(id)).soundGoneAt).not.toBeNull();
  expect([(await readTrash()).sound.takes, await restoreSound()]).toEqual([1, 1]);
  expect((await takeById(id)).soundGoneAt).toBeNull();
});

test('the sound comes back as it was kept, whole and in any range', async () => {
  const { id } = await begin();
  const samples = Float32Array.from({ length: 50 }, (_, n) => Math.round(Math.sin(n) * 30_000) / 32_768);
  await send(id, 0, toPcm16(samples.subarray(0, 20)));
  await send(id, 1, toPcm16(samples.subarray(20, 23)));
  await send(id, 2, toPcm16(samples.subarray(23)));
  const whole = new Uint8Array(
    await wavResponse({ id, frames: 50, rate: RATE, bits: 16 }, null).arrayBuffer(),
  );
  expect(Array.from(unwrap(readWav(whole)).channels[0]!)).toEqual(Array.from(samples));
  for (const [from, to] of [
    [0, 10],
    [30, 60],
    [43, 45],
    [44, 46],
    [83, 91],
    [140, 144],
  ]) {
    const part = wavResponse({ id, frames: 50, rate: RATE, bits: 16 }, `bytes=${from}-${to! - 1}`);
    expect(part.status).toBe(206);
    expect(new Uint8Array(await part.arrayBuffer())).toEqual(whole.slice(from, to));
  }
  const pieces = [];
  for await (const piece of pcmRange({ id, bits: 16 }, 39, 47)) pieces.push(...piece);
  expect(pieces).toEqual([...whole.slice(44 + 39, 44 + 47)]);
});

test('24 bits come back bit for bit, and what the codec kept weighs less than they did', async () => {
  const { id } = await beginTake({ ...(await newTake()), bits: 24 });
  const samples = Float32Array.from(
    { length: RATE },
    (_, n) => Math.round(0.3 * Math.sin(n / 20) * 2 ** 23) / 2 ** 23,
  );
  const pcm = toPcm24(samples);
  await storeChunk(id, 0, pcm, checksumOf(pcm));
  const whole = new Uint8Array(
    await wavResponse({ id, frames: RATE, rate: RATE, bits: 24 }, null).arrayBuffer(),
  );
  expect(Array.from(unwrap(readWav(whole)).channels[0]!)).toEqual(Array.from(samples));
  const space = await spaceUsed();
  expect([space.takes, space.seconds, space.soundBytes < pcm.length * 0.8]).toEqual([1, 1, true]);
});

test('sound that was damaged in the database is silent there and told of; the rest is as it was', async () => {
  const { id } = await begin();
  const parts = [0, 1, 2, 3].map((part) => [0.1, 0.2, 0.3].map((value) => value + part / 10));
  for (const [sequence, part] of parts.entries()) await send(id, sequence, chunk(part));
  const soundOf = async () =>
    Array.from(
      unwrap(
        readWav(
          new Uint8Array(await wavResponse({ id, frames: 12, rate: RATE, bits: 16 }, null).arrayBuffer()),
        ),
      ).channels[0]!,
    );
  const before = await soundOf();
  expect([damageOf(id), before.every((value) => value > 0.05)]).toEqual([[], true]);
  // one whose bytes were changed, one that is no FLAC any more
  const damage = (sequence: number, change: Partial<typeof audioChunks.$inferInsert>) =>
    write(
      async (tx) => void (await tx.update(audioChunks).set(change).where(eq(audioChunks.sequence, sequence))),
    );
  await damage(1, { checksum: '0'.repeat(64) });
  await damage(2, { pcm: Buffer.from('nothing of it is left') });
  expect(await soundOf()).toEqual([...before.slice(0, 3), 0, 0, 0, 0, 0, 0, ...before.slice(9)]);
  expect(damageOf(id)).toEqual([{ from: 3, to: 9 }]);
});

test('a take begun while the server was away is begun once, on the chart it was played over', async () => {
  const body = {
    ...(await newTake()),
    id: 'made-in-the-browser',
    chartText: 'title: Loop\n| Cm7 | F7 |',
    pace: { passBeats: 8, tempi: [90, 100] },
  };
  const take = await beginTake(body);
  expect(await beginTake(body)).toEqual(take);
  expect(take).toMatchObject({ id: 'made-in-the-browser', chartText: body.chartText, pace: body.pace });
  await removeChart(body.chartId);
  expect(await beginTake({ ...body, id: 'another' })).toMatchObject({
    chartId: null,
    chartText: body.chartText,
  });
});

test('old sound is let go where the player says so; notes and reviews stay', async () => {
  const id = await wholeTake();
  await reviewOf(id);
  expect(await removeOldSound(30)).toBe(0);
  expect(await removeOldSound(30, Date.now() + 31 * 86_400_000)).toBe(1);
  await emptyTrash(0, Date.now() + 32 * 86_400_000);
  expect((await spaceUsed()).soundBytes).toBe(0);
  expect((await reviewOf(id)).take.soundGoneAt).not.toBeNull();
});

test('ranges by RFC 9110', () => {
  expect([
    readRange(null, 100),
    readRange('bytes=0-', 100),
    readRange('bytes=-10', 100),
    readRange('bytes=5-9', 100),
    readRange('bytes=100-', 100),
    readRange('chapters=1', 100),
    readRange('bytes=-', 100),
  ]).toEqual([null, { from: 0, to: 100 }, { from: 90, to: 100 }, { from: 5, to: 10 }, undefined, null, null]);
  expect(wavHeader(10, 44_100)).toHaveLength(44);
});

test('twenty writes at once all land, one after another; a failed one harms none', async () => {
  const { id } = await begin();
  const results = await Promise.allSettled([
    ...Array.from({ length: 20 }, (_, n) => createChart(`title: ${n}\n| C |`)),
    write(async () => {
      throw new Error('on purpose');
    }),
    send(id, 0),
  ]);
  expect(results.filter((one) => one.status === 'rejected')).toHaveLength(1);
  expect(await listCharts()).toHaveLength(21);
});

test('a write that fails midway leaves nothing behind', async () => {
  const before = (await listCharts()).length;
  await expect(
    write(async (tx) => {
      await tx.run(sql`insert into charts (id, title, text) values ('half', 'half', 'half')`);
      throw new Error('power cut');
    }),
  ).rejects.toThrow('power cut');
  expect(await listCharts()).toHaveLength(before);
});

const MIGRATIONS = readdirSync('drizzle')
  .filter((name) => name.endsWith('.sql'))
  .sort();
test.each(MIGRATIONS.slice(0, -1).map((name, index) => [name, index] as const))(
  'from the schema of %s everything comes to the newest with its data: charts, takes, 16-bit sound, notes',
  async (name, index) => {
    const url = `file:${folder}/old-${index}.db`;
    const client = createClient({ url });
    await client.execute(
      'create table __drizzle_migrations (id integer primary key autoincrement, hash text not null, created_at numeric)',
    );
    const journal = JSON.parse(readFileSync('drizzle/meta/_journal.json', 'utf8')) as {
      entries: { when: number }[];
    };
    for (const [step, file] of MIGRATIONS.slice(0, index + 1).entries()) {
      for (const statement of readFileSync(`drizzle/${file}`, 'utf8').split('--> statement-breakpoint'))
        await client.execute(statement);
      await client.execute({
        sql: 'insert into __drizzle_migrations (hash, created_at) values (?, ?)',
        args: [name, journal.entries[step]!.when],
      });
    }
    await client.execute({
      sql: 'insert into charts (id, title, text) values (?, ?, ?)',
      args: ['a', 'Old', CHART],
    });
    const pcm = chunk([0.25, -0.5, 0.125]);
    await client.execute({
      sql: "insert into takes (id, chart_id, title, number, state, source, chart_text, tempo, choruses, plan, rate, frames) values ('t', 'a', 'Old', 1, 'ready', 'file', ?, 200, 1, ?, ?, 3)",
      args: [CHART, JSON.stringify({ id: 'outline' }), RATE],
    });
    await client.execute({
      sql: "insert into audio_chunks (take_id, sequence, frames, first_frame, checksum, pcm) values ('t', 0, 3, 0, ?, ?)",
      args: [checksumOf(pcm), pcm],
    });
    await client.execute({
      sql: "insert into notes (take_id, json) values ('t', ?)",
      args: [JSON.stringify(transcribe(new Float32Array(2000), RATE))],
    });
    client.close();
    closeDatabase();
    process.env.DATABASE_URL = url;
    await migrateDatabase();
    expect((await listCharts()).map((chart) => chart.title)).toEqual(['Old']);
    const take = await takeById('t');
    expect(take).toMatchObject({ bits: 16, pace: null, soundGoneAt: null, frames: 3 });
    const sound = unwrap(readWav(new Uint8Array(await wavResponse(take, null).arrayBuffer())));
    expect([...sound.channels[0]!]).toEqual([0.25, -0.5, 0.125]);
    expect((await reviewOf('t')).report.summary.notes).toBe(0);
    await migrateDatabase(); // a second start changes nothing
  },
);

test('what the player decides about sound is kept and done at once; what cannot be read is for ever', async () => {
  const id = await wholeTake();
  expect(await readSoundSettings()).toEqual({ keepDays: null });
  await write(
    async (tx) =>
      void (await tx
        .update(takes)
        .set({ createdAt: Date.now() - 40 * 86_400_000 })
        .where(eq(takes.id, id))),
  );
  expect([await writeSoundSettings({ keepDays: 60 }), await writeSoundSettings({ keepDays: 30 })]).toEqual([
    0, 1,
  ]);
  expect(await readSoundSettings()).toEqual({ keepDays: 30 });
  await write(async (tx) => void (await tx.update(settings).set({ json: { keepDays: 'soon' } })));
  expect(await readSoundSettings()).toEqual({ keepDays: null });
});

test('the list of takes has each take’s line beside its report, and goes on from any place', async () => {
  const ids = [await wholeTake(), await wholeTake(), await wholeTake()];
  const lines = async (from = 0, most = 10) => (await findTakeSummaries({}, from, most)).listed;
  expect((await lines()).map(({ line }) => line)).toEqual([null, null, null]);
  for (const id of ids) await reviewOf(id);
  const [newest] = await lines(0, 2);
  const { report, marks, findings, take } = await reviewOf(newest!.take.id);
  expect(newest!.line).toEqual(JSON.parse(JSON.stringify(takeSummaryOf(take, report, marks, findings))));
  expect(newest!.line!.profile.landings).toHaveLength(report.changes.length);
  expect((await lines(1)).map(({ take: { number } }) => number)).toEqual([2, 1]);
  await amendTake(newest!.take.id, { offsetSec: 0.5 });
  expect((await lines(0, 1))[0]!.line).toBeNull();
});

// Bodies
const request = (body: BodyInit, headers: Record<string, string> = {}) =>
  new Request('http://127.0.0.1/', { method: 'POST', body, headers });

test('a body is refused by its told length before it is read, and by what comes where none is told', async () => {
  expect(await failure(readBytes(request('xx', { 'content-length': '999' }), 10))).toEqual([
    413,
    'body.too-large',
  ]);
  expect(await failure(readBytes(request('x'.repeat(50)), 10))).toEqual([413, 'body.too-large']);
  expect(await readBytes(request('0123456789'), 10)).toHaveLength(10);
  expect(await failure(readJson(request('{"text":"| C |","more":1}'), chartBody))).toEqual([
    422,
    'body.shape',
  ]);
  expect(await failure(readJson(request('{'), chartBody))).toEqual([400, 'body.json']);
});

test('a finish body holds a transcription as the engine writes it, and nothing broken', () => {
  const transcription = transcribe(
    perform({ notes: [{ onsetBeat: 0, durationBeats: 1, midi: 60 }], tempo: 120, rate: RATE, seed: 1 }),
    RATE,
  );
  expect(transcription.notes).toHaveLength(1);
  const body = JSON.parse(JSON.stringify({ frames: 10, offsetSec: 0, transcription })) as object;
  expect(finishBody.validate(body).error).toBeUndefined();
  expect(finishBody.validate({ ...body, frames: 0 }).error).toBeDefined();
  expect(
    finishBody.validate({ ...body, transcription: { ...transcription, notes: [{ midi: 60 }] } }).error,
  ).toBeDefined();
});

test('a chart emptied while it is typed is kept as it was', async () => {
  const long = 'title: Long\n| Dm7 | G7 | Cmaj7 | A7 |\n';
  const { id } = await createChart(long);
  await updateChart(id, long.slice(0, -4));
  expect(await versionsOf(id)).toEqual([]); // a few letters less are typing
  await updateChart(id, 'title: Long\n');
  expect((await versionsOf(id)).map(({ text }) => text)).toEqual([long.slice(0, -4)]);
  await updateChart(id, '');
  expect(await versionsOf(id)).toHaveLength(1); // what little was left is no loss
});

test('what a chart said for a minute is kept when it changes; it can be turned back to, and that be taken back', async () => {
  const { id } = await createChart('title: One\n| C |\n');
  await updateChart(id, 'title: Two\n| F |\n');
  expect(await versionsOf(id)).toEqual([]); // typed on: nothing stood long enough
  const aged = () =>
    write(async (tx) => void (await tx.update(charts).set({ updatedAt: Date.now() - 61_000 })));
  await aged();
  await updateChart(id, 'title: Three\n| G |\n');
  await aged();
  await updateChart(id, 'title: Three\n| G |\n'); // nothing new: nothing kept
  const versions = await versionsOf(id);
  expect(versions.map((version) => version.text)).toEqual(['title: Two\n| F |\n']);
  expect((await restoreVersion(id, versions[0]!.id)).title).toBe('Two');
  expect((await versionsOf(id)).map((version) => version.text)).toContain('title: Three\n| G |\n');
  expect((await failure(restoreVersion(id, 'nowhere')))[0]).toBe(404);
  for (let count = 0; count < 55; count++) {
    await aged();
    await updateChart(id, `title: Many\n| C${count} |\n`);
  }
  expect(await versionsOf(id)).toHaveLength(50);
  await removeChart(id);
  expect(await versionsOf(id)).toHaveLength(50);
  await emptyTrash(0);
  expect(await versionsOf(id)).toEqual([]);
});

test('a mixed plan is kept with its take and judged by; a plan that says nothing is refused', async () => {
  const plan = {
    id: 'outline' as const,
    parts: [{ where: { degree: 'V' }, plan: { id: 'by-degrees' as const, degrees: '1 3 5' } }],
    heights: ['ground' as const, 'high' as const],
  };
  expect(
    newTakeBody.validate({ chartId: 'x', tempo: 100, choruses: 1, plan, rate: 44_100, source: 'file' }).error,
  ).toBeUndefined();
  for (const wrong of [
    { id: 'magic' },
    { id: 'outline', parts: [{ where: {}, plan: { id: 'outline' } }] },
    { id: 'outline', heights: ['sky'] },
    { id: 'outline', extra: 1 },
  ])
    expect(
      newTakeBody.validate({
        chartId: 'x',
        tempo: 100,
        choruses: 1,
        plan: wrong,
        rate: 44_100,
        source: 'file',
      }).error,
    ).toBeDefined();
  const take = await wholeTake();
  await amendTake(take, { plan });
  const { report } = await reviewOf(take);
  expect((await takeById(take)).plan).toEqual(plan);
  expect(report.changes.length).toBeGreaterThan(0);
  expect(await failure(amendTake(take, { plan: { id: 'by-degrees', degrees: '1 x' } }))).toEqual([
    422,
    'plan.degrees',
  ]);
});

test('a plan in an address is read with care', () => {
  expect(planInAddress('{"id":"outline"}')).toEqual({ id: 'outline' });
  for (const wrong of [
    undefined,
    '',
    'outline',
    '{',
    '{"id":"magic"}',
    '{"id":"home-scale","home":"Q"}',
    `{"id":"outline","home":"${'x'.repeat(9000)}"}`,
  ])
    expect(planInAddress(wrong)).toBeNull();
});
