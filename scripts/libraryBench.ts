import { spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import { improvise } from '../src/core/band';
import { readChart } from '../src/core/chart';
import { unwrap, median } from '../src/core/shared';
import { toPcm24 } from '../src/audio/pcm';
import { storeChunk } from '../src/server/audio';
import { checksumOf } from '../src/server/checksum';
import { createChart } from '../src/server/charts';
import { closeDatabase, migrateDatabase } from '../src/server/db/client';
import { reviewOf } from '../src/server/reviews';
import { readPhrase } from '../src/core/phrases';
import { keepPhrase } from '../src/server/phrases';
import { beginTake, finishTake } from '../src/server/takes';
import { DEMO_CHARTS } from './demo/charts';
import { LibsqlServer } from '../tests/support/libsqlServer';
import { elementAt, present } from '@/core/shared';
import { screenTimes } from './screenTimes';

const PORT = 3391;
const FILE = '.tmp/library.db';
const TEMPO = 120;
/** There and back. */
const DELAY_MS = 30;

/**
 * The pages of a library of many takes, and a phrase looked for in all of them, as the server answers: medians and
 * slowest of twenty.
 */
export async function libraryBench(takes = 1_000): Promise<void> {
  const paths = await libraryOf(takes);
  const stop = await served({ DATABASE_URL: `file:./${FILE}` });
  try {
    for (const { path, name } of paths) {
      const { middle, slowest } = await timed(path);
      console.log(`${name.padEnd(28)} median ${middle.toFixed(0)} ms, slowest ${slowest.toFixed(0)} ms`);
    }
  } finally {
    stop();
  }
}

/**
 * The same pages from a file here and from a database that is `DELAY_MS` away (docs/remote.md): as the server answers,
 * and as a browser shows them.
 */
export async function remoteBench(takes = 200): Promise<void> {
  const paths = await libraryOf(takes);
  const here = await timesOf(paths, { DATABASE_URL: `file:./${FILE}` });
  const server = new LibsqlServer(FILE, 'bench', { delayMs: DELAY_MS });
  const away = await timesOf(paths, { DATABASE_URL: await server.start(), DATABASE_TOKEN: 'bench' });
  await server.stop();
  const compared = (near: number, far: number) =>
    `${near.toFixed(0).padStart(4)} and ${far.toFixed(0).padStart(4)} ms (${(far / near).toFixed(1)})`;
  console.log(`here, and ${DELAY_MS} ms away: as the server answers; as a browser shows it`);
  paths.forEach(({ name }, index) => {
    const [near, far] = [elementAt(here, index), elementAt(away, index)];
    const shown = near.shown !== null && far.shown !== null ? compared(near.shown, far.shown) : '';
    console.log(`${name.padEnd(28)} ${compared(near.answered, far.answered)}   ${shown}`);
  });
}

type BenchPage = { readonly path: string; readonly name: string };
type PageTimes = { readonly answered: number; /** Null where it is data. */ readonly shown: number | null };

async function timesOf(pages: readonly BenchPage[], env: Record<string, string>): Promise<PageTimes[]> {
  const stop = await served(env);
  try {
    const answered: number[] = [];
    for (const { path } of pages) answered.push((await timed(path)).middle);
    const screens = pages.filter(({ path }) => !path.startsWith('/api'));
    const shown = await screenTimes(screens.map(({ path }) => `http://127.0.0.1:${PORT}${path}`));
    return pages.map((page, index) => ({
      answered: elementAt(answered, index),
      shown: shown[screens.indexOf(page)] ?? null,
    }));
  } finally {
    stop();
  }
}

/** Fills a database with takes. @returns the pages to be asked for */
async function libraryOf(takes: number): Promise<readonly BenchPage[]> {
  for (const suffix of ['', '-wal', '-shm']) rmSync(`${FILE}${suffix}`, { force: true });
  process.env.DATABASE_URL = `file:./${FILE}`;
  await migrateDatabase();
  const texts = Object.values(DEMO_CHARTS);
  const charts = await Promise.all(texts.map((text) => createChart(text)));
  const started = Date.now();
  let last = '';
  for (let number = 0; number < takes; number++)
    last = await generated(
      elementAt(charts, number % charts.length).id,
      elementAt(texts, number % texts.length),
      number,
    );
  const phrase = unwrap(readPhrase({ chords: 'Cm7 | F7', line: '1 b3 5 b7 9 b7 5:1 | 3:2', tempo: TEMPO }));
  const kept = await keepPhrase({ name: 'Up and home', tags: [], phrase, source: 'typed' });
  closeDatabase();
  console.log(`${takes} takes made in ${((Date.now() - started) / 1000).toFixed(0)} s`);
  return [
    '/',
    '/charts',
    '/takes',
    '/api/takes/lines?from=500',
    `/takes/${last}`,
    '/drills',
    '/progress',
    '/diary',
    '/week',
    '/phrases',
    `/api/phrases/${kept.id}/found`,
    '/record',
    '/settings',
  ].map((path) => ({ path, name: path.replace(last, '…').replace(kept.id, '…') }));
}

/** A server on a database. @returns what stops it */
async function served(env: Record<string, string>): Promise<() => void> {
  const server = spawn(
    'node',
    ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', String(PORT)],
    { stdio: 'ignore', detached: true, env: { ...process.env, ...env, NODE_ENV: 'production' } },
  );
  await answers();
  return () => {
    if (server.pid) process.kill(-server.pid);
  };
}

async function generated(chartId: string, text: string, seed: number): Promise<string> {
  const chart = unwrap(readChart(text));
  const played = improvise({
    chart,
    tempo: TEMPO,
    choruses: 2,
    plan: { id: 'scale-per-chord' },
    seed,
    profile: { meet: 0.3 + (seed % 7) / 10 },
  });
  const notes = played.map(({ onsetBeat, durationBeats, midi }) => ({
    onsetSec: (onsetBeat * 60) / TEMPO + 1,
    offsetSec: ((onsetBeat + durationBeats) * 60) / TEMPO + 1,
    midi,
    cents: 0,
    attack: 'pick' as const,
    level: -20,
    confidence: 0.9,
  }));
  const { id } = await beginTake({
    chartId,
    tempo: TEMPO,
    choruses: 2,
    plan: { id: 'scale-per-chord' },
    rate: 8_000,
    source: 'stand-in',
    bits: 24,
  });
  const pcm = toPcm24(new Float32Array(8_000));
  await storeChunk(id, 0, pcm, checksumOf(pcm));
  await finishTake(id, {
    frames: 8_000,
    offsetSec: 1,
    transcription: {
      schema: 'idle-wander/notes@1',
      notes,
      tuning: { a4: 440 },
      durationSec: 60,
      playingLevel: -20,
      certainty: 1,
    },
  });
  await reviewOf(id);
  return id;
}

async function answers(): Promise<void> {
  for (let tries = 0; tries < 100; tries++) {
    if (
      await fetch(`http://127.0.0.1:${PORT}/api/charts`).then(
        (response) => response.ok,
        () => false,
      )
    )
      return;
    await new Promise((done) => setTimeout(done, 200));
  }
  throw new Error('the server does not answer: build it first');
}

async function timed(path: string): Promise<{ readonly middle: number; readonly slowest: number }> {
  const times: number[] = [];
  for (let round = 0; round < 22; round++) {
    const from = performance.now();
    await (await fetch(`http://127.0.0.1:${PORT}${path}`)).text();
    if (round > 1) times.push(performance.now() - from);
  }
  return { middle: present(median(times)), slowest: Math.max(...times) };
}
