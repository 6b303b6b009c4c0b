import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeEach, expect, test } from '@jest/globals';
import { readChart, timelineOf } from '@/core/chart';
import { writeLineMidi } from '@/core/formats';
import { phraseOfTake, readPhrase } from '@/core/phrases';
import { unwrap } from '@/core/shared';
import { createChart } from './charts';
import { keepEdits } from './corrections';
import { closeDatabase, migrateDatabase, write } from './db/client';
import { phrases } from './db/schema';
import { LIMITS } from '@/core/contracts';
import { changePhrase, foundAgain, habits, keepPhrase, listPhrases, phraseById } from './phrases';
import { reviewOf } from './reviews';
import { importLine } from './takeImport';
import { amendTake, takeById } from './takes';
import { phraseBody } from './validation';

const folder = mkdtempSync(path.join(tmpdir(), 'wander-'));
let databases = 0;
afterAll(() => {
  closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});
beforeEach(async () => {
  closeDatabase();
  process.env.DATABASE_URL = `file:${folder}/${databases++}.db`;
  await migrateDatabase();
});

const TEXT = 'title: Kept\nkey: C\ntempo: 120\n\n| Dm7 | G7 | Cmaj7 | Cmaj7 |\n';
const IDEA = [62, 65, 69, 72];

/** A take that plays an idea at the given bars, moved by so much. */
async function take(statements: readonly (readonly [bar: number, moved: number])[]): Promise<string> {
  const chart = unwrap(readChart(TEXT));
  const notes = statements.flatMap(([bar, moved]) =>
    IDEA.map((midi, index) => ({ onsetBeat: 4 * bar + 0.5 * index, durationBeats: 0.5, midi: midi + moved })),
  );
  const midi = writeLineMidi({
    chart,
    timeline: timelineOf(chart, 120),
    tempo: 120,
    title: 'x',
    notes,
    choruses: 1,
    swing: null,
  });
  const { id } = await importLine(midi, { chart: (await createChart(TEXT)).id, tempo: 120, name: 'x' });
  return id;
}
const typed = unwrap(readPhrase({ chords: 'Dm7', line: 'D4:1/2 F A C5', tempo: 120 }));
const body = { name: 'Up the chord', tags: ['ii'], phrase: typed, source: 'typed' as const };

test('a phrase is kept, named anew, removed and brought back; a damaged one blocks no other', async () => {
  const { id } = await keepPhrase(body);
  await changePhrase(id, { name: 'Arpeggio', tags: [] });
  expect(await phraseById(id)).toMatchObject({ name: 'Arpeggio', tags: [], phrase: typed, take: null });
  await changePhrase(id, { position: 7 });
  expect((await phraseById(id)).phrase.notes).toEqual(typed.notes.map((note) => ({ ...note, position: 7 })));
  await changePhrase(id, { position: null });
  expect((await phraseById(id)).phrase).toEqual(typed);
  await changePhrase(id, { removed: true });
  expect(await listPhrases()).toEqual([]);
  await expect(phraseById(id)).rejects.toMatchObject({ status: 404 });
  await changePhrase(id, { removed: false });
  await write((tx) =>
    tx.insert(phrases).values({ id: 'bad', name: 'bad', tags: [], json: { notes: 3 }, source: 'typed' }),
  );
  expect((await listPhrases()).map(({ name }) => name)).toEqual(['Arpeggio']);
  await expect(phraseById('bad')).rejects.toMatchObject({ status: 422 });
  await expect(changePhrase('none', { removed: true })).rejects.toMatchObject({ status: 404 });
});

test('as many phrases as there may be are kept, one more is refused', async () => {
  const rows = Array.from({ length: LIMITS.phrase.phrases - 1 }, (_, index) => ({
    id: `many-${index}`,
    name: 'many',
    tags: [],
    json: typed,
    source: 'typed' as const,
  }));
  await write(async (tx) => {
    await tx.delete(phrases);
    for (let from = 0; from < rows.length; from += 500)
      await tx.insert(phrases).values(rows.slice(from, from + 500));
  });
  await keepPhrase(body);
  await expect(keepPhrase(body)).rejects.toMatchObject({ problem: { code: 'phrase.too-many' } });
});

test('what is no phrase is refused with its place', async () => {
  const chords = { ...body, phrase: { ...typed, chartText: '| Hx9 |' } };
  await expect(keepPhrase(chords)).rejects.toMatchObject({
    problem: { code: 'phrase.chords', path: 'phrase.chartText' },
  });
  const long = { ...body, phrase: { ...typed, chartText: `| ${Array(20).fill('C').join(' | ')} |` } };
  await expect(keepPhrase(long)).rejects.toMatchObject({ problem: { code: 'phrase.chords' } });
  const one = (change: object) => phraseBody.validate({ ...body, ...change }, { convert: false }).error;
  expect(one({})).toBeUndefined();
  for (const change of [
    { name: '' },
    { source: 'air' },
    { tags: ['a', 'a'] },
    { phrase: { ...typed, notes: [] } },
    { phrase: { ...typed, notes: [{ onsetBeat: 0, durationBeats: -1, midi: 60 }, typed.notes[0]] } },
    { phrase: { ...typed, tempo: 4 } },
  ])
    expect(one(change)).toBeDefined();
});

test('a phrase is found again in every take: the same, moved; an edit is searched anew; habits are told', async () => {
  const [first, second] = [
    await take([
      [0, 0],
      [2, 5],
    ]),
    await take([[2, 5]]),
  ];
  const { report } = await reviewOf(first);
  const phrase = phraseOfTake(report, 0, unwrap(readChart(TEXT)), 120);
  const { id } = await keepPhrase({ ...body, phrase, source: 'take', take: { id: first, beat: 0 } });
  const found = async () =>
    (await foundAgain(id)).map((one) => [one.id, one.found.map(({ beat, how }) => [beat, how])]);
  expect(await found()).toEqual([
    [second, [[8, 'moved']]],
    [
      first,
      [
        [0, 'exact'],
        [8, 'moved'],
      ],
    ],
  ]);
  expect(await habits()).toMatchObject([{ count: 3, takes: 2, take: { id: second }, phrase: 0 }]);
  // lined up half a second later, its beats are others
  const { offsetSec } = await takeById(second);
  await amendTake(second, { offsetSec: offsetSec - 0.5 });
  expect((await found())[0]).toEqual([second, [[9, 'moved']]]);
  await amendTake(second, { offsetSec });
  await keepEdits(second, [{ kind: 'delete', id: 'h1' }]);
  expect((await found()).map(([take]) => take)).toEqual([first]);
});
