import { max } from 'drizzle-orm';
import { readChart, timelineOf, type Chart } from '@/core/chart';
import { corrected, playedFrom, wordsText } from '@/core/correct';
import {
  ARCHIVE_LIMITS,
  changesCsv,
  NOTES_SCHEMA,
  notesCsv,
  packTake,
  readLineMusicXml,
  readMidi,
  readWav,
  TAKE_SCHEMA,
  toMono,
  unpackTake,
  writeLineMidi,
  writeLineMusicXml,
  type LineSheet,
  type TakeDocument,
} from '@/core/formats';
import { planFromWords, type PlanWords } from '@/core/plan';
import type { PlayedNote } from '@/core/analyse';
import { beatsToSeconds, unwrap, type Problem, elementAt } from '@/core/shared';
import { checksumOf, pcmRange } from './audio';
import { chartById } from './charts';
import { editsOf, heardIn, wordsOf } from './corrections';
import { write } from './db/client';
import { audioChunks, notes, takeEdits, takes, takeWords } from './db/schema';
import { Failure } from './failure';
import { encodeFlac } from './flac';
import { newId } from './ids';
import { reviewOf } from './reviews';
import { takeById, type StoredTake } from './takes';
import type { ImportQuery } from './validation';
import { wavHeader, wavResponse } from './wavStream';

const FORMATS = {
  midi: ['audio/midi', 'mid'],
  musicxml: ['application/vnd.recordare.musicxml+xml', 'musicxml'],
  'notes-csv': ['text/csv; charset=utf-8', 'notes.csv'],
  'changes-csv': ['text/csv; charset=utf-8', 'changes.csv'],
  json: ['application/json', 'json'],
  wav: ['audio/wav', 'wav'],
  archive: ['application/zip', 'zip'],
} as const;
export type ExportFormat = keyof typeof FORMATS;
export const isExportFormat = (format: string): format is ExportFormat => Object.hasOwn(FORMATS, format);

/** Letters, digits and spaces of a title: a name any file system takes. */
const fileName = ({ title, number }: StoredTake, ending: string): string =>
  `${
    title
      .normalize('NFKD')
      .replace(/[^A-Za-z0-9 -]/g, '')
      .trim() || 'take'
  } take ${number}.${ending}`;

/** A ready take as a download. */
export async function exportTake(id: string, format: ExportFormat): Promise<Response> {
  const take = await takeById(id);
  if (take.state !== 'ready')
    throw new Failure(409, { code: 'take.open', message: 'This take is not finished yet.' });
  const [type, ending] = FORMATS[format];
  const headers = {
    'content-type': type,
    'content-disposition': `attachment; filename="${fileName(take, ending)}"`,
    'x-content-type-options': 'nosniff',
    'cache-control': 'private, no-cache',
  };
  if (format === 'wav') {
    if (take.soundGoneAt !== null) throw soundGone();
    const sound = wavResponse(take, null);
    sound.headers.set('content-disposition', headers['content-disposition']);
    return sound;
  }
  return new Response(await bodyOf(take, format), { headers });
}

const soundGone = () =>
  new Failure(410, {
    code: 'take.sound-gone',
    message: 'The sound of this take was let go to make room.',
    suggestion: 'Its notes and its report can still be saved.',
  });

async function bodyOf(take: StoredTake, format: Exclude<ExportFormat, 'wav'>): Promise<BodyInit> {
  if (format === 'archive')
    return Buffer.from(
      packTake(
        await documentOf(take),
        take.soundGoneAt === null && take.frames > 0 ? await soundOf(take) : null,
      ),
    );
  const { report } = await reviewOf(take.id);
  const chart = unwrap(readChart(take.chartText));
  const timeline = timelineOf(chart, take.tempo);
  switch (format) {
    case 'json':
      return JSON.stringify(report);
    case 'notes-csv':
      return notesCsv(report, timeline);
    case 'changes-csv':
      return changesCsv(report);
    case 'midi':
      return Buffer.from(writeLineMidi(await sheetOf(take, report.time.swing)));
    case 'musicxml':
      return writeLineMusicXml(await sheetOf(take, report.time.swing));
  }
}

async function sheetOf(take: StoredTake, swing: number | null): Promise<LineSheet> {
  const heard = corrected((await heardIn(take.id))?.notes ?? [], await editsOf(take.id));
  const chart = unwrap(readChart(take.chartText));
  const walk = take.pace ?? take.tempo;
  const ghosts = playedFrom(
    heard.filter(({ ghost }) => ghost).map(({ ghost: _ghost, ...note }) => note),
    walk,
    take.offsetSec,
  ).map((note) => ({ ...note, ghost: true as const }));
  return {
    chart,
    timeline: timelineOf(chart, take.tempo),
    tempo: take.tempo,
    title: `${take.title}, take ${take.number}`,
    notes: [...playedFrom(heard, walk, take.offsetSec), ...ghosts],
    choruses: take.choruses,
    swing,
  };
}

async function documentOf(take: StoredTake): Promise<TakeDocument> {
  const {
    title,
    chartText,
    tempo,
    choruses,
    plan,
    pace,
    offsetSec,
    source,
    device,
    latencySec,
    createdAt,
    dropOut,
  } = take;
  const heard = (await heardIn(take.id)) ?? { schema: NOTES_SCHEMA, notes: [] };
  return {
    schema: TAKE_SCHEMA,
    title,
    chartText,
    tempo,
    choruses,
    plan,
    pace,
    offsetSec,
    source,
    device,
    latencySec,
    createdAt,
    ...(dropOut ? { dropOut } : {}),
    heard,
    edits: await editsOf(take.id),
    words: await wordsOf(take.id),
  };
}

async function soundOf(take: StoredTake): Promise<Uint8Array> {
  const pieces: Buffer[] = [wavHeader(take.frames, take.rate, take.bits)];
  for await (const piece of pcmRange(take, 0, (take.frames * take.bits) / 8)) pieces.push(piece);
  return Buffer.concat(pieces);
}

/** A take as another copy of this program saved it; it gets a number of its own here. */
export async function importArchive(bytes: Uint8Array): Promise<{ id: string; number: number }> {
  if (bytes.length > ARCHIVE_LIMITS.bytes)
    throw new Failure(413, {
      code: 'archive.too-large',
      message: 'This archive is larger than a take can be.',
    });
  const unpacked = unpackTake(bytes);
  if (!unpacked.ok) throw unreadable(unpacked.problems[0]);
  const { take, sound } = unpacked.value;
  const chart = checkFrame(take.chartText, take.plan);
  const pcm = sound === null ? null : pcmOf(sound);
  checkTimes(take, chart, pcm);
  return storeWhole(take, pcm);
}

/** What an imported line is judged by until the player chooses. */
const IMPORTED_PLAN: PlanWords = { id: 'scale-per-chord' };

/** A line written elsewhere as a take without sound. */
export async function importLine(
  bytes: Uint8Array,
  { chart: chartId, tempo, name }: ImportQuery,
): Promise<{ id: string; number: number }> {
  const isMidi = bytes[0] === 0x4d && bytes[1] === 0x54 && bytes[2] === 0x68 && bytes[3] === 0x64;
  const read = isMidi ? readMidi(bytes) : readLineMusicXml(new TextDecoder().decode(bytes));
  if (!read.ok) throw unreadable(read.problems[0]);
  const stored = await chartById(chartId);
  const chart = checkFrame(stored.text, IMPORTED_PLAN);
  const { formBeats, bars } = timelineOf(chart, tempo);
  const line: readonly PlayedNote[] = read.value;
  if (line.length === 0)
    throw new Failure(422, { code: 'line.empty', message: 'There is no note in this file.' });
  const last = elementAt(line, line.length - 1).onsetBeat;
  const choruses = Math.max(1, Math.min(100, Math.ceil((last + 1e-6) / formBeats)));
  const lead =
    Math.max(0, Math.ceil(-elementAt(line, 0).onsetBeat / elementAt(bars, 0).end)) * elementAt(bars, 0).end;
  const seconds = (beat: number) => Math.round(beatsToSeconds(beat + lead, tempo) * 1e5) / 1e5;
  const heard = {
    schema: NOTES_SCHEMA,
    notes: line.map(({ onsetBeat, durationBeats, ...rest }) => ({
      ...rest,
      confidence: 1,
      onsetSec: seconds(onsetBeat),
      offsetSec: seconds(onsetBeat + durationBeats),
    })),
  };
  return storeWhole(
    {
      schema: TAKE_SCHEMA,
      title: name,
      chartText: stored.text,
      tempo,
      choruses,
      plan: IMPORTED_PLAN,
      pace: null,
      offsetSec: seconds(0),
      source: 'file',
      device: null,
      latencySec: null,
      createdAt: Date.now(),
      heard,
      edits: [],
      words: { stars: 0, tags: [], remarks: [] },
    },
    null,
    chartId,
  );
}

const unreadable = (problem: Problem): Failure => new Failure(422, problem);

function checkFrame(chartText: string, plan: PlanWords): Chart {
  const chart = readChart(chartText);
  if (!chart.ok)
    throw new Failure(422, {
      ...chart.problems[0],
      message: `The chart cannot be read. ${chart.problems[0].message}`,
    });
  const read = planFromWords(plan);
  if (!read.ok) throw new Failure(422, read.problems[0]);
  return chart.value;
}

/** Notes may lie in the count-in, and ring a while after the last bar. */
const SLACK_SECONDS = 60;

/** Refuses notes that lie outside the take: nobody played them, and judging them has no end. */
function checkTimes(
  { heard, tempo, choruses, offsetSec }: TakeDocument,
  chart: Chart,
  sound: Pcm | null,
): void {
  const played =
    beatsToSeconds(timelineOf(chart, tempo).formBeats * choruses, tempo) + Math.max(0, offsetSec);
  const end = Math.max(played, sound ? sound.samples.length / sound.rate : 0) + SLACK_SECONDS;
  const outside = heard.notes.findIndex((note) => note.onsetSec < -SLACK_SECONDS || note.offsetSec > end);
  if (outside < 0) return;
  throw new Failure(422, {
    code: 'archive.times',
    path: `take.json: heard.notes.${outside}`,
    message: `Note ${outside + 1} lies outside the take, which lasts ${Math.round(end - SLACK_SECONDS)} seconds.`,
  });
}

type Pcm = { readonly rate: number; readonly samples: Float32Array };

function pcmOf(sound: Uint8Array): Pcm {
  const read = readWav(sound);
  if (!read.ok) throw unreadable(read.problems[0]);
  return { rate: read.value.rate, samples: toMono(read.value) };
}

const CHUNK_SECONDS = 4;
const FULL = 2 ** 23;

/** Takes a whole take in: all of it, or nothing. */
async function storeWhole(
  take: TakeDocument,
  sound: Pcm | null,
  chartId: string | null = null,
): Promise<{ id: string; number: number }> {
  const id = newId();
  const rate = sound?.rate ?? 44_100;
  const size = Math.round(rate * CHUNK_SECONDS);
  const chunks: (typeof audioChunks.$inferInsert)[] = [];
  for (let from = 0; sound && from < sound.samples.length; from += size) {
    const part = sound.samples.subarray(from, from + size);
    const pcm = Buffer.alloc(part.length * 3);
    part.forEach((value, n) =>
      pcm.writeIntLE(Math.max(-FULL, Math.min(FULL - 1, Math.round(value * FULL))), n * 3, 3),
    );
    chunks.push({
      takeId: id,
      sequence: chunks.length,
      frames: part.length,
      firstFrame: from,
      checksum: checksumOf(pcm),
      codec: 'flac',
      pcm: await encodeFlac(pcm, rate, 24),
    });
  }
  const {
    title,
    chartText,
    tempo,
    choruses,
    plan,
    pace,
    offsetSec,
    source,
    device,
    latencySec,
    createdAt,
    dropOut = null,
  } = take;
  return write(async (tx) => {
    const [last] = await tx.select({ number: max(takes.number) }).from(takes);
    const number = (last?.number ?? 0) + 1;
    await tx.insert(takes).values({
      id,
      chartId,
      title,
      number,
      state: 'ready',
      source,
      chartText,
      tempo,
      choruses,
      plan,
      pace,
      rate,
      bits: 24,
      frames: sound?.samples.length ?? 0,
      offsetSec,
      device,
      latencySec,
      dropOut,
      createdAt: Math.min(createdAt, Date.now()),
      soundGoneAt: sound ? null : Date.now(),
    });
    await tx.insert(notes).values({ takeId: id, json: take.heard });
    if (take.edits.length > 0) await tx.insert(takeEdits).values({ takeId: id, json: take.edits });
    if (take.words.stars > 0 || take.words.tags.length > 0 || take.words.remarks.length > 0)
      await tx.insert(takeWords).values({ takeId: id, json: take.words, search: wordsText(take.words) });
    for (const chunk of chunks) await tx.insert(audioChunks).values(chunk);
    return { id, number };
  });
}
