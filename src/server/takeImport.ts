import { LIMITS } from '@/core/contracts';
import { isDeepStrictEqual } from 'node:util';
import { readChart, timelineOf, type Chart } from '@/core/chart';
import { wordsText } from '@/core/correct';
import { NOTES_SCHEMA, TAKE_SCHEMA, type TakeDocument } from '@/core/formats';
import { planFromWords, type PlanWords } from '@/core/plan';
import { beatsToSeconds, elementAt } from '@/core/shared';
import { and, eq, isNull, max } from 'drizzle-orm';
import { chartById } from './charts';
import { database, write } from './db/client';
import { audioChunks, notes, takeEdits, takes, takeWords } from './db/schema';
import { Failure } from './failure';
import type { CodedChunk, Pcm } from './files/fileWork';
import { inFilesThread } from './files/filesThread';
import { newId } from './ids';
import { documentOf } from './takeFiles';
import { takeById } from './takes';
import type { ImportQuery } from './validation';

/** What bringing in a file is busy with, and how much of it is done. */
export type ImportStep = {
  readonly phase: 'reading' | 'sound' | 'keeping';
  readonly share?: number;
};
export type ImportOptions = {
  readonly signal?: AbortSignal;
  readonly onStep?: (step: ImportStep) => void;
};

/** A take as another copy of this program saved it; it gets a number of its own here, unless it is here already. */
export async function importArchive(
  bytes: Uint8Array,
  { signal, onStep = () => undefined }: ImportOptions = {},
): Promise<{ id: string; number: number; already?: true }> {
  if (bytes.length > LIMITS.archive.bytes)
    throw new Failure(413, {
      code: 'archive.too-large',
      message: 'This archive is larger than a take can be.',
    });
  onStep({ phase: 'reading' });
  const { take, sound } = await inFilesThread({ kind: 'unpack', bytes }, { signal });
  const chart = checkFrame(take.chartText, take.plan);
  checkTimes(take, chart, sound);
  const twin = await twinOf(take);
  if (twin) return twin;
  if (!sound) return storeWhole(take, null);
  const { rate } = sound;
  const chunks = await inFilesThread(
    { kind: 'code', sound },
    {
      signal,
      transfer: [sound.samples.buffer as ArrayBuffer],
      onShare: (share) => onStep({ phase: 'sound', share }),
    },
  );
  onStep({ phase: 'keeping' });
  if (signal?.aborted)
    throw new Failure(408, { code: 'import.left', message: 'Nobody waits for this any more.' });
  return storeWhole(take, { rate, chunks });
}

/** The take that an archive was made of, or was brought in as before, where nothing of it has changed. */
async function twinOf(document: TakeDocument): Promise<{ id: string; number: number; already: true } | null> {
  const alike = await database()
    .select({ id: takes.id })
    .from(takes)
    .where(
      and(
        eq(takes.createdAt, document.createdAt),
        eq(takes.title, document.title),
        eq(takes.state, 'ready'),
        isNull(takes.removedAt),
      ),
    );
  for (const { id } of alike) {
    const take = await takeById(id);
    if (isDeepStrictEqual(plain(await documentOf(take)), plain(document)))
      return { id, number: take.number, already: true };
  }
  return null;
}

/** As it would be read back: without what is not said. */
const plain = (document: TakeDocument): unknown => JSON.parse(JSON.stringify(document));

/** What an imported line is judged by until the player chooses. */
export const IMPORTED_PLAN: PlanWords = { id: 'scale-per-chord' };

/** A line written elsewhere as a take without sound. */
export async function importLine(
  bytes: Uint8Array,
  { chart: chartId, tempo, name }: ImportQuery,
  { signal, onStep = () => undefined }: ImportOptions = {},
): Promise<{ id: string; number: number }> {
  onStep({ phase: 'reading' });
  const line = await inFilesThread({ kind: 'line', bytes }, { signal });
  const stored = await chartById(chartId);
  const chart = checkFrame(stored.text, IMPORTED_PLAN);
  const { formBeats, bars } = timelineOf(chart, tempo);
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

export function checkFrame(chartText: string, plan: PlanWords): Chart {
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
export const SLACK_SECONDS = 60;

/** Refuses notes that lie outside the take: nobody played them, and judging them has no end. */
export function checkTimes(
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

/** Takes a whole take in: all of it, or nothing. */
export async function storeWhole(
  take: TakeDocument,
  sound: { readonly rate: number; readonly chunks: readonly CodedChunk[] } | null,
  chartId: string | null = null,
): Promise<{ id: string; number: number }> {
  const id = newId();
  const frames = sound?.chunks.reduce((sum, chunk) => sum + chunk.frames, 0) ?? 0;
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
      rate: sound?.rate ?? 44_100,
      bits: 24,
      frames,
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
    for (const [sequence, { flac, ...chunk }] of (sound?.chunks ?? []).entries())
      await tx
        .insert(audioChunks)
        .values({ ...chunk, takeId: id, sequence, codec: 'flac', pcm: Buffer.from(flac) });
    return { id, number };
  });
}
