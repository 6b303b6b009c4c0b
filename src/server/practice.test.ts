import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { readChart } from '@/core/chart';
import { exampleOf, type Drill } from '@/core/drills';
import { DAY_MS } from '@/core/scheduling';
import { unwrap } from '@/core/shared';
import { improvise } from '@/core/band';
import { createChart } from './charts';
import { closeDatabase, migrateDatabase } from './db/client';
import { drillById, listDrills, runsOf, type StoredDrill } from './drillRows';
import { addRun, changeDrill, takeUpDrill } from './drills';
import { Failure } from './failure';
import { daySchema } from '@/core/formats';
import { readGoal, writeGoal } from './goal';
import { endsOf, progressFor, today } from './practice';
import { weekAhead } from './week';
import { reviewOf } from './reviews';
import { findTakeSummaries } from './takeSummaries';
import { beginTake, finishTake } from './takes';
import { newDrillBody } from './validation';
import { diary } from './diary';
import { keepDiary } from './diary';

const CHART = 'title: Kept\nkey: Bb\ntempo: 96\n\n| Bb7 | Eb7 | Bb7 G7 | Cm7 F7 |\n';
let folder = '';
let databases = 0;
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'wander-practice-'));
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

type Beat = { readonly onsetBeat: number; readonly durationBeats: number; readonly midi: number };
type Made = {
  chartId: string;
  notes: readonly Beat[];
  tempo: number;
  choruses: number;
  chartText?: string;
  drillId?: string;
  at?: number;
};
async function take({
  chartId,
  notes,
  tempo,
  choruses,
  chartText,
  drillId,
  at = Date.now(),
}: Made): Promise<string> {
  const { id } = await beginTake({
    chartId,
    tempo,
    choruses,
    plan: { id: 'scale-per-chord' },
    rate: 8000,
    source: 'file',
    bits: 24,
    createdAt: at,
    ...(chartText ? { chartText } : {}),
    ...(drillId ? { drillId } : {}),
  });
  const seconds = (beat: number) => (beat * 60) / tempo + 1;
  const heard = notes.map(({ onsetBeat, durationBeats, midi }) => ({
    onsetSec: seconds(onsetBeat),
    offsetSec: seconds(onsetBeat + durationBeats),
    midi: Math.round(midi),
    cents: 0,
    attack: 'pick' as const,
    level: -20,
    confidence: 0.95,
  }));
  const { storeChunk } = await import('./audio');
  const { checksumOf } = await import('./checksum');
  const pcm = new Uint8Array(8000 * 3);
  await storeChunk(id, 0, pcm, checksumOf(pcm));
  await finishTake(id, {
    frames: 8000,
    offsetSec: 1,
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
const attempt = (
  stored: StoredDrill,
  good: boolean,
  at: number,
  tempo = stored.ladder.rungs[stored.ladder.at]!,
): Promise<string> => {
  const line = exampleOf({ ...stored.drill, tempo } as Drill, 1, 2)!;
  return take({
    chartId: stored.chartId!,
    notes: good ? line : line.map((note) => ({ ...note, midi: note.midi + 6 })),
    tempo,
    choruses: 2,
    chartText: stored.drill.chartText,
    drillId: stored.id,
    at,
  });
};
const refused = async (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'done',
    (error: unknown) => (error instanceof Failure ? error.problem.code : String(error)),
  );

test('from a finding to its drill, up the ladder, and back on its day', async () => {
  const chartId = (await createChart(CHART)).id;
  const notes = improvise({
    chart: unwrap(readChart(CHART)),
    tempo: 96,
    choruses: 12,
    plan: { id: 'scale-per-chord' },
    seed: 4,
    profile: { meet: 0.96, early: 0, late: 0, changes: { F7: 0.02 } },
  });
  const solo = await take({ chartId, notes, tempo: 96, choruses: 12 });
  const { findings } = await reviewOf(solo);
  const index = findings.findIndex(
    ({ kind, where }) => kind === 'target-missed' && where.change === 'Cm7→F7',
  );
  const drill = await takeUpDrill({ takeId: solo, finding: { kind: 'target-missed', change: 'Cm7→F7' } });
  expect(drill).toMatchObject({
    title: 'Kept',
    chartId,
    away: false,
    origin: { takeId: solo, take: 1, sentence: findings[index]!.sentence },
    drill: { kind: 'one-target', name: 'Third or seventh into F7' },
  });
  expect(drill.dueAt).toBeLessThanOrEqual(Date.now());
  // the same again is the same one
  expect((await takeUpDrill({ takeId: solo, finding: { kind: 'target-missed', change: 'Cm7→F7' } })).id).toBe(
    drill.id,
  );

  const sitting = 'sitting-1';
  const begun = drill.ladder.rungs[drill.ladder.at]!;
  const climbs: string[] = [];
  for (const [minute, good] of [true, true, false, true].entries()) {
    const takeId = await attempt(await drillById(drill.id), good, Date.now() + minute * 1000 - 60_000);
    const outcome = await addRun(drill.id, { takeId, sitting });
    climbs.push(
      `${outcome.run.passed ? 'met' : 'not met'} ${outcome.climb} ${outcome.drill.ladder.rungs[outcome.drill.ladder.at]}`,
    );
    // told twice, counted once
    expect((await addRun(drill.id, { takeId, sitting })).run).toEqual(outcome.run);
  }
  const above = drill.ladder.rungs[drill.ladder.at + 1]!;
  expect(climbs).toEqual([
    `met stay ${begun}`,
    `met up ${above}`,
    `not met stay ${above}`,
    `met stay ${above}`,
  ]);
  const attempts = await runsOf(drill.id);
  expect(attempts).toHaveLength(4);
  // the first and the latest can be heard, one after the other
  expect(await endsOf(drill.id)).toEqual([attempts[0]!.takeId, attempts[3]!.takeId]);
  const after = await drillById(drill.id);
  expect(after.memory?.reps).toBe(1); // four attempts, one sitting
  expect((after.dueAt - Date.now()) / DAY_MS).toBeGreaterThan(0.5);
  expect((after.dueAt - Date.now()) / DAY_MS).toBeLessThanOrEqual(3);
  // attempts are no solos: neither listed nor praised nor counted as progress
  expect((await findTakeSummaries({}, 0, 10)).total).toBe(1);
  expect((await progressFor('Kept')).takes).toBe(1);
});

test('a take that is no attempt, or not finished, is not counted', async () => {
  const chartId = (await createChart(CHART)).id;
  const drill = await takeUpDrill({ chartId, kind: 'ladder-roots' });
  const solo = await take({
    chartId,
    notes: [{ onsetBeat: 0, durationBeats: 1, midi: 58 }],
    tempo: 96,
    choruses: 1,
  });
  expect(await refused(addRun(drill.id, { takeId: solo, sitting: 's' }))).toBe('run.other');
  const open = await beginTake({
    chartId,
    tempo: 72,
    choruses: 1,
    plan: { id: 'outline' },
    rate: 8000,
    source: 'file',
    drillId: drill.id,
  });
  expect(await refused(addRun(drill.id, { takeId: open.id, sitting: 's' }))).toBe('take.open');
  expect(await refused(addRun('nothing', { takeId: solo, sitting: 's' }))).toBe('not-found');
});

test('drills from the catalogue and in words; put away and taken up; another goal, another tempo', async () => {
  const chartId = (await createChart(CHART)).id;
  const thirds = await takeUpDrill({ chartId, kind: 'ladder-thirds', span: [3, 4], tempo: 88 });
  expect(thirds.drill).toMatchObject({ span: [3, 4], tempo: 88 });
  const own = await takeUpDrill({
    chartId,
    words: 'land on the third from a half step below, bars 4, at 60',
  });
  expect(own.drill).toMatchObject({
    kind: 'own',
    span: [4, 4],
    tempo: 60,
    rule: { kind: 'lead', tones: ['third'], from: [-1] },
  });
  expect(await refused(takeUpDrill({ chartId, words: 'play well' }))).toBe('drill.words');
  expect(await refused(takeUpDrill({ chartId, kind: 'ladder-thirds', span: [3, 9] }))).toBe('drill.bars');
  expect((await takeUpDrill({ chartId, kind: 'one-target', change: 'Cm7→F7' })).drill).toMatchObject({
    span: [4, 4],
    name: 'Third or seventh into F7',
  });
  expect((await takeUpDrill({ chartId, kind: 'one-target', change: 'Bb7→Eb7' })).drill.span).toEqual([1, 2]);
  expect(await refused(takeUpDrill({ chartId, kind: 'one-target', change: 'C7→F7' }))).toBe('drill.change');
  expect(await refused(takeUpDrill({ chartId: 'none', kind: 'ladder-thirds' }))).toBe('not-found');
  const higher = await takeUpDrill({ drillId: thirds.id, by: 5 });
  expect(higher.drill).toMatchObject({
    name: 'Thirds at every change, in Eb major',
    span: [3, 4],
    tempo: 88,
  });
  expect(higher.drill.chartText).toContain('| Eb7 C7 | Fm7 Bb7 |');
  expect((await takeUpDrill({ drillId: higher.id, by: -5 })).drill.chartText).toBe(thirds.drill.chartText);
  await changeDrill(thirds.id, { away: true });
  expect((await listDrills()).map(({ id, away }) => [id === thirds.id, away])).toContainEqual([true, true]);
  expect((await today()).items.map(({ drill }) => drill.id)).toContain(own.id);
  expect((await today()).items.map(({ drill }) => drill.id)).not.toContain(thirds.id);
  expect((await takeUpDrill({ chartId, kind: 'ladder-thirds', span: [3, 4], tempo: 88 })).away).toBe(false);
  const { ladder } = await changeDrill(thirds.id, { tempo: 44, up: 3 });
  expect([ladder.rungs[ladder.at], ladder.up]).toEqual([44, 3]);
  expect((await changeDrill(thirds.id, { goal: 132 })).ladder.rungs.at(-1)).toBe(132);
  const shape = (body: unknown) => newDrillBody.validate(body).error === undefined;
  expect([
    shape({ chartId, kind: 'ladder-thirds' }),
    shape({ chartId, kind: 'nothing' }),
    shape({ takeId: 'a' }),
    shape({ chartId, words: 'x'.repeat(500) }),
    shape({ chartId, kind: 'own-phrase', phrase: { gaps: [0.5], moves: [2] } }),
  ]).toEqual([true, false, false, false, true]);
});

test('Today: what is due, what a goal asks for, and the minutes of this week', async () => {
  const chartId = (await createChart(CHART)).id;
  const other = (await createChart(CHART.replace('Kept', 'Other'))).id;
  expect(await today()).toMatchObject({
    goal: null,
    steps: [],
    items: [],
    tunes: [],
    last: null,
    minutesThisWeek: 0,
  });
  await takeUpDrill({ chartId, kind: 'ladder-thirds' });
  const notes = improvise({
    chart: unwrap(readChart(CHART)),
    tempo: 96,
    choruses: 3,
    plan: { id: 'scale-per-chord' },
    seed: 4,
    profile: { meet: 1, early: 0, late: 0 },
  });
  await take({ chartId, notes, tempo: 96, choruses: 3, at: Date.now() - 60_000 });
  const day = new Date(Date.now() + 9 * DAY_MS).toISOString().slice(0, 10);
  await writeGoal({ words: 'the jam on Thursday', day, charts: [chartId, other], minutes: 20 });
  const now = await today();
  expect(now.steps.map(({ kind }) => kind)).toEqual(['drill', 'course', 'take']);
  expect(now.course!.step).toMatchObject({ level: 'locked', standing: 'new' });
  expect(now.steps[2]).toMatchObject({ chart: other });
  expect(now.daysLeft).toBeGreaterThanOrEqual(8);
  expect(now.spread).toHaveLength(now.daysLeft! + 1);
  const [tune] = now.tunes;
  expect([tune!.title, tune!.of, tune!.takes, tune!.tempo]).toEqual(['Kept', 5, 1, 96]);
  expect(tune!.held).toBeGreaterThanOrEqual(3);
  expect(now.minutesThisWeek).toBeCloseTo(1 / 60, 5);
  await expect(
    writeGoal({ words: 'another', day, charts: [chartId, 'nowhere'], minutes: 20 }),
  ).rejects.toMatchObject({ problem: { code: 'goal.charts' } });
  expect((await readGoal())?.words).toBe('the jam on Thursday');
  await writeGoal({ none: true });
  expect(await readGoal()).toBeNull();
  // by itself the tune played last, and every tune where the one asked for was never played
  const shown = await progressFor(undefined);
  expect([shown.chosen, shown.title, shown.titles, shown.takes]).toEqual(['Kept', 'Kept', ['Kept'], 1]);
  expect(await progressFor('Never played')).toMatchObject({ chosen: null, title: 'Every tune', takes: 1 });
});

test('a drill is put on another day of the week ahead, stays there, and is played on it', async () => {
  const chartId = (await createChart(CHART)).id;
  const drill = await takeUpDrill({ chartId, kind: 'ladder-thirds' });
  await takeUpDrill({ chartId, kind: 'ladder-roots' });
  const dayOf = async () =>
    (await weekAhead()).days.findIndex(({ steps }) =>
      steps.some((step) => step.kind === 'drill' && step.id === drill.id),
    );
  expect(await dayOf()).toBe(0);
  const moved = await changeDrill(drill.id, { inDays: 3 });
  expect([moved.isMoved, new Date(moved.dueAt).getHours()]).toEqual([true, 0]);
  expect(await dayOf()).toBe(3);
  // Today leaves it to its day, a goal with its tune too
  const day = new Date(Date.now() + 9 * DAY_MS).toISOString().slice(0, 10);
  await writeGoal({ words: 'the jam', day, charts: [chartId], minutes: 30 });
  const ids = (await today()).steps.flatMap((step) => (step.kind === 'drill' ? [step.id] : []));
  expect(ids).toHaveLength(1);
  expect(ids).not.toContain(drill.id);
  // practised all the same, it comes back when the scheduler says so
  const takeId = await attempt(await drillById(drill.id), true, Date.now() - 60_000);
  expect((await addRun(drill.id, { takeId, sitting: 's' })).drill.isMoved).toBe(false);
  expect((await changeDrill(drill.id, { inDays: 0 })).dueAt).toBeLessThanOrEqual(Date.now());
  expect(await dayOf()).toBe(0);
  await writeGoal({ none: true });
});

test('the diary fills itself and keeps the player’s words', async () => {
  const chartId = (await createChart(CHART)).id;
  const drill = await takeUpDrill({ chartId, kind: 'ladder-thirds' });
  await addRun(drill.id, { takeId: await attempt(drill, true, Date.now() - 5000), sitting: 's' });
  const { days } = await diary();
  expect(days).toHaveLength(1);
  expect(days[0]!.lines[0]).toMatchObject({
    kind: 'drill',
    name: 'Thirds at every change',
    title: 'Kept',
    tries: 1,
    passes: 1,
  });
  await keepDiary(days[0]!.day, 'Slow is fine.');
  expect((await diary()).words).toEqual({ [days[0]!.day]: 'Slow is fine.' });
  await keepDiary(days[0]!.day, ' ');
  expect((await diary()).words).toEqual({});
});

test.each([
  ['2026-02-28', true],
  ['2024-02-29', true],
  ['2026-02-29', false],
  ['2026-04-31', false],
  ['2026-13-01', false],
  ['2026-00-10', false],
  ['26-01-01', false],
  ['2026-1-1', false],
])('%s is a day: %s', (day, exists) => {
  expect(daySchema.validate(day).error === undefined).toBe(exists);
});
