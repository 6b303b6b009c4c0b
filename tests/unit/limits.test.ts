import { readFileSync } from 'node:fs';
import { expect, jest, test } from '@jest/globals';
import { strToU8, zipSync } from 'fflate';
import type Joi from 'joi';
import { readChart, routeOf } from '@/core/chart';
import { LIMITS } from '@/core/contracts';
import {
  goalSchema,
  readChartMidi,
  readLineMusicXml,
  readMidi,
  readMusicXml,
  readNotes,
  readWav,
  unpackTake,
  writeChartMidi,
  writeWav,
} from '@/core/formats';
import { readPhrase } from '@/core/phrases';
import { unwrap } from '@/core/shared';
import { readBytes } from '@/server/body';
import { drillChangeBody, phraseBody } from '@/server/validation';

/** Every number of the limits, in order. */
const numbersIn = (part: unknown): number[] =>
  typeof part === 'number' ? [part] : Object.values(part as Record<string, unknown>).flatMap(numbersIn);

test('the page of limits names each of them, and no others', () => {
  const told = [...readFileSync('docs/limits.md', 'utf8').matchAll(/^\| [^|]+ \| ([^|]+) \|$/gm)]
    .slice(1)
    .flatMap(([, most]) =>
      [...most!.matchAll(/[\d,]+/g)].map(([number]) => Number(number.replaceAll(',', ''))),
    );
  expect(told).toEqual(numbersIn(LIMITS));
});

const score = (measures: number, depth = 0): string => {
  const measure = `<measure number="1"><attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes><harmony><root><root-step>C</root-step></root><kind>major</kind></harmony><note><rest/><duration>4</duration></note>${'<x>'.repeat(depth)}${'</x>'.repeat(depth)}</measure>`;
  return `<?xml version="1.0"?><score-partwise version="4.0"><part-list><score-part id="P1"><part-name>a</part-name></score-part></part-list><part id="P1">${measure.repeat(measures)}</part></score-partwise>`;
};
const padded = (text: string, length: number): string =>
  text.replace('<part id', `<!--${' '.repeat(length - text.length - 7)}--><part id`);
/** A silent WAV of one channel and eight bits' worth of sound at the lowest rate. */
const wav = (frames: number, channels = 1): Uint8Array =>
  writeWav(
    Array.from({ length: channels }, () => new Float32Array(frames)),
    LIMITS.wav.lowestRate,
  );
const line = (notes: number): string =>
  Array.from({ length: notes }, (_, index) => (index === 0 ? 'C4:1/4' : 'D4')).join(' ');

// Depth counts from the score itself: partwise, part and measure stand around what a measure holds.
test.each<[string, number, (most: number) => { readonly ok: boolean }]>([
  ['characters of a chart', LIMITS.chart.characters, (most) => readChart(`| C |${'\n'.repeat(most - 5)}`)],
  ['bars of a chart', LIMITS.chart.bars, (most) => readChart(`${'| C '.repeat(most)}|`)],
  ['words in a bar', LIMITS.chart.chordsPerBar, (most) => readChart(`meter: 16/4\n| ${'C '.repeat(most)}|`)],
  ['measures of MusicXML', LIMITS.musicxml.measures, (most) => readMusicXml(score(most))],
  ['depth of MusicXML', LIMITS.musicxml.depth, (most) => readMusicXml(score(1, most - 3))],
  ['characters of MusicXML', LIMITS.musicxml.characters, (most) => readMusicXml(padded(score(1), most))],
  ['seconds of a WAV', LIMITS.wav.seconds * LIMITS.wav.lowestRate, (most) => readWav(wav(most))],
  ['channels of a WAV', LIMITS.wav.channels, (most) => readWav(wav(100, most))],
  [
    'notes of a phrase',
    LIMITS.phrase.notes,
    (most) => readPhrase({ chords: '| C '.repeat(16), line: line(most), tempo: 90 }),
  ],
  [
    'bars of a phrase',
    LIMITS.phrase.bars,
    (most) => readPhrase({ chords: '| C '.repeat(most), line: 'C4:1 D', tempo: 90 }),
  ],
])(
  '%s: as many as %p are read, one more is refused',
  (_name, most, read) => {
    expect(read(most)).toMatchObject({ ok: true });
    expect(read(most + 1)).toMatchObject({ ok: false });
  },
  60_000,
);

test.each([
  ['lowest', LIMITS.wav.lowestRate, -1],
  ['highest', LIMITS.wav.highestRate, 1],
])('the %s rate of a WAV: %p Hz is read, one beyond is refused', (_name, rate, beyond) => {
  const at = (hertz: number) => readWav(writeWav([new Float32Array(100)], hertz));
  expect(at(rate)).toMatchObject({ ok: true });
  expect(at(rate + beyond)).toMatchObject({ ok: false, problems: [{ code: 'wav.rate' }] });
});

test('passes that get faster or slower stop at the fastest and the slowest tempo', () => {
  const tempiBy = (tempoStep: number) =>
    unwrap(routeOf('| C | F |', { passes: 20, tempo: 180, tempoStep })).pace.tempi;
  expect([tempiBy(10).at(-1), tempiBy(-10).at(-1)]).toEqual([LIMITS.tempo[1], LIMITS.tempo[0]]);
});

const many = <T>(count: number, make: (index: number) => T): T[] =>
  Array.from({ length: count }, (_, index) => make(index));
const goal = (tunes: number) => ({
  words: 'Play them all',
  day: '2030-01-04',
  minutes: 20,
  charts: many(tunes, (index) => `tune-${index}`),
});
const phrase = (name: number, tags: number) => ({
  name: 'a'.repeat(name),
  tags: many(tags, (index) => `tag ${index}`),
  source: 'typed',
  phrase: {
    chartText: '| C |',
    tempo: 90,
    notes: many(2, (index) => ({ onsetBeat: index, durationBeats: 1, midi: 60 })),
  },
});
test.each<[string, number, Joi.Schema, (most: number) => unknown]>([
  ['tunes of a goal', LIMITS.goal.tunes, goalSchema, goal],
  ['letters of a phrase’s name', LIMITS.phrase.name, phraseBody, (most) => phrase(most, 1)],
  ['tags of a phrase', LIMITS.phrase.tags, phraseBody, (most) => phrase(1, most)],
  ['days a drill is put off', LIMITS.daysAhead, drillChangeBody, (most) => ({ inDays: most })],
])('%s: %p are taken, one more is refused', (_name, most, schema, make) => {
  expect(schema.validate(make(most)).error).toBeUndefined();
  expect(schema.validate(make(most + 1)).error).toBeDefined();
});

test.each([
  ['JSON', LIMITS.request.jsonBytes],
  ['a chart', LIMITS.request.chartBytes],
  ['a chunk of sound', LIMITS.request.chunkBytes],
])('the body of %s: %p bytes are read, one more is refused', async (_name, most) => {
  const sent = (length: number) =>
    readBytes(new Request('http://127.0.0.1/', { method: 'POST', body: new Uint8Array(length) }), most);
  expect((await sent(most)).length).toBe(most);
  await expect(sent(most + 1)).rejects.toMatchObject({ status: 413 });
});

test('a file: one that says it is longer than it may be is refused before any of it is read', async () => {
  const read = jest.fn<() => void>();
  const body = new ReadableStream({ pull: read }, { highWaterMark: 0 });
  const headers = { 'content-length': String(LIMITS.request.importBytes + 1) };
  const request = new Request('http://127.0.0.1/', {
    method: 'POST',
    body,
    headers,
    duplex: 'half',
  } as RequestInit);
  await expect(readBytes(request, LIMITS.request.importBytes)).rejects.toMatchObject({ status: 413 });
  expect(read).not.toHaveBeenCalled();
});

test('a file of notes: as many as there may be are read, one more is refused', () => {
  const file = (notes: number) =>
    `{"notes":[${Array(notes).fill('{"onsetBeat":0,"durationBeats":1,"midi":60}').join(',')}]}`;
  expect(readNotes(file(LIMITS.notes.file))).toMatchObject({ ok: true });
  expect(readNotes(file(LIMITS.notes.file + 1))).toMatchObject({ ok: false });
}, 60_000);

test('an archive whose sound says it is one byte too long is not unpacked', () => {
  const sound = zipSync({ 'sound.wav': [new Uint8Array(64), { level: 0 }] });
  const view = new DataView(sound.buffer, sound.byteOffset);
  const central = view.getUint32(sound.length - 6, true);
  // its length in the member's own header, and in the directory (PKWARE's APPNOTE, 4.3.7 and 4.3.12)
  view.setUint32(22, LIMITS.archive.bytes + 1, true);
  view.setUint32(central + 24, LIMITS.archive.bytes + 1, true);
  expect(unpackTake(sound)).toMatchObject({ ok: false, problems: [{ code: 'archive.too-large' }] });
});

test('a chart out of MIDI: bars without end are not counted to their end', () => {
  const chart = unwrap(readChart('| C | F |'));
  const file = Buffer.from(writeChartMidi(chart));
  // the last event of the file comes after as long a wait as MIDI can say, four bytes: 268 million ticks
  const end = file.lastIndexOf(Buffer.from([0xff, 0x2f, 0x00]));
  const late = Buffer.concat([
    file.subarray(0, end - 1),
    Buffer.from([0xff, 0xff, 0xff, 0x7f]),
    file.subarray(end),
  ]);
  const track = late.lastIndexOf('MTrk');
  late.writeUInt32BE(late.length - track - 8, track + 4);
  const started = process.cpuUsage();
  const read = readChartMidi(late);
  const { user, system } = process.cpuUsage(started);
  expect((user + system) / 1e6).toBeLessThan(5);
  if (read.ok) expect(unwrap(readChart(read.value)).bars.length).toBeLessThanOrEqual(LIMITS.chart.bars);
});

test('an archive: a document as large as it may be is opened, one byte more is not unpacked', () => {
  const code = (length: number) => {
    const opened = unpackTake(zipSync({ 'take.json': [strToU8(' '.repeat(length)), { level: 1 }] }));
    return opened.ok ? null : opened.problems[0].code;
  };
  expect(code(LIMITS.archive.documentBytes)).not.toBe('archive.too-large');
  expect(code(LIMITS.archive.documentBytes + 1)).toBe('archive.too-large');
}, 60_000);

test('MIDI: as many events as there may be are counted, one more is refused', () => {
  // a note, then program changes under one running status: two bytes each
  const midi = (events: number): Uint8Array => {
    const head = [0, 0x90, 60, 64, 0x60, 0x80, 60, 0, 0, 0xc0, 0];
    const end = [0, 0xff, 0x2f, 0];
    const track = new Uint8Array(head.length + 2 * (events - 4) + end.length);
    track.set(head);
    track.set(end, track.length - end.length);
    const file = new Uint8Array(22 + track.length);
    file.set([...strToU8('MThd'), 0, 0, 0, 6, 0, 0, 0, 1, 0, 96, ...strToU8('MTrk')]);
    new DataView(file.buffer).setUint32(18, track.length);
    file.set(track, 22);
    return file;
  };
  expect(readMidi(midi(LIMITS.midi.events))).toMatchObject({ ok: true });
  expect(readMidi(midi(LIMITS.midi.events + 1))).toMatchObject({ ok: false });
}, 60_000);

test('a line of MusicXML: as many notes as there may be are read, one more is refused', () => {
  const measure = (notes: number) =>
    `<measure number="1">${'<note><chord/><pitch><step>C</step><octave>4</octave></pitch><duration>1</duration></note>'.repeat(notes)}</measure>`;
  const file = (notes: number) =>
    `<?xml version="1.0"?><score-partwise version="4.0"><part-list><score-part id="P1"><part-name>a</part-name></score-part></part-list><part id="P1"><measure number="0"><attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes></measure>${measure(notes)}</part></score-partwise>`;
  expect(readLineMusicXml(file(LIMITS.notes.musicxml))).toMatchObject({ ok: true });
  expect(readLineMusicXml(file(LIMITS.notes.musicxml + 1))).toMatchObject({
    ok: false,
    problems: [{ code: 'musicxml.too-long' }],
  });
}, 60_000);
