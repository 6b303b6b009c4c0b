import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { readChart } from '@/core/chart';
import { LIMITS } from '@/core/contracts';
import { readMusicXml, readWav, writeWav } from '@/core/formats';
import { readPhrase } from '@/core/phrases';

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
