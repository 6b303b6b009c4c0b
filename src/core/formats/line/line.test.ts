import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { XMLParser } from 'fast-xml-parser';
import { parseMidi } from 'midi-file';
import { validateXML } from 'xmllint-wasm';
import { improvise } from '@/core/band';
import { readChart, timelineOf } from '@/core/chart';
import { pathOf } from '@/core/neck';
import { unwrap, seededRandom } from '@/core/shared';
import {
  readLineMusicXml,
  readMidi,
  readMusicXml,
  writeLineMidi,
  writeLineMusicXml,
  type WrittenNote,
  type LineSheet,
} from '..';

const sheet = (
  text: string,
  notes: readonly WrittenNote[],
  choruses = 1,
  swing: number | null = null,
): LineSheet => {
  const chart = unwrap(readChart(text));
  return { chart, timeline: timelineOf(chart, 100), tempo: 100, title: 'Lamp', notes, choruses, swing };
};
const CHARTS = [
  'key: Bb\n| Bb7 | Eb7 | Bb7 . Fm7 Bb7 | G7#9 |',
  'meter: 3/4\nkey: Am\n| Am7 | D7 | Gmaj7 |',
  'meter: 6/8\n| Dm7 | G7 |',
  'meter: 5/4\n| Cm7 | F7 |',
];
const schema = readFileSync('tests/fixtures/musicxml/musicxml.xsd', 'utf8').replaceAll(
  'http://www.musicxml.org/xsd/',
  '',
);
const preload = ['xml.xsd', 'xlink.xsd'].map((fileName) => ({
  fileName,
  contents: readFileSync(`tests/fixtures/musicxml/${fileName}`, 'utf8'),
}));
/** Lines that a stand-in plays, swung and leaning, with a pickup and a chord hit; invented. */
const played = (text: string, seed: number): WrittenNote[] => {
  const random = seededRandom(seed);
  const chart = unwrap(readChart(text));
  const line = improvise({ chart, tempo: 100, choruses: 2, plan: { id: 'outline' }, seed });
  return [
    { onsetBeat: -0.5, durationBeats: 0.4, midi: 65 },
    ...line.map((note, index): WrittenNote => ({
      onsetBeat: note.onsetBeat + (random() - 0.5) * 0.08,
      durationBeats: note.durationBeats * (0.7 + random() * 0.3),
      midi: Math.round(note.midi),
      level: -20,
      ...(index % 9 === 3
        ? {
            bend: [
              [0, -200],
              [0.15, 0],
            ] as const,
          }
        : {}),
      ...(index % 11 === 5 ? { slide: { fromMidi: Math.round(note.midi) - 2, seconds: 0.1 } } : {}),
      ...(index % 13 === 7 ? { ghost: true as const } : {}),
      ...(index % 5 === 2 ? { attack: 'hammer' as const } : {}),
    })),
    { onsetBeat: 1, durationBeats: 0.8, midi: 50 },
    { onsetBeat: 1, durationBeats: 0.8, midi: 54 },
  ];
};
const key = (notes: readonly WrittenNote[]) =>
  [...notes]
    .map(({ midi, onsetBeat, durationBeats }) => [Math.round(midi), onsetBeat, durationBeats] as const)
    .sort((a, b) => a[1] - b[1] || a[0] - b[0]);
const expectSame = (
  found: readonly WrittenNote[],
  wanted: readonly WrittenNote[],
  lead: number,
  digits: number,
) => {
  const [a, b] = [key(found), key(wanted)];
  expect(a.length).toBe(b.length);
  a.forEach(([midi, onset, duration], index) => {
    expect(midi).toBe(b[index]![0]);
    expect(onset - lead).toBeCloseTo(b[index]![1], digits);
    expect(duration).toBeCloseTo(b[index]![2], digits);
  });
};

test.each(CHARTS)('a line as MIDI is read back note for note, to a 960th of a quarter: %s', (text) => {
  const one = sheet(text, played(text, 5), 2);
  const quarters = text.includes('6/8') ? 1.5 : 1;
  const lead = one.timeline.bars[0]!.end;
  const read = unwrap(readMidi(writeLineMidi(one)));
  expectSame(
    read.map((note) => ({
      ...note,
      onsetBeat: note.onsetBeat / quarters,
      durationBeats: note.durationBeats / quarters,
    })),
    one.notes,
    lead,
    2,
  );
  const wheel = parseMidi(writeLineMidi(one)).tracks[0]!.filter(({ type }) => type === 'pitchBend');
  expect(wheel.length).toBeGreaterThan(0);
});

test.each(CHARTS)(
  'a line as MusicXML is read back note for note where it was played, with its chords: %s',
  (text) => {
    const one = sheet(text, played(text, 6), 2, text.startsWith('key: Bb') ? 1.7 : null);
    const xml = writeLineMusicXml(one);
    // a bar before bar 1 holds the pickup
    expectSame(unwrap(readLineMusicXml(xml)), one.notes, one.timeline.bars[0]!.end, 2);
    const chords = unwrap(readChart(unwrap(readMusicXml(xml))))
      .bars.slice(1, 1 + 2 * one.chart.bars.length)
      .flatMap((bar) => bar.cells.map((cell) => cell.chord?.symbol));
    const own = one.chart.bars.flatMap((bar) => bar.cells.map((cell) => cell.chord?.symbol));
    expect(chords).toEqual([...own, ...own]);
  },
);

test('every written line is valid against the published schema, every measure is full', async () => {
  for (const text of CHARTS) {
    const xml = writeLineMusicXml(sheet(text, played(text, 7), 2, 1.6)).replace(/<!DOCTYPE[^>]*>/, '');
    const { valid, errors } = await validateXML({
      xml: [{ fileName: 'line.musicxml', contents: xml }],
      schema: [{ fileName: 'musicxml.xsd', contents: schema }],
      preload,
    });
    expect([errors.map(({ message }) => message), valid]).toEqual([[], true]);
    const { measure } = (
      new XMLParser({ isArray: (name) => ['measure', 'note'].includes(name) }).parse(xml) as {
        'score-partwise': { part: { measure: { note: { duration: number; chord?: unknown }[] }[] } };
      }
    )['score-partwise'].part;
    const full = measure.map(({ note }) =>
      note.reduce((sum, one) => sum + (one.chord === undefined ? one.duration : 0), 0),
    );
    expect(new Set(full).size).toBe(1);
  }
}, 30_000);

test('every note of the score is written with a string and a fret that sound it, held ones too, and the score stays valid', async () => {
  const notes = played(CHARTS[0]!, 3).filter(({ ghost, midi }) => !ghost && midi >= 40 && midi <= 86);
  const path = unwrap(
    pathOf(notes.map(({ onsetBeat, durationBeats, midi }) => ({ onsetBeat, durationBeats, midi }))),
  );
  const xml = writeLineMusicXml({
    ...sheet(CHARTS[0]!, notes, 2),
    touchAt: (index) => path.path[index] ?? null,
  });
  const { valid } = await validateXML({
    xml: [{ fileName: 'line.musicxml', contents: xml.replace(/<!DOCTYPE[^>]*>/, '') }],
    schema: [{ fileName: 'musicxml.xsd', contents: schema }],
    preload,
  });
  expect(valid).toBe(true);
  const written = [...xml.matchAll(/<note[ >].*?<\/note>/gs)]
    .map(([text]) => text)
    .filter((text) => text.includes('<pitch>'));
  expect(written.length).toBeGreaterThanOrEqual(notes.length);
  const STEPS: Record<string, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
  const open = [64, 59, 55, 50, 45, 40];
  for (const text of written) {
    const value = (name: string) => new RegExp(`<${name}>([^<]*)<`).exec(text)?.[1] ?? '0';
    const sounding = 12 * (Number(value('octave')) + 1) + STEPS[value('step')]! + Number(value('alter'));
    expect(open[Number(value('string')) - 1]! + Number(value('fret'))).toBe(sounding);
  }
}, 30_000);

test('what the fretting hand begins stands under one slur, each hammer-on and pull-off by its name, and is read again', () => {
  const line = [60, 62, 63, 62, 67].map((midi, index): WrittenNote => ({
    onsetBeat: index / 2,
    durationBeats: 0.5,
    midi,
    attack: index > 0 && index < 4 ? 'hammer' : 'pick',
  }));
  const xml = writeLineMusicXml(sheet('key: C\n| C |\n', line));
  const count = (text: string) => xml.split(text).length - 1;
  expect(['<slur ', '<hammer-on ', '<pull-off '].map(count)).toEqual([2, 4, 2]);
  expect(unwrap(readLineMusicXml(xml)).map(({ attack }) => attack)).toEqual([
    undefined,
    'hammer',
    'hammer',
    'pull',
    undefined,
  ]);
});

test('swung eighths are written as eighths, triplets as triplets', () => {
  const notes = [0, 0.62, 1, 1.64, 2, 2 + 1 / 3, 2 + 2 / 3, 3].map((onsetBeat): WrittenNote => ({
    onsetBeat,
    durationBeats: 0.3,
    midi: 62,
  }));
  const types = [
    ...writeLineMusicXml(sheet('| Dm7 |', notes, 1, 1.7)).matchAll(
      /<pitch>[\s\S]*?<type>(\w+)<\/type>\s*(<time-modification>)?/g,
    ),
  ].map(([, type, triplet]) => `${type}${triplet ? '3' : ''}`);
  expect(types.slice(0, 4).every((type) => type === 'eighth' || type === '16th')).toBe(true);
  expect(types.slice(4, 7)).toEqual(['eighth3', 'eighth3', 'eighth3']);
});

test('a first measure that is not full is a pickup; ties are one note; bad files are refused with a reason', () => {
  const score = (measures: string) =>
    `<score-partwise><part-list><score-part id="P1"><part-name/></score-part></part-list><part id="P1">${measures}</part></score-partwise>`;
  const note = (step: string, duration: number, extra = '') =>
    `<note><pitch><step>${step}</step><octave>4</octave></pitch><duration>${duration}</duration>${extra}</note>`;
  const line = unwrap(
    readLineMusicXml(
      score(
        `<measure number="0"><attributes><divisions>2</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>${note('G', 2)}</measure><measure number="1">${note('C', 8, '<tie type="start"/>')}</measure><measure number="2">${note('C', 4, '<tie type="stop"/>')}${note('E', 4)}</measure>`,
      ),
    ),
  );
  expect(line).toEqual([
    { onsetBeat: -1, durationBeats: 1, midi: 67 },
    { onsetBeat: 0, durationBeats: 6, midi: 60 },
    { onsetBeat: 6, durationBeats: 2, midi: 64 },
  ]);
  for (const [xml, code] of [
    ['<score-partwise><part-list/></score-partwise>', 'musicxml.no-notes'],
    ['nothing', 'musicxml.unreadable'],
    ['<!DOCTYPE x [<!ENTITY a "b">]><score-partwise/>', 'musicxml.entities'],
  ] as const)
    expect(readLineMusicXml(xml)).toMatchObject({ ok: false, problems: [{ code }] });
});

test('a key is written where it changes, and not again', () => {
  const chart = unwrap(readChart('title: Two keys\n[A]\nkey: F\n| F | C7 |\n[B]\nkey: Ab\n| Ab | Eb7 |\n'));
  const xml = writeLineMusicXml({
    chart,
    timeline: timelineOf(chart, 100),
    tempo: 100,
    title: 'Two keys',
    notes: [0, 4, 8, 12].map((onsetBeat) => ({ onsetBeat, durationBeats: 4, midi: 65 })),
    choruses: 1,
    swing: null,
  });
  expect([...xml.matchAll(/<fifths>(-?\d)<\/fifths>/g)].map(([, fifths]) => fifths)).toEqual(['-1', '-4']);
});
