import { rmSync } from 'node:fs';
import { isMainThread } from 'node:worker_threads';
import { eq } from 'drizzle-orm';
import { improvise } from '../src/core/band';
import { readChart } from '../src/core/chart';
import { attemptSize, exampleOf, judgeDrill, type Drill } from '../src/core/drills';
import { unwrap } from '../src/core/shared';
import { toPcm16 } from '../src/audio/pcm';
import { storeChunk } from '../src/server/audio';
import { checksumOf } from '../src/server/checksum';
import { createChart, listCharts } from '../src/server/charts';
import { drillById } from '../src/server/drillRows';
import { addRun, takeUpDrill } from '../src/server/drills';
import { writeGoal } from '../src/server/goal';
import { companionsOf } from '../src/server/backup/files';
import { closeDatabase, database, databaseFile, write } from '../src/server/db/client';
import { openDatabase } from '../src/server/db/startUp';
import { charts, settings, takes } from '../src/server/db/schema';
import { reviewOf } from '../src/server/reviews';
import { beginTake, finishTake, listTakes } from '../src/server/takes';
import { DEMO_CHARTS, type DemoChart } from './demo/charts';
import { DEMO_DRILLS, DEMO_GOAL, DEMO_PHRASES, DEMO_WORDS, type DemoDrill } from './demo/practice';
import { readPhrase } from '../src/core/phrases';
import { keepPhrase } from '../src/server/phrases';
import { hearInThread, Listeners, type Heard, type Performance } from './demo/hearing';
import { DEMO_TAKES, type DemoTake } from './demo/takes';
import { elementAt, present } from '@/core/shared';
import { keepDiary } from '../src/server/diary';

const RATE = 44_100;
const LEAD_SECONDS = 0.5;
const DAY = 86_400_000;

async function opened(): Promise<void> {
  const trouble = await openDatabase();
  if (trouble === null) return;
  console.error(trouble);
  process.exit(1);
}

const FILLING = 'demo-filling';

async function isHalfFilled(): Promise<boolean> {
  return (await database().select().from(settings).where(eq(settings.name, FILLING))).length > 0;
}

/** Stands in the database while it is filled: a filling that is cut off is seen at the next start. */
const markFilling = (isFilling: boolean): Promise<void> =>
  write(async (tx) => {
    if (isFilling) await tx.insert(settings).values({ name: FILLING, json: true });
    else await tx.delete(settings).where(eq(settings.name, FILLING));
  });

/**
 * Fills an empty database with the demo: charts, and takes that go through the whole chain. A database with
 * charts in it is left alone.
 */
async function seed(): Promise<void> {
  await opened();
  if (await isHalfFilled()) {
    // it was empty when the filling began: all that is in it is the demo's
    closeDatabase();
    for (const file of companionsOf(databaseFile())) rmSync(file, { force: true });
    await opened();
    console.log('The demo was half filled; it is made anew.');
  }
  if ((await listCharts()).length > 0) return console.log('The player’s data is there; nothing was added.');
  await markFilling(true);
  const listeners = new Listeners(new URL(import.meta.url));
  const ids = {} as Record<DemoChart, string>;
  const now = Date.now();
  for (const [index, [name, text]] of Object.entries(DEMO_CHARTS).entries()) {
    const { id } = await createChart(text);
    ids[name as DemoChart] = id;
    await write(
      async (tx) =>
        void (await tx
          .update(charts)
          .set({ createdAt: now - 28 * DAY + index })
          .where(eq(charts.id, id))),
    );
  }
  // all are heard at once, and kept in their order
  const performances = DEMO_TAKES.map((take) => listeners.hear(performanceOf(take)));
  for (const [index, take] of DEMO_TAKES.entries()) {
    const heard = await keepTake(take, ids[take.chart], now, await elementAt(performances, index));
    console.log(`take ${index + 1} of ${DEMO_TAKES.length}: ${take.chart}, ${heard} notes heard`);
  }
  await Promise.all(DEMO_DRILLS.map((drill) => practise(drill, ids[drill.chart], now, listeners)));
  await listeners.close();
  for (const [daysAgo, text] of DEMO_WORDS) await keepDiary(dateOf(now - daysAgo * DAY), text);
  for (const { name, tags, ...written } of DEMO_PHRASES)
    await keepPhrase({
      name,
      tags: [...tags],
      phrase: unwrap(readPhrase({ ...written, tempo: 100 })),
      source: 'typed',
    });
  await writeGoal({
    words: DEMO_GOAL.words,
    minutes: DEMO_GOAL.minutes,
    charts: DEMO_GOAL.charts.map((chart) => ids[chart]),
    day: dateOf(thursdayAfter(now + 6 * DAY)),
  });
  await markFilling(false);
}

/** A date in the time of this computer, as ISO 8601 writes it. */
const dateOf = (at: number): string => {
  const date = new Date(at);
  return `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`;
};
const THURSDAY = 4;
const thursdayAfter = (at: number): number => at + ((THURSDAY - new Date(at).getDay() + 7) % 7) * DAY;

/** Takes a drill up, from a finding where one asks for it, and plays its sittings. */
async function practise(demo: DemoDrill, chartId: string, now: number, listeners: Listeners): Promise<void> {
  const { kind, span, tempo, into, sittings } = demo;
  const { id } =
    (into ? await fromFinding(chartId, into) : null) ??
    (await takeUpDrill({ chartId, kind, span: [...span], tempo }));
  for (const [number, { daysAgo, hour, misses }] of sittings.entries()) {
    for (const [attempt, missed] of misses.entries()) {
      const { drill, ladder, title } = await drillById(id);
      const at = new Date(now - daysAgo * DAY).setHours(hour, 5 + attempt * 2, 0, 0);
      const pace = elementAt(ladder.rungs, ladder.at);
      const takeId = await playAttempt(
        { ...drill, tempo: pace },
        {
          chartId,
          title: `${drill.name}, ${title}`,
          drillId: id,
          at,
          seed: 1 + attempt + number * 7,
          missed,
          listeners,
        },
      );
      await addRun(id, { takeId, sitting: `demo-${id.slice(0, 8)}-${number}` });
    }
  }
  const { drill, ladder } = await drillById(id);
  console.log(`drill: ${drill.name}, at ${ladder.rungs[ladder.at]}`);
}

async function fromFinding(chartId: string, into: string) {
  for (const { id } of (await listTakes()).filter((take) => take.chartId === chartId)) {
    const found = (await reviewOf(id)).findings.find(
      ({ kind, where }) => kind === 'target-missed' && where.change?.endsWith(`→${into}`),
    );
    if (found)
      return takeUpDrill({ takeId: id, finding: { kind: found.kind, change: present(found.where.change) } });
  }
  return null;
}

type Attempt = {
  readonly chartId: string;
  readonly title: string;
  readonly drillId: string;
  readonly at: number;
  readonly seed: number;
  readonly missed: number;
  readonly listeners: Listeners;
};

/** An example of the drill with so many of its places missed, played, recorded and heard. */
async function playAttempt(
  drill: Drill,
  { chartId, title, drillId, at, seed: number, missed, listeners }: Attempt,
): Promise<string> {
  const { passes } = attemptSize(drill);
  const line = present(exampleOf(drill, number, passes));
  const places = judgeDrill(drill, line, passes)
    .places.map(({ beat }) => beat)
    .filter((_, index, all) => index % Math.max(1, Math.floor(all.length / Math.max(1, missed))) === 1)
    .slice(0, missed);
  const notes = line.map((note) =>
    places.some((beat) => Math.abs(note.onsetBeat - beat) < 0.3) ? { ...note, midi: note.midi + 1 } : note,
  );
  const take = await beginTake({
    chartId,
    chartText: drill.chartText,
    title,
    tempo: drill.tempo,
    choruses: passes,
    plan: drill.plan,
    rate: RATE,
    source: 'stand-in',
    drillId,
    createdAt: at,
  });
  const { tempo } = drill;
  await record(
    take.id,
    await listeners.hear({ notes, tempo, rate: RATE, seed: number, leadSeconds: LEAD_SECONDS }),
  );
  return take.id;
}

const performanceOf = ({ chart, tempo, choruses, seed: number, profile, plan }: DemoTake): Performance => {
  const notes = improvise({
    chart: unwrap(readChart(DEMO_CHARTS[chart])),
    tempo,
    choruses,
    plan: { id: plan },
    seed: number,
    profile,
  });
  return { notes, tempo, rate: RATE, seed: number, leadSeconds: LEAD_SECONDS };
};

/** Records and judges one take that was played and heard. @returns how many notes were heard */
async function keepTake(demo: DemoTake, chartId: string, now: number, heard: Heard): Promise<number> {
  const { tempo, choruses, seed: number } = demo;
  const plan = { id: demo.plan };
  const take = await beginTake({ chartId, tempo, choruses, plan, rate: RATE, source: 'stand-in' });
  await record(take.id, heard);
  const at = new Date(now - demo.daysAgo * DAY).setHours(demo.hour, 20 + (number % 35), 0, 0);
  await write(
    async (tx) => void (await tx.update(takes).set({ createdAt: at }).where(eq(takes.id, take.id))),
  );
  await reviewOf(take.id);
  return heard.transcription.notes.length;
}

/** Sound kept chunk by chunk with what was heard in it, as a take is. */
async function record(id: string, { samples, transcription }: Heard): Promise<void> {
  for (let at = 0, sequence = 0; at < samples.length; at += RATE, sequence++) {
    const pcm = toPcm16(samples.subarray(at, at + RATE));
    await storeChunk(id, sequence, pcm, checksumOf(pcm));
  }
  await finishTake(id, { frames: samples.length, offsetSec: LEAD_SECONDS, transcription });
}

if (isMainThread) {
  await seed();
  closeDatabase();
} else hearInThread();
