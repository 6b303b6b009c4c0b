import { datesIn, USUAL_LANGUAGE } from '@/presentation';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { sql } from 'drizzle-orm';
import { toPcm16 } from '@/audio/pcm';
import { improvise, perform } from '@/core/band';
import { readChart } from '@/core/chart';
import { readPhrase } from '@/core/phrases';
import { seededRandom, unwrap } from '@/core/shared';
import { storeChunk } from '@/server/audio';
import { checksumOf } from '@/server/checksum';
import { createChart, listCharts } from '@/server/charts';
import { closeDatabase, database, migrateDatabase } from '@/server/db/client';
import { diaryWeeks } from '@/server/diary';
import { listDrills } from '@/server/drillRows';
import { takeUpDrill } from '@/server/drills';
import { listedTakes } from '@/server/judgedTakes';
import { listNames } from '@/server/names';
import { habits, keepPhrase, listPhrases } from '@/server/phrases';
import { progressFor, today } from '@/server/practice';
import { readSoundSettings } from '@/server/settings';
import { takeFacets } from '@/server/takeSummaries';
import { beginTake, finishTake } from '@/server/takes';
import { readTrash } from '@/server/trash';
import { weekAhead } from '@/server/week';
import { changedJson } from '../fuzz/json';
import { mutated } from '../fuzz/mutate';

const API = 'src/app/api';
const CHART = 'title: Kept\nkey: Bb\ntempo: 96\n\n| Bb7 | Eb7 | Bb7 G7 | Cm7 F7 |\n';
const EACH = Number(process.env.FUZZ_EACH ?? 40);
/** Of the processor's time: other work on the machine is not held against an answer. */
const SLOWEST_MS = 2_000;
const WAITS_MS = 20_000;
const folder = mkdtempSync(path.join(tmpdir(), 'wander-routes-'));
const PLAN = { id: 'scale-per-chord' } as const;
const NOTES = [0, 1, 2, 3].map((n) => ({ onsetSec: 0.6 * n, offsetSec: 0.6 * n + 0.5, midi: 60 + n }));
const TRANSCRIPTION = {
  schema: 'idle-wander/notes@1',
  durationSec: 9.7,
  playingLevel: -20,
  tuning: { a4: 440 },
  notes: NOTES,
};

/** A line as MusicXML. */
const XML =
  '<score-partwise><part id="P1"><measure number="1"><attributes><divisions>1</divisions></attributes>' +
  '<note><pitch><step>C</step><octave>4</octave></pitch><duration>4</duration></note></measure></part></score-partwise>';

type Ids = Readonly<Record<'chart' | 'take' | 'drill' | 'phrase', string>>;
let ids: Ids;

beforeAll(async () => {
  process.env.DATABASE_URL = `file:${folder}/routes.db`;
  await migrateDatabase();
  const chart = await createChart(CHART);
  const begun = {
    chartId: chart.id,
    tempo: 96,
    choruses: 1,
    plan: PLAN,
    rate: 22_050,
    source: 'file' as const,
  };
  const take = await beginTake(begun);
  const line = improvise({ chart: unwrap(readChart(CHART)), tempo: 96, choruses: 1, plan: PLAN, seed: 3 });
  const heard = line.map(({ onsetBeat, durationBeats, midi }) => ({
    onsetSec: (onsetBeat * 60) / 96,
    offsetSec: ((onsetBeat + durationBeats) * 60) / 96,
    midi,
  }));
  const transcription = { ...TRANSCRIPTION, notes: heard } as never;
  const sound = Buffer.from(toPcm16(perform({ notes: line, tempo: 96, rate: 22_050, seed: 3 })));
  for (let at = 0, sequence = 0; at < sound.length; at += 44_100, sequence++) {
    const chunk = sound.subarray(at, at + 44_100);
    await storeChunk(take.id, sequence, chunk, checksumOf(chunk));
  }
  await finishTake(take.id, { frames: sound.length / 2, offsetSec: 0, transcription });
  const drill = await takeUpDrill({ chartId: chart.id, kind: 'ladder-thirds' });
  const phrase = unwrap(readPhrase({ chords: 'Dm7 | G7', line: 'D4:1/2 F A C5 B4:2', tempo: 100 }));
  const kept = await keepPhrase({ name: 'Kept', tags: [], phrase, source: 'typed' });
  ids = { chart: chart.id, take: take.id, drill: drill.id, phrase: kept.id };
});
afterAll(() => {
  closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

type Call = {
  readonly method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  readonly search?: Readonly<Record<string, string>>;
  readonly body?: unknown;
};

/** What each route is rightly asked, before it is changed; what destroys comes last. */
const callsOf = ({ chart, take, drill }: Ids): readonly (readonly [string, Call])[] => {
  const { chartText, tempo, notes } = unwrap(readPhrase({ chords: 'C7', line: 'C4:1 E G', tempo: 90 }));
  return [
    ['charts', { method: 'GET' }],
    ['charts', { method: 'POST', body: { text: CHART } }],
    ['charts/[id]', { method: 'GET' }],
    ['charts/[id]', { method: 'PUT', body: { text: CHART } }],
    ['charts/[id]/versions', { method: 'GET' }],
    ['charts/[id]/versions', { method: 'POST', body: { version: chart } }],
    ['charts/[id]/restore', { method: 'POST' }],
    ['diary/[day]', { method: 'PUT', body: { text: 'slower' } }],
    ['drills', { method: 'GET' }],
    ['drills', { method: 'POST', body: { chartId: chart, kind: 'ladder-thirds', span: [1, 2], tempo: 80 } }],
    ['drills', { method: 'POST', body: { chartId: chart, words: 'land on the third of every chord' } }],
    ['drills', { method: 'POST', body: { takeId: take, finding: { kind: 'no-motif' } } }],
    ['drills', { method: 'POST', body: { drillId: drill, by: 2 } }],
    ['drills/[id]', { method: 'GET' }],
    ['drills/[id]', { method: 'PATCH', body: { goal: 120, up: 2, down: 1, tempo: 80, away: false } }],
    ['drills/[id]/runs', { method: 'POST', body: { takeId: take, sitting: 'one' } }],
    ['goal', { method: 'PUT', body: { words: 'A jam', day: '2030-01-02', charts: [chart], minutes: 30 } }],
    ['names', { method: 'GET' }],
    ['phrases', { method: 'GET' }],
    [
      'phrases',
      {
        method: 'POST',
        body: { name: 'One', tags: ['two'], phrase: { chartText, tempo, notes }, source: 'typed' },
      },
    ],
    ['phrases/[id]', { method: 'GET' }],
    ['phrases/[id]', { method: 'PATCH', body: { name: 'Other', tags: ['three'] } }],
    ['phrases/[id]/found', { method: 'GET' }],
    ['settings/sound', { method: 'GET' }],
    ['settings/sound', { method: 'PUT', body: { keepDays: 365 } }],
    ['stage', { method: 'GET' }],
    [
      'stage',
      {
        method: 'PUT',
        body: {
          does: 'Stop',
          running: {
            chartText: CHART,
            choruses: 2,
            pace: { passBeats: 1, tempi: [96] },
            plan: PLAN,
            help: 0,
            position: 5,
            beat: 3.5,
          },
        },
      },
    ],
    ['stage', { method: 'POST', body: { press: true } }],
    ['takes', { method: 'GET' }],
    [
      'takes',
      {
        method: 'POST',
        body: {
          chartId: chart,
          tempo: 96,
          choruses: 1,
          plan: PLAN,
          rate: 44_100,
          source: 'microphone',
          title: 'T',
        },
      },
    ],
    [
      'takes/lines',
      { method: 'GET', search: { text: 'kept', plan: 'outline', from: '0', most: '40', stars: '1' } },
    ],
    ['takes/[id]', { method: 'GET' }],
    ['takes/[id]', { method: 'PATCH', body: { offsetSec: 0.1, plan: { id: 'outline' } } }],
    ['takes/[id]/audio', { method: 'GET' }],
    ['takes/[id]/chunks/[sequence]', { method: 'PUT', body: 'sound' }],
    ['takes/[id]/edits', { method: 'PUT', body: { edits: [{ kind: 'delete', id: 'note-3' }] } }],
    [
      'takes/[id]/export',
      { method: 'GET', search: { format: 'musicxml', tuning: 'E2 A2 D3 G3 B3 E4', frets: '22', capo: '2' } },
    ],
    [
      'takes/[id]/finish',
      { method: 'POST', body: { frames: 100, offsetSec: 0, transcription: TRANSCRIPTION } },
    ],
    [
      'takes/[id]/words',
      {
        method: 'PUT',
        body: { words: { stars: 3, tags: ['slow'], remarks: [{ id: 'a', text: 'late', bar: 3 }] } },
      },
    ],
    ['takes/[id]/restore', { method: 'POST' }],
    ['takes/import', { method: 'POST', search: { chart, tempo: '96', name: 'Line' }, body: XML }],
    ['trash', { method: 'GET' }],
    ['backups', { method: 'GET' }],
    ['backups', { method: 'POST' }],
    ['backups/[name]', { method: 'GET' }],
    ['backups/[name]/restore', { method: 'POST' }],
    ['backups', { method: 'PUT', body: 'PK' }],
    ['everything', { method: 'DELETE', body: { words: 'delete', backupsToo: true } }],
    ['backups/[name]', { method: 'DELETE' }],
    ['trash', { method: 'POST' }],
    ['takes/[id]', { method: 'DELETE', search: { permanently: '0', more: '1' } }],
    ['charts/[id]', { method: 'DELETE' }],
    ['trash', { method: 'DELETE' }],
  ];
};

const ODD_IDS = ['', '..', '%2e%2e%2f', 'none', 'a'.repeat(500), '\u0000', 'é', '__proto__', '999999', '-1'];

type Handler = (request: Request, context: { params: Promise<Record<string, string>> }) => Promise<Response>;

/** One request, mostly with an id that exists, its body and its query changed or broken. */
function requestOf(route: string, { method, search, body }: Call, random: () => number) {
  const id = (own: string) => (random() < 0.7 ? own : ODD_IDS[Math.floor(random() * ODD_IDS.length)]!);
  const own = ids[(route.split('/')[0] ?? '').replace(/s$/, '') as keyof Ids] ?? 'none';
  const params = { id: id(own), day: id('2026-11-30'), name: id('kept.zip'), sequence: id('0') };
  const address = new URL('http://127.0.0.1/api');
  for (const [name, value] of Object.entries(search ?? {}))
    if (random() < 0.9)
      address.searchParams.set(name, random() < 0.6 ? value : String(changedJson(value, random)));
  let text = JSON.stringify(body);
  for (let left = Math.floor(random() * 4); left > 0 && body !== undefined && body !== XML; left--)
    text = JSON.stringify(changedJson(JSON.parse(text) as never, random));
  const bytes = new TextEncoder().encode(body === XML ? XML : text);
  const sent = random() < 0.85 ? bytes : mutated(bytes, random);
  const headers = {
    'content-type': 'application/json',
    range: `bytes=${encodeURIComponent(id('0-99'))}`,
    'x-checksum': 'f'.repeat(64),
  };
  const init = { method, headers, ...(body !== undefined && { body: sent as never }) };
  return [new Request(address, init), params] as const;
}

const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'];

test('every method of every route is asked here', async () => {
  const files = readdirSync(API, { recursive: true, encoding: 'utf8' }).filter((file) =>
    file.endsWith('route.ts'),
  );
  const asked = new Set(callsOf(ids).map(([route, { method }]) => `${method} ${route}`));
  const offered: string[] = [];
  for (const route of files.map((file) => path.dirname(file)))
    for (const name of Object.keys((await import(`@/app/api/${route}/route`)) as object))
      if (METHODS.includes(name)) offered.push(`${name} ${route}`);
  expect([...asked].sort()).toEqual(offered.sort());
});

test('broken requests to every route: a refusal in words, never a failure, none slow; every page still opens', async () => {
  const complaint = jest.spyOn(console, 'error').mockImplementation(() => {});
  const random = seededRandom(Number(process.env.FUZZ_SEED ?? 11));
  const failed: string[] = [];
  const seen = new Map<number, number>();
  for (const [route, call] of callsOf(ids)) {
    const handlers = (await import(`@/app/api/${route}/route`)) as Record<string, Handler | undefined>;
    const handler = handlers[call.method]!;
    for (let n = 0; n < EACH; n++) {
      const [request, params] = requestOf(route, call, random);
      const where = `${call.method} ${route} ${n}`;
      const [started, worked] = [performance.now(), process.cpuUsage()];
      const answer = await handler(request, { params: Promise.resolve(params) });
      seen.set(answer.status, (seen.get(answer.status) ?? 0) + 1);
      const told =
        answer.status < 400 ? 'ok' : ((await answer.clone().json()) as { error?: { message?: string } });
      if (answer.status >= 500)
        failed.push(`${where}: ${answer.status} ${String(complaint.mock.lastCall?.[0])}`);
      if (told !== 'ok' && !told.error?.message) failed.push(`${where}: ${answer.status} without words`);
      const { user, system } = process.cpuUsage(worked);
      const [took, work] = [performance.now() - started, (user + system) / 1000];
      if (work > SLOWEST_MS || took > WAITS_MS)
        failed.push(`${where}: ${work.toFixed(0)} of ${took.toFixed(0)} ms`);
      await answer.body?.cancel();
    }
  }
  complaint.mockRestore();
  console.log(`answers by status: ${[...seen].map(([status, times]) => `${status} ${times}`).join(', ')}`);
  expect(failed).toEqual([]);
  expect(seen.get(200)).toBeGreaterThan(100);
  // what was let in stops no page
  await Promise.all([
    today(),
    progressFor(null),
    weekAhead(),
    diaryWeeks(datesIn(USUAL_LANGUAGE)),
    listNames(),
    listCharts(),
    listPhrases(),
    habits(),
  ]);
  await Promise.all([
    listedTakes({ from: 0, most: 100 }),
    takeFacets(),
    readTrash(),
    listDrills(),
    readSoundSettings(),
  ]);
  const { rows } = await database().run(sql`pragma integrity_check`);
  expect(Object.values(rows[0]!)).toEqual(['ok']);
  expect((await database().run(sql`pragma foreign_key_check`)).rows).toEqual([]);
}, 240_000);
