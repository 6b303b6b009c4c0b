import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { improvise, perform } from '@/core/band';
import { readChart } from '@/core/chart';
import { asPlayed, type Report } from '@/core/analyse';
import type { Edit } from '@/core/correct';
import { readLineMusicXml, readMidi, readReport, readWav, unpackTake } from '@/core/formats';
import { unwrap } from '@/core/shared';
import { toPcm24 } from '@/audio/pcm';
import { storeChunk } from './audio';
import { checksumOf } from './checksum';
import { createChart } from './charts';
import { keepEdits, keepWords } from './corrections';
import { eq } from 'drizzle-orm';
import { closeDatabase, migrateDatabase, write } from './db/client';
import { reports } from './db/schema';
import { keepEarlierHomes } from './earlierHomes';
import { Failure } from './failure';
import { siblingsOf, reviewOf, reviewResponse } from './reviews';
import { exportTake, type ExportFormat } from './takeFiles';
import { findTakeSummaries, takeFacets } from './takeSummaries';
import { beginTake, finishTake } from './takes';
import { removeOldSound } from './trash';
import { takesQuery, type TakeFilter } from './validation';
import { importArchive } from './takeImport';
import { importLine } from './takeImport';

const CHART = 'title: Kept\nkey: Bb\ntempo: 120\n\n| Bb7 | Eb7 | Cm7 F7 | Bb7 |\n';
const RATE = 8_000;
let folder = '';
let databases = 0;
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'wander-'));
});
afterAll(() => {
  closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});
beforeEach(async () => {
  closeDatabase();
  process.env.DATABASE_URL = `file:${folder}/${databases++}.db`;
  await migrateDatabase();
});

type Made = {
  chart?: string;
  tempo?: number;
  plan?: string;
  seed?: number;
  meet?: number;
  choruses?: number;
};

/** A take with sound and the notes that were truly played in it. */
async function take({
  chart = CHART,
  tempo = 120,
  plan = 'outline',
  seed = 2,
  meet = 1,
  choruses = 2,
}: Made = {}): Promise<string> {
  const notes = improvise({
    chart: unwrap(readChart(chart)),
    tempo,
    choruses,
    plan: { id: 'outline' },
    seed,
    profile: { meet },
  });
  const samples = perform({ notes, tempo, rate: RATE, seed });
  const { id } = await beginTake({
    chartId: (await createChart(chart)).id,
    tempo,
    choruses,
    plan: { id: plan as 'outline' },
    rate: RATE,
    source: 'file',
    bits: 24,
  });
  const pcm = toPcm24(samples.subarray(0, RATE * 4));
  await storeChunk(id, 0, pcm, checksumOf(pcm));
  const seconds = (beat: number) => (beat * 60) / tempo + 0.5;
  const heard = notes.map(({ onsetBeat, durationBeats, midi }) => ({
    onsetSec: seconds(onsetBeat),
    offsetSec: seconds(onsetBeat + durationBeats),
    midi: Math.round(midi),
    cents: 0,
    attack: 'pick' as const,
    level: -20,
    confidence: 0.95,
  }));
  await finishTake(id, {
    frames: RATE * 4,
    offsetSec: 0.5,
    transcription: {
      schema: 'idle-wander/notes@1',
      notes: heard,
      tuning: { a4: 440 },
      durationSec: 4,
      playingLevel: -20,
      certainty: 1,
    },
  });
  return id;
}

const refused = async (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => '',
    (error: unknown) => {
      if (error instanceof Failure) return error.problem.code;
      throw error;
    },
  );
const bytesOf = async (id: string, format: ExportFormat): Promise<Uint8Array> =>
  new Uint8Array(await (await exportTake(id, format)).arrayBuffer());

test('edits lie over what was heard, the report follows them, and without them it is as it was', async () => {
  const id = await take();
  const before = await reviewOf(id);
  const edits: Edit[] = [
    { kind: 'delete', id: 'h0' },
    { kind: 'pitch', id: 'h3', midi: before.heard[3]!.midi + 1 },
  ];
  expect(await keepEdits(id, edits)).toEqual({ edits: 2 });
  const after = await reviewOf(id);
  expect([after.report.summary.notes, after.heard, after.edits]).toEqual([
    before.report.summary.notes - 1,
    before.heard,
    edits,
  ]);
  await keepEdits(id, []);
  expect((await reviewOf(id)).report).toEqual(before.report);
  expect(await refused(keepEdits('none', []))).toBe('not-found');
});

test('a review as text is the review', async () => {
  const id = await take();
  await reviewOf(id);
  const answer = await reviewResponse(id);
  expect(answer).toBeInstanceOf(Response);
  expect(await (answer as Response).json()).toEqual(JSON.parse(JSON.stringify(await reviewOf(id))));
});

test('every number of a review is that of the command line on the same notes', async () => {
  const id = await take({ seed: 5, meet: 0.4 });
  const { report, heard } = await reviewOf(id);
  writeFileSync(`${folder}/notes.json`, JSON.stringify({ notes: heard }));
  writeFileSync(`${folder}/chart.txt`, CHART);
  const said = execFileSync(
    'bin/wander',
    [
      'analyse',
      `${folder}/notes.json`,
      '--chart',
      `${folder}/chart.txt`,
      '--tempo',
      '120',
      '--offset',
      '0.5',
      '--plan',
      'outline',
      '--choruses',
      '2',
      '--json',
    ],
    { encoding: 'utf8', env: { ...process.env, NODE_OPTIONS: '' } },
  );
  const { findings: _findings, ...own } = JSON.parse(said) as Report & { findings: unknown };
  const same = JSON.parse(JSON.stringify(asPlayed(report))) as Record<string, unknown>;
  for (const part of Object.keys(same))
    expect([part, own[part as keyof typeof own]]).toEqual([part, same[part]]);
}, 60_000);

test('what is saved reads back: notes as MIDI and MusicXML, the report as JSON and CSV, sound as it was', async () => {
  const id = await take();
  const { report, heard } = await reviewOf(id);
  for (const read of [
    unwrap(readMidi(await bytesOf(id, 'midi'))),
    unwrap(readLineMusicXml(new TextDecoder().decode(await bytesOf(id, 'musicxml')))),
  ]) {
    const lead = Math.round(read[0]!.onsetBeat - ((heard[0]!.onsetSec - 0.5) * 120) / 60);
    expect(read.map(({ midi }) => midi)).toEqual(heard.map(({ midi }) => midi));
    read.forEach((note, index) =>
      expect(note.onsetBeat - lead).toBeCloseTo(((heard[index]!.onsetSec - 0.5) * 120) / 60, 1),
    );
  }
  expect(readReport(JSON.parse(new TextDecoder().decode(await bytesOf(id, 'json')))).ok).toBe(true);
  const [notes, changes] = (
    await Promise.all((['notes-csv', 'changes-csv'] as const).map((format) => bytesOf(id, format)))
  ).map((bytes) => new TextDecoder().decode(bytes).trim().split('\r\n'));
  expect([notes!.length, changes!.length]).toEqual([report.notes.length + 1, report.changes.length + 1]);
  expect(changes![1]!.split(',').slice(1, 6)).toEqual(
    [1, report.changes[0]!.bar, report.changes[0]!.beat, report.changes[0]!.from, report.changes[0]!.to].map(
      String,
    ),
  );
  expect(unwrap(readWav(await bytesOf(id, 'wav'))).channels[0]).toHaveLength(RATE * 4);
  const named = (await exportTake(id, 'midi')).headers.get('content-disposition');
  expect(named).toBe('attachment; filename="Kept take 1.mid"');
});

test('a take in one file opens elsewhere as the same take: sound, notes, edits and words', async () => {
  const id = await take();
  await keepEdits(id, [{ kind: 'delete', id: 'h1' }]);
  await keepWords(id, { stars: 4, tags: ['slow'], remarks: [{ id: 'r1', text: 'Bar 3 again', bar: 3 }] });
  const [archive, wav, review] = [await bytesOf(id, 'archive'), await bytesOf(id, 'wav'), await reviewOf(id)];
  expect(unwrap(unpackTake(archive)).take.title).toBe('Kept');
  closeDatabase();
  process.env.DATABASE_URL = `file:${folder}/elsewhere-${databases}.db`;
  await migrateDatabase();
  const { id: there, number } = await importArchive(archive);
  const other = await reviewOf(there);
  expect([number, other.edits, other.words, other.heard]).toEqual([
    1,
    review.edits,
    review.words,
    review.heard,
  ]);
  expect(other.report).toEqual(review.report);
  // the same file again is the same take; once it has changed here, the file is another one
  expect(await importArchive(archive)).toEqual({ id: there, number: 1, already: true });
  await keepWords(there, { stars: 1, tags: [], remarks: [] });
  const again = await importArchive(archive);
  expect([again.id === there, again.number, again.already]).toEqual([false, 2, undefined]);
  expect(Buffer.from(await bytesOf(there, 'wav')).equals(Buffer.from(wav))).toBe(true);
});

test('a line written elsewhere becomes a take without sound; what is no line or no archive is refused', async () => {
  const id = await take();
  const chart = (await createChart(CHART)).id;
  for (const format of ['midi', 'musicxml'] as const) {
    const line = await importLine(await bytesOf(id, format), { chart, tempo: 120, name: 'Borrowed' });
    const { take: stored, report } = await reviewOf(line.id);
    expect([stored.title, stored.soundGoneAt !== null, report.summary.notes]).toEqual([
      'Borrowed',
      true,
      (await reviewOf(id)).report.summary.notes,
    ]);
    expect(await refused(exportTake(line.id, 'wav'))).toBe('take.sound-gone');
  }
  const text = (words: string) => new TextEncoder().encode(words);
  expect(await refused(importLine(text('<nothing/>'), { chart, tempo: 120, name: 'x' }))).toMatch(
    /^musicxml\./,
  );
  expect(await refused(importLine(text('MThd broken'), { chart, tempo: 120, name: 'x' }))).toMatch(/^midi\./);
  expect(await refused(importLine(await bytesOf(id, 'midi'), { chart: 'none', tempo: 120, name: 'x' }))).toBe(
    'not-found',
  );
  expect(await refused(importArchive(text('PK nothing')))).toBe('archive.unreadable');
});

test('sound that was let go is not in the archive; the rest is', async () => {
  const id = await take();
  await removeOldSound(0, Date.now() + 1000);
  const { sound, take: document } = unwrap(unpackTake(await bytesOf(id, 'archive')));
  expect([sound, document.heard.notes.length > 10]).toEqual([null, true]);
});

test('takes are chosen by tune, plan, key, tempo, date, finding, stars and words', async () => {
  const other = CHART.replace('Kept', 'Other').replace('key: Bb', 'key: Eb');
  const [first, second, third] = [
    await take(),
    await take({ chart: other, tempo: 90, plan: 'scale-per-chord', seed: 3 }),
    await take({ seed: 4, meet: 0, choruses: 4 }),
  ];
  for (const id of [first, second, third]) await reviewOf(id);
  await keepWords(second, { stars: 4, tags: ['Rainy'], remarks: [] });
  const found = async (filter: TakeFilter) =>
    (await findTakeSummaries(filter, 0, 10)).listed.map(({ take: { id } }) => id);
  expect(await found({})).toEqual([third, second, first]);
  expect(await found({ title: 'Other' })).toEqual([second]);
  expect(await found({ plan: 'outline' })).toEqual([third, first]);
  expect(await found({ slowest: 100 })).toEqual([third, first]);
  expect(await found({ fastest: 90 })).toEqual([second]);
  expect(await found({ text: 'RAIN' })).toEqual([second]);
  expect(await found({ text: '%' })).toEqual([]);
  expect([await found({ stars: 4 }), await found({ stars: 5 })]).toEqual([[second], []]);
  expect([
    await found({ since: Date.now() + 1000 }),
    (await found({ until: Date.now() + 1000 })).length,
  ]).toEqual([[], 3]);
  const facets = await takeFacets();
  expect([facets.titles, [...facets.plans].sort()]).toEqual([
    ['Kept', 'Other'],
    ['outline', 'scale-per-chord'],
  ]);
  for (const key of facets.keys) expect((await found({ key })).length).toBeGreaterThan(0);
  for (const { kind, count } of facets.findings)
    expect([kind, (await found({ finding: kind })).length]).toEqual([kind, count]);
  expect(facets.findings.length).toBeGreaterThan(0);
  expect((await siblingsOf(third)).map(({ id }) => id)).toEqual([first]);
  expect(takesQuery.validate({ finding: "x' or 1" }).error).toBeDefined();
});

test('a take judged before a form’s home scale was read as today keeps the one it was judged by', async () => {
  const rock = 'title: Kept\nkey: A\ntempo: 120\n\n| A | G | D | A |\n';
  const [earlier, newer] = [await take({ chart: rock }), await take({ chart: rock })];
  await reviewOf(newer);
  await reviewOf(earlier);
  await write((tx) => tx.update(reports).set({ engineVersion: 6 }).where(eq(reports.takeId, earlier)));
  expect([await keepEarlierHomes(), await keepEarlierHomes()]).toEqual([1, 0]);
  const homes = async (id: string) => {
    const { take: stored, report, isJudgedAnew } = await reviewOf(id);
    const { homeUsed, homeUnused } = report.coverageOverall;
    return [stored.plan.home, [...homeUsed, ...homeUnused].includes(8), isJudgedAnew];
  };
  // G sharp is of A major, not of A Mixolydian
  expect(await homes(earlier)).toEqual(['A major', true, true]);
  expect(await homes(newer)).toEqual([undefined, false, undefined]);
});
