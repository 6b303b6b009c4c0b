import { eq } from 'drizzle-orm';
import { improvise, perform } from '../src/core/band';
import { readChart } from '../src/core/chart';
import { Transcriber } from '../src/core/transcribe';
import { certain } from '../src/core/vocabulary';
import { toPcm16 } from '../src/audio/pcm';
import { checksumOf, storeChunk } from '../src/server/audio';
import { createChart, listCharts } from '../src/server/charts';
import { closeDatabase, migrateDatabase, write } from '../src/server/db/client';
import { charts, takes } from '../src/server/db/schema';
import { reviewOf } from '../src/server/reviews';
import { beginTake, finishTake } from '../src/server/takes';
import { DEMO_CHARTS, type DemoChart } from './demo/charts';
import { DEMO_TAKES, type DemoTake } from './demo/takes';

const RATE = 44_100;
const LEAD_SECONDS = 0.5;
const DAY = 86_400_000;

/** Fills an empty database with the demo: charts, and takes that go through the whole chain. A database with charts in it is left alone. */
async function seed(): Promise<void> {
  await migrateDatabase();
  if ((await listCharts()).length > 0) return console.log('The player’s data is there; nothing was added.');
  const ids = {} as Record<DemoChart, string>;
  const now = Date.now();
  for (const [index, [name, text]] of Object.entries(DEMO_CHARTS).entries()) {
    const { id } = await createChart(text);
    ids[name as DemoChart] = id;
    await write(async (tx) => void (await tx.update(charts).set({ createdAt: now - 28 * DAY + index }).where(eq(charts.id, id))));
  }
  for (const [index, take] of DEMO_TAKES.entries()) {
    const heard = await playTake(take, ids[take.chart], now);
    console.log(`take ${index + 1} of ${DEMO_TAKES.length}: ${take.chart}, ${heard} notes heard`);
  }
}

/** Plays, records, hears and judges one take, as the application does. */
async function playTake(demo: DemoTake, chartId: string, now: number): Promise<number> {
  const { tempo, choruses, seed: number, profile } = demo;
  const plan = { id: demo.plan };
  const notes = improvise({ chart: certain(readChart(DEMO_CHARTS[demo.chart])), tempo, choruses, plan, seed: number, profile });
  const samples = perform({ notes, tempo, rate: RATE, seed: number, leadSeconds: LEAD_SECONDS });
  const take = await beginTake({ chartId, tempo, choruses, plan, rate: RATE, source: 'stand-in' });
  const transcriber = new Transcriber(RATE);
  for (let at = 0, sequence = 0; at < samples.length; at += RATE, sequence++) {
    const block = samples.subarray(at, at + RATE);
    const pcm = toPcm16(block);
    await storeChunk(take.id, sequence, pcm, checksumOf(pcm));
    transcriber.push(block);
  }
  const transcription = transcriber.finish();
  await finishTake(take.id, { frames: samples.length, offsetSec: LEAD_SECONDS, transcription });
  const at = new Date(now - demo.daysAgo * DAY).setHours(demo.hour, 20 + (number % 35), 0, 0);
  await write(async (tx) => void (await tx.update(takes).set({ createdAt: at }).where(eq(takes.id, take.id))));
  await reviewOf(take.id);
  return transcription.notes.length;
}

await seed();
closeDatabase();
