import { asPlayed, type Report } from '@/core/analyse';
import { readChart, timelineOf } from '@/core/chart';
import { corrected, playedFrom } from '@/core/correct';
import {
  changesCsv,
  NOTES_SCHEMA,
  notesCsv,
  packTake,
  TAKE_SCHEMA,
  writeLineMidi,
  writeLineMusicXml,
  type LineSheet,
  type TakeDocument,
} from '@/core/formats';
import { fingeringOf } from '@/core/findings';
import { STANDARD_INSTRUMENT, type Instrument } from '@/core/neck';
import { frettedMidi } from '@/core/notation';
import { elementAt, unwrap, type Beats } from '@/core/shared';
import { pcmRange } from './audio';
import { editsOf, heardIn, wordsOf } from './corrections';
import { Failure } from './failure';
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

/** A ready take as a download. @param instrument what the tablature of a score is for */
export async function exportTake(
  id: string,
  format: ExportFormat,
  instrument: Instrument = STANDARD_INSTRUMENT,
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
  return new Response(await bodyOf(take, format, instrument), { headers });
}

const soundGone = () =>
  new Failure(410, {
    code: 'take.sound-gone',
    message: 'The sound of this take was let go to make room.',
    suggestion: 'Its notes and its report can still be saved.',
  });

async function bodyOf(
  take: StoredTake,
  format: Exclude<ExportFormat, 'wav'>,
  instrument: Instrument,
): Promise<BodyInit> {
  if (format === 'archive')
    return Buffer.from(
      packTake(
        await documentOf(take),
        take.soundGoneAt === null && take.frames > 0 ? await soundOf(take) : null,
      ),
    );
  const report = asPlayed((await reviewOf(take.id)).report);
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
      return writeLineMusicXml(fingered(await sheetOf(take, report.time.swing), report, instrument));
  }
}

const SAME_ONSET: Beats = 0.06;

/** With the likeliest place on the neck of every note that is in the report. */
function fingered(sheet: LineSheet, report: Report, instrument: Instrument): LineSheet {
  const written = report.notes.map(({ onsetBeat, midi }) =>
    sheet.notes.findIndex(
      (note) =>
        !note.ghost &&
        Math.abs(note.onsetBeat - onsetBeat) < SAME_ONSET &&
        Math.round(note.midi) === Math.round(midi),
    ),
  );
  const frettedAt = (index: number) =>
    frettedMidi(sheet.notes[elementAt(written, index)] ?? elementAt(report.notes, index));
  const { touchAt } = fingeringOf(report, instrument, frettedAt);
  const inReport = new Map(written.map((place, index) => [place, index]));
  return { ...sheet, touchAt: (place) => touchAt(inReport.get(place) ?? -1) };
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

async function soundOf(take: StoredTake): Promise<Uint8Array> {
  const pieces: Buffer[] = [wavHeader(take.frames, take.rate, take.bits)];
  for await (const piece of pcmRange(take, 0, (take.frames * take.bits) / 8)) pieces.push(piece);
  return Buffer.concat(pieces);
}
