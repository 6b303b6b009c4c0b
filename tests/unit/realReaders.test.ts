import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { parseMidi } from 'midi-file';
import { analyse } from '@/core/analyse';
import { improvise } from '@/core/band';
import { LIBRARY, readChart, timelineOf } from '@/core/chart';
import {
  notesCsv,
  packTake,
  TAKE_SCHEMA,
  writeLineMidi,
  writeLineMusicXml,
  writeMusicXml,
  writeWav,
  type LineSheet,
  type TakeDocument,
} from '@/core/formats';
import { pitchClass } from '@/core/music';
import { pathOf } from '@/core/neck';
import { DIVISIONS, scoreOf } from '@/core/notation';
import { present, unwrap } from '@/core/shared';
import { encodeFlac } from '@/server/flac';

// What we write, read by programs that are not ours: GNU LilyPond's musicxml2ly and lilypond, Verovio (npm), fluidsynth, sox, unzip, Python's csv
// module. Debian packages lilypond, fluidsynth, fluid-soundfont-gm, sox, unzip, python3; a test is left out with a message where its program is not installed.
const has = (program: string): boolean => spawnSync('which', [program]).status === 0;
const withPrograms = (...programs: string[]) => {
  const missing = programs.filter((program) => !has(program));
  return missing.length === 0
    ? (name: string, body: () => void | Promise<void>) => test(name, body, 300_000)
    : (name: string) => test.skip(`${name} (left out: no ${missing.join(', ')})`, () => {});
};

let folder = '';
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'wander-readers-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

function run(program: string, ...args: string[]): string {
  const { status, stderr, stdout } = spawnSync(program, args, { cwd: folder, encoding: 'utf8' });
  expect([program, args.at(-1), status, /error|failed/i.exec(stderr)?.[0]]).toEqual([
    program,
    args.at(-1),
    0,
    undefined,
  ]);
  return stdout;
}

/** The text of a score in LilyPond's language, out of MusicXML. */
function asLilyPond(name: string, xml: string): string {
  writeFileSync(path.join(folder, `${name}.musicxml`), xml);
  run('musicxml2ly', '--no-beaming', '-o', `${name}.ly`, `${name}.musicxml`);
  return readFileSync(path.join(folder, `${name}.ly`), 'utf8');
}

const LETTERS: Record<string, number> = { c: 0, d: 2, e: 4, f: 5, g: 7, a: 9, b: 11 };

/** Note names in Dutch, as LilyPond has them: `bes` is B flat, `fis` F sharp, `as` A flat. */
function dutch(name: string): number {
  const [letter = '', ...rest] = name;
  const ending = rest.join('');
  const flats = ending === 's' ? 1 : (ending.match(/es/g) ?? []).length;
  const sharps = (ending.match(/is/g) ?? []).length;
  return (present(LETTERS[letter]) + sharps - flats + 120) % 12;
}

type ReadChord = { readonly onset: number; readonly root: number | null };

/** The chords of a score: where each begins, in quarter notes, and its root. */
function chordsOf(lilypond: string): ReadChord[] {
  const [, body = ''] = /\\chordmode \{([\s\S]*?)\n\n/.exec(lilypond) ?? [];
  const chords: ReadChord[] = [];
  let onset = 0;
  const words = body.replace(/%.*$/gm, '').split(/[\s|}]+/);
  for (const word of words) {
    const [, name, value, dots, times] = /^([a-z]+)(\d+)(\.*)(?:\*(\d+))?/.exec(word) ?? [];
    if (name === undefined) continue;
    const quarters = (4 / Number(value)) * (2 - 0.5 ** (dots?.length ?? 0)) * Number(times ?? 1);
    if (name !== 's') chords.push({ onset, root: name === 'r' ? null : dutch(name) });
    onset += quarters;
  }
  return chords;
}

/** Every third chart of the library, and all that are not in four. */
const SEVERAL = LIBRARY.filter(({ text }, index) => index % 3 === 0 || /^meter:(?! *4\/4)/m.test(text));

withPrograms('musicxml2ly')('charts of the library: the same chords at the same places', () => {
  for (const { id, text } of SEVERAL) {
    const chart = unwrap(readChart(text));
    const { bars, chordSpans } = timelineOf(chart, 100);
    const { meter } = present(bars[0]);
    // a beat of a compound metre is three eighths
    const quarters = (4 / meter.lower) * (meter.lower === 8 && meter.upper % 3 === 0 ? 3 : 1);
    const written = chordSpans.map(({ start, chord }) => ({
      onset: start * quarters,
      root: chord ? pitchClass(present(chord).root) : null,
    }));
    expect([id, chordsOf(asLilyPond(id, writeMusicXml(chart)))]).toEqual([id, written]);
  }
});

/** What a stand-in plays over a chart, with strings and frets. */
function sheetOf(text: string, seed: number): LineSheet {
  const chart = unwrap(readChart(text));
  const notes = improvise({ chart, tempo: 100, choruses: 1, plan: { id: 'outline' }, seed }).map(
    (note, index) => ({
      ...note,
      attack: index % 3 === 1 ? ('hammer' as const) : ('pick' as const),
      midi: Math.round(note.midi),
    }),
  );
  const touches = unwrap(pathOf(notes)).path;
  return {
    chart,
    timeline: timelineOf(chart, 100),
    tempo: 100,
    title: 'Lamp',
    notes,
    choruses: 1,
    swing: null,
    touchAt: (index) => touches[index] ?? null,
  };
}

type Sounding = { readonly onset: number; readonly midi: number };
const inOrder = (notes: Sounding[]): Sounding[] =>
  [...notes].sort((a, b) => a.onset - b.onset || a.midi - b.midi);

/** Notes of a MIDI file with their onsets in quarter notes. */
function midiNotes(file: Buffer): Sounding[] {
  const { header, tracks } = parseMidi(file);
  const notes: Sounding[] = [];
  for (const track of tracks) {
    let ticks = 0;
    for (const event of track) {
      ticks += event.deltaTime;
      if (event.type === 'noteOn' && event.velocity > 0)
        notes.push({ onset: ticks / present(header.ticksPerBeat), midi: event.noteNumber });
    }
  }
  return inOrder(notes);
}

/** Lines over changes in several metres and keys, with strings and frets. */
const LINES = [
  'key: Bb\n| Bb7 | Eb7 | Bb7 . Fm7 Bb7 | G7#9 |',
  'meter: 3/4\nkey: Am\n| Am7 | D7 | Gmaj7 | E7b9 |',
  'key: E\n| Emaj7 | C#m7 | F#m7 | B7 |',
].map((text, seed) => sheetOf(text, seed + 1));

/** The notes of a sheet as its page has them: a tied note begins once. */
const written = (sheet: LineSheet): Sounding[] =>
  inOrder(
    scoreOf(sheet).flatMap(({ start, entries }) =>
      entries.flatMap(({ at, pitches }) =>
        pitches
          .filter(({ tie }) => !tie.from)
          .map(({ note }) => ({ onset: start + at / DIVISIONS, midi: note.midi })),
      ),
    ),
  );

function expectSame(heard: readonly Sounding[], sheet: LineSheet): void {
  const own = written(sheet);
  expect(heard.map(({ midi }) => midi)).toEqual(own.map(({ midi }) => midi));
  heard.forEach(({ onset }, index) => expect(Math.abs(onset - present(own[index]).onset)).toBeLessThan(0.01));
}

withPrograms('musicxml2ly', 'lilypond')(
  'lines with tablature are engraved, and LilyPond plays the notes that were written',
  () => {
    for (const [seed, sheet] of LINES.entries()) {
      const name = `line-${seed}`;
      const lilypond = asLilyPond(name, writeLineMusicXml(sheet));
      // the tablature is in it: a string for each note that has one
      expect(lilypond.match(/\\[1-6]\b/g)?.length).toBeGreaterThan(sheet.notes.length / 2);
      // its chord names would sound too
      const played = lilypond
        .replace(/%\s+\\midi (\{.*\})/, '\\midi $1')
        .replace(/\\context ChordNames = .*/, '');
      expect(played).not.toBe(lilypond);
      writeFileSync(path.join(folder, `${name}.ly`), played);
      run('lilypond', '--loglevel=WARN', '-dbackend=svg', '-o', name, `${name}.ly`);
      expectSame(midiNotes(readFileSync(path.join(folder, `${name}.midi`))), sheet);
    }
  },
);

type Engraved = { readonly midi: string; readonly bars: number; readonly chords: number };

/** What Verovio reads in scores. */
function engraved(scores: readonly string[]): Engraved[] {
  const files = scores.map((score, number) => {
    const file = path.join(folder, `second-${number}.musicxml`);
    writeFileSync(file, score);
    return file;
  });
  const { status, stdout, stderr } = spawnSync('node', ['tests/support/engraved.mjs', ...files], {
    encoding: 'utf8',
    maxBuffer: 64 * 1024 * 1024,
  });
  expect([status, /error/i.exec(stderr)?.[0]]).toEqual([0, undefined]);
  const read = stdout.trim().split('\n');
  expect(read.length).toBe(scores.length);
  return read.map((line) => JSON.parse(line) as Engraved);
}

test('a second engraver, Verovio, plays lines with tablature as the notes that were written', () => {
  const sheets = [...LINES, ...SEVERAL.map(({ text }, seed) => sheetOf(text, seed + 10))];
  for (const [number, { midi }] of engraved(sheets.map(writeLineMusicXml)).entries())
    expectSame(midiNotes(Buffer.from(midi, 'base64')), present(sheets[number]));
}, 60_000);

test('and finds the bars and chords of every chart of the library', () => {
  const charts = LIBRARY.map(({ text }) => unwrap(readChart(text)));
  expect(
    engraved(charts.map((chart) => writeMusicXml(chart))).map(({ bars, chords }) => [bars, chords]),
  ).toEqual(charts.map(({ bars }) => [bars.length, bars.reduce((sum, { cells }) => sum + cells.length, 0)]));
}, 60_000);

withPrograms('fluidsynth')('a line as MIDI sounds as long as it was played', () => {
  const soundfont = '/usr/share/sounds/sf2/FluidR3_GM.sf2';
  const sheet = sheetOf('key: Bb\n| Bb7 | Eb7 | Bb7 | F7 |', 4);
  writeFileSync(path.join(folder, 'line.mid'), writeLineMidi(sheet));
  run('fluidsynth', '-ni', '-F', 'line.wav', '-r', '22050', soundfont, 'line.mid');
  const wav = readFileSync(path.join(folder, 'line.wav'));
  const seconds = (wav.length - 44) / (22_050 * 4);
  const last = Math.max(...sheet.notes.map(({ onsetBeat, durationBeats }) => onsetBeat + durationBeats));
  expect(seconds).toBeGreaterThan((last * 60) / sheet.tempo);
  const samples = new Int16Array(wav.buffer, wav.byteOffset + 44, Math.floor((wav.length - 44) / 2));
  expect(samples.reduce((most, value) => Math.max(most, Math.abs(value)), 0)).toBeGreaterThan(1000);
});

/** A tone with a little of everything in it, as 16-bit samples. */
const TONE = Float32Array.from({ length: 22_050 }, (_, n) => Math.sin(n / 9) * 0.5 + Math.sin(n / 31) * 0.3);

withPrograms('sox')('WAV and FLAC hold the samples that were written, read by sox', async () => {
  writeFileSync(path.join(folder, 'tone.wav'), writeWav([TONE], 22_050));
  const pcm = Buffer.from(Int16Array.from(TONE, (value) => Math.round(value * 32_767)).buffer);
  writeFileSync(path.join(folder, 'tone.flac'), await encodeFlac(pcm, 22_050, 16));
  const rawOf = (name: string): Buffer => {
    run('sox', '-D', name, '-t', 'raw', '-e', 'signed', '-b', '16', `${name}.raw`);
    return readFileSync(path.join(folder, `${name}.raw`));
  };
  expect(rawOf('tone.flac').equals(pcm)).toBe(true);
  const wav = rawOf('tone.wav');
  expect(wav.length).toBe(pcm.length);
  for (let n = 0; n < wav.length; n += 2)
    expect(Math.abs(wav.readInt16LE(n) - pcm.readInt16LE(n)) <= 1 || n).toBe(true);
});

withPrograms('unzip')('an archive of a take passes unzip -t', () => {
  const take = {
    schema: TAKE_SCHEMA,
    title: 'Lamp',
    chartText: '| C7 |',
    tempo: 100,
    choruses: 1,
    plan: { id: 'outline' },
    pace: null,
    offsetSec: 0,
    source: 'file',
    device: null,
    latencySec: null,
    createdAt: Date.UTC(2026, 0, 5),
    heard: { notes: [{ onsetSec: 0, endSec: 0.5, midi: 60 }] },
    edits: [],
    words: { stars: 0, tags: [], remarks: [] },
  } as const;
  // the marks of a ZIP in the sound itself must not end its member
  const sound = new Uint8Array(5000).map((_, n) => [0x50, 0x4b, 0x07, 0x08][n % 4]!);
  writeFileSync(path.join(folder, 'take.zip'), packTake(take as unknown as TakeDocument, sound));
  expect(run('unzip', '-t', 'take.zip')).toContain('No errors detected');
});

withPrograms('python3')('the notes as CSV have a value for each column, read by Python’s csv module', () => {
  const sheet = sheetOf('title: A, "B"\nkey: Bb\n| Bb7 | Eb7 | Bb7 | F7 |', 5);
  const report = analyse({ ...sheet, plan: { id: 'outline' } });
  writeFileSync(path.join(folder, 'notes.csv'), notesCsv(report, sheet.timeline));
  const rows = JSON.parse(
    run(
      'python3',
      '-c',
      'import csv,json;print(json.dumps(list(csv.DictReader(open("notes.csv",newline="")))))',
    ),
  ) as Record<string, string>[];
  expect(rows.map(({ midi }) => Number(midi))).toEqual(report.notes.map(({ midi }) => midi));
  expect(new Set(rows.map((row) => Object.values(row).includes(null as never)))).toEqual(new Set([false]));
});
