import type { PlayedNote, Report } from '@/core/analyse';
import { readChart, timelineOf, type Pace } from '@/core/chart';
import { corrected, playedFrom, type Edit, type SecondsNote } from '@/core/correct';
import { fingeringOf } from '@/core/findings';
import {
  changesCsv,
  notesCsv,
  readLineMusicXml,
  readMidi,
  readWav,
  toMono,
  unpackTake,
  writeLineMidi,
  writeLineMusicXml,
  type LineSheet,
  type TakeDocument,
} from '@/core/formats';
import type { Instrument } from '@/core/neck';
import { frettedMidi } from '@/core/notation';
import { elementAt, unwrap, type Beats, type Problem, type Seconds } from '@/core/shared';
import { checksumOf } from '../checksum';
import { encodeFlac } from '../flac';

/** A take as its files are written from: all of it in plain data. */
export type WrittenTake = {
  readonly title: string;
  readonly chartText: string;
  readonly tempo: number;
  readonly pace: Pace | null;
  readonly choruses: number;
  readonly offsetSec: Seconds;
  readonly heard: readonly SecondsNote[];
  readonly edits: readonly Edit[];
  /** As it was played, a lean included. */
  readonly report: Report;
  readonly instrument: Instrument;
};
export type WrittenFormat = 'midi' | 'musicxml' | 'notes-csv' | 'changes-csv' | 'json';

/** Sound as one line of samples, −1 to 1. */
export type Pcm = { readonly rate: number; readonly samples: Float32Array };

/** A piece of sound as it is kept: a FLAC stream, with the checksum of the 24-bit samples it holds. */
export type CodedChunk = {
  readonly firstFrame: number;
  readonly frames: number;
  readonly checksum: string;
  readonly flac: Uint8Array;
};

/** Work on files that may take long: it is done in a thread of its own. */
export type FileRequest =
  | { readonly kind: 'write'; readonly format: WrittenFormat; readonly take: WrittenTake }
  | { readonly kind: 'unpack'; readonly bytes: Uint8Array }
  | { readonly kind: 'code'; readonly sound: Pcm }
  | { readonly kind: 'line'; readonly bytes: Uint8Array };
type Done = {
  readonly write: string | Uint8Array;
  readonly unpack: { readonly take: TakeDocument; readonly sound: Pcm | null };
  readonly code: readonly CodedChunk[];
  readonly line: readonly PlayedNote[];
};
export type FileDone<K extends FileRequest['kind']> = Done[K];
export type FileAnswer = { readonly done: Done[FileRequest['kind']] } | { readonly problem: Problem };

/**
 * @param onShare told how much is done, 0 to 1, of what takes long
 * @returns what was asked for, or why a file that was brought cannot be read
 */
export async function fileWork(
  request: FileRequest,
  onShare: (share: number) => void = () => undefined,
): Promise<FileAnswer> {
  switch (request.kind) {
    case 'write':
      return { done: written(request.format, request.take) };
    case 'unpack':
      return unpacked(request.bytes);
    case 'code':
      return { done: await coded(request.sound, onShare) };
    case 'line':
      return line(request.bytes);
  }
}

function written(format: WrittenFormat, take: WrittenTake): string | Uint8Array {
  const { report } = take;
  switch (format) {
    case 'json':
      return JSON.stringify(report);
    case 'notes-csv':
      return notesCsv(report, timelineOf(unwrap(readChart(take.chartText)), take.tempo));
    case 'changes-csv':
      return changesCsv(report);
    case 'midi':
      return writeLineMidi(sheetOf(take));
    case 'musicxml':
      return writeLineMusicXml(fingered(sheetOf(take), take));
  }
}

function sheetOf({ heard, edits, report, offsetSec, pace, tempo, ...take }: WrittenTake): LineSheet {
  const notes = corrected(heard, edits);
  const chart = unwrap(readChart(take.chartText));
  const walk = pace ?? tempo;
  const ghosts = playedFrom(
    notes.filter(({ ghost }) => ghost).map(({ ghost: _ghost, ...note }) => note),
    walk,
    offsetSec,
  ).map((note) => ({ ...note, ghost: true as const }));
  return {
    chart,
    timeline: timelineOf(chart, tempo),
    tempo,
    title: take.title,
    notes: [...playedFrom(notes, walk, offsetSec), ...ghosts],
    choruses: take.choruses,
    swing: report.time.swing,
  };
}

const SAME_ONSET: Beats = 0.06;

/** With the likeliest place on the neck of every note that is in the report. */
function fingered(sheet: LineSheet, { report, instrument }: WrittenTake): LineSheet {
  const written = placesIn(sheet, report);
  const frettedAt = (index: number) =>
    frettedMidi(sheet.notes[elementAt(written, index)] ?? elementAt(report.notes, index));
  const { touchAt } = fingeringOf(report, instrument, frettedAt);
  const inReport = new Map(written.map((place, index) => [place, index]));
  return { ...sheet, touchAt: (place) => touchAt(inReport.get(place) ?? -1) };
}

/** The place of each note of the report among the notes of the sheet; −1 where it is not there. */
function placesIn({ notes }: LineSheet, report: Report): number[] {
  const byPitch = new Map<number, number[]>();
  notes.forEach(({ midi, ghost }, place) => {
    const pitch = Math.round(midi);
    if (!ghost) byPitch.set(pitch, [...(byPitch.get(pitch) ?? []), place]);
  });
  return report.notes.map(
    ({ onsetBeat, midi }) =>
      byPitch
        .get(Math.round(midi))
        ?.find((place) => Math.abs(elementAt(notes, place).onsetBeat - onsetBeat) < SAME_ONSET) ?? -1,
  );
}

function unpacked(bytes: Uint8Array): FileAnswer {
  const read = unpackTake(bytes);
  if (!read.ok) return { problem: read.problems[0] };
  const { take, sound } = read.value;
  if (sound === null) return { done: { take, sound: null } };
  const wav = readWav(sound);
  if (!wav.ok) return { problem: wav.problems[0] };
  return { done: { take, sound: { rate: wav.value.rate, samples: toMono(wav.value) } } };
}

const CHUNK_SECONDS = 4;
const BITS = 24;
const FULL = 2 ** (BITS - 1);

/** Sound cut into the chunks it is kept in. */
async function coded({ samples, rate }: Pcm, onShare: (share: number) => void): Promise<CodedChunk[]> {
  const size = Math.round(rate * CHUNK_SECONDS);
  const chunks: CodedChunk[] = [];
  for (let from = 0; from < samples.length; from += size) {
    const part = samples.subarray(from, from + size);
    const pcm = Buffer.alloc((part.length * BITS) / 8);
    part.forEach((value, n) =>
      pcm.writeIntLE(Math.max(-FULL, Math.min(FULL - 1, Math.round(value * FULL))), n * 3, 3),
    );
    const checksum = checksumOf(pcm);
    chunks.push({
      firstFrame: from,
      frames: part.length,
      checksum,
      flac: await encodeFlac(pcm, rate, BITS),
    });
    onShare(Math.min(1, (from + size) / samples.length));
  }
  return chunks;
}

const isMidi = (bytes: Uint8Array): boolean =>
  [0x4d, 0x54, 0x68, 0x64].every((byte, index) => bytes[index] === byte);

function line(bytes: Uint8Array): FileAnswer {
  const read = isMidi(bytes) ? readMidi(bytes) : readLineMusicXml(new TextDecoder().decode(bytes));
  return read.ok ? { done: read.value } : { problem: read.problems[0] };
}
