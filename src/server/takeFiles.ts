import { ReadableStream } from 'node:stream/web';
import { asPlayed } from '@/core/analyse';
import { NOTES_SCHEMA, TAKE_SCHEMA, takeArchive, type TakeDocument } from '@/core/formats';
import { STANDARD_INSTRUMENT, type Instrument } from '@/core/neck';
import { pcmRange } from './audio';
import { editsOf, heardIn, wordsOf } from './corrections';
import { Failure } from './failure';
import type { WrittenFormat, WrittenTake } from './files/fileWork';
import { inFilesThread } from './files/filesThread';
import { reviewOf } from './reviews';
import { takeById, type StoredTake } from './takes';
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

/** A ready take as a download. @param instrument what the tablature of a score is for; @param signal ends it */
export async function exportTake(
  id: string,
  format: ExportFormat,
  instrument: Instrument = STANDARD_INSTRUMENT,
  signal?: AbortSignal,
): Promise<Response> {
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
  if (format === 'archive')
    return new Response(ReadableStream.from(archiveOf(take, await documentOf(take))) as BodyInit, {
      headers,
    });
  return new Response(await bodyOf(take, format, instrument, signal), { headers });
}

/** The take in one file, as it is read from the database. */
async function* archiveOf(take: StoredTake, document: TakeDocument): AsyncGenerator<Uint8Array> {
  let ready: Uint8Array[] = [];
  const archive = takeArchive(document, (piece) => ready.push(piece));
  const pieces = function* () {
    yield* ready;
    ready = [];
  };
  yield* pieces();
  if (take.soundGoneAt === null && take.frames > 0) {
    archive.sound(wavHeader(take.frames, take.rate, take.bits));
    for await (const piece of pcmRange(take, 0, (take.frames * take.bits) / 8)) {
      archive.sound(piece);
      yield* pieces();
    }
  }
  archive.end();
  yield* pieces();
}

const soundGone = () =>
  new Failure(410, {
    code: 'take.sound-gone',
    message: 'The sound of this take was let go to make room.',
    suggestion: 'Its notes and its report can still be saved.',
  });

async function bodyOf(
  take: StoredTake,
  format: WrittenFormat,
  instrument: Instrument,
  signal: AbortSignal | undefined,
): Promise<BodyInit> {
  const { title, number, chartText, tempo, pace, choruses, offsetSec } = take;
  const [{ report }, heard, edits] = await Promise.all([
    reviewOf(take.id),
    heardIn(take.id),
    editsOf(take.id),
  ]);
  const written: WrittenTake = {
    title: `${title}, take ${number}`,
    chartText,
    tempo,
    pace,
    choruses,
    offsetSec,
    heard: heard?.notes ?? [],
    edits,
    report: asPlayed(report),
    instrument,
  };
  const body = await inFilesThread({ kind: 'write', format, take: written }, { signal });
  return typeof body === 'string' ? body : Buffer.from(body);
}

/** All of a take but its sound, as an archive holds it. */
export async function documentOf(take: StoredTake): Promise<TakeDocument> {
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
