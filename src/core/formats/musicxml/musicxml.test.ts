import { expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { validateXML } from 'xmllint-wasm';
import { unwrap } from '../../shared';
import { readChart, writeChart, type Chart } from '../../chart';
import { readChord } from '../../music';
import { readChartMidi, readMusicXml, writeChartMidi, writeMusicXml } from '../index';
import { kindOf, symbolOf } from './kinds';

const chart = (text: string): Chart => unwrap(readChart(text));
/** What a form is, apart from its text: bars with their cells, keys, meters and sections. */
const form = ({ title, tempo, feel, pickup, bars, overrides }: Chart) => ({
  title,
  tempo,
  feel,
  pickup,
  overrides,
  bars: bars.map(({ cells, meter, section, key, repeats }) => ({
    cells: cells.map((cell) => `${cell.chord?.symbol ?? 'N.C.'} ${cell.beats.toFraction()}`),
    meter,
    section,
    key,
    repeats,
  })),
});

const FULL =
  'title: Weather & "Wires" <2>\nkey: Eb\ntempo: 132\nfeel: swing\npickup: 1\n[A]\n| Ebmaj7 | C7b9 | Fm7 . . Bb7 | % |\n[B]\nkey: Ab\n| Bbm7 Eb7 Abmaj7 | N.C. |\nmeter: 3/4\n| Am7b5 D7(b9,#11) . | Fm7/Bb |\nmeter: 6/8\n| Gm7/F C7alt |\nreading: 2 = V/ii, altered\n';

test('a chart goes out as MusicXML and opens again equal', () => {
  const own = chart(FULL);
  const back = chart(unwrap(readMusicXml(writeMusicXml(own))));
  expect(form(back)).toEqual(form(own));
});

// MusicXML 4.0, element `degree`: an added degree counts from a dominant chord, so an added 7 with alter 0
// is the minor seventh.
test.each([
  ['C', 'major', ''],
  ['Cm', 'minor', ''],
  ['C7', 'dominant', ''],
  ['Cmaj7', 'major-seventh', ''],
  ['Cm7', 'minor-seventh', ''],
  ['Cm7b5', 'half-diminished', ''],
  ['Cdim', 'diminished', ''],
  ['Cdim7', 'diminished-seventh', ''],
  ['C+', 'augmented', ''],
  ['C7#5', 'augmented-seventh', ''],
  ['CmMaj7', 'major-minor', ''],
  ['C6', 'major-sixth', ''],
  ['Cm6', 'minor-sixth', ''],
  ['C9', 'dominant-ninth', ''],
  ['Cmaj9', 'major-ninth', ''],
  ['Cm9', 'minor-ninth', ''],
  ['Cm11', 'minor-11th', ''],
  ['C13', 'dominant-13th', ''],
  ['C5', 'power', ''],
  ['Csus4', 'suspended-fourth', ''],
  ['Csus2', 'suspended-second', ''],
  ['C7sus4', 'suspended-fourth', 'add 7 0'],
  ['Cmaj7sus4', 'suspended-fourth', 'add 7 1'],
  ['C7b9', 'dominant', 'add 9 -1'],
  ['C7#9', 'dominant', 'add 9 1'],
  ['C7b9b13', 'dominant', 'add 9 -1, add 13 -1'],
  ['C7b5', 'dominant', 'alter 5 -1'],
  ['Cmaj7#11', 'major-seventh', 'add 11 1'],
  ['Cmaj7#5', 'major-seventh', 'alter 5 1'],
  ['C69', 'major-sixth', 'add 9 0'],
  ['Cadd9', 'major', 'add 9 0'],
  ['C9sus', 'suspended-fourth', 'add 7 0, add 9 0'],
  ['C13b9', 'dominant', 'add 9 -1, add 13 0'],
  ['C9#11', 'dominant-ninth', 'add 11 1'],
])('%s is kind %s with degrees %s', (symbol, kind, degrees) => {
  const found = kindOf(unwrap(readChord(symbol)));
  expect([
    found.kind,
    found.degrees.map(({ type, value, alter }) => `${type} ${value} ${alter}`).join(', '),
  ]).toEqual([kind, degrees]);
  const tones = (text: string) => {
    const { tones: own, colours } = unwrap(readChord(text));
    return [own, colours].map((list) =>
      list
        .map((tone) => tone.pc)
        .sort()
        .join(' '),
    );
  };
  expect(tones(unwrap(symbolOf('C', found)))).toEqual(tones(symbol));
});

test('foreign scores: kinds without text, offsets, backup, repeats with endings, keys in minor', () => {
  const measure = (inside: string, number: number) => `<measure number="${number}">${inside}</measure>`;
  const chordOn = (step: string, kind: string, more = '') =>
    `<harmony><root><root-step>${step}</root-step></root><kind>${kind}</kind>${more}</harmony>`;
  const xml = `<?xml version="1.0"?><!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd"><score-partwise version="4.0"><movement-title>Third Weir</movement-title><part-list><score-part id="P1"><part-name>x</part-name></score-part></part-list><part id="P1">
  ${measure(`<attributes><divisions>2</divisions><key><fifths>-1</fifths><mode>minor</mode></key><time><beats>4</beats><beat-type>4</beat-type></time></attributes>${chordOn('D', 'minor-seventh')}<note><rest/><duration>6</duration></note>${chordOn('G', 'dominant', '<degree><degree-value>9</degree-value><degree-alter>-1</degree-alter><degree-type>add</degree-type></degree>')}<note><rest/><duration>2</duration></note>`, 1)}
  ${measure(`<barline location="left"><ending number="1" type="start"/></barline>${chordOn('C', 'major')}<note><rest/><duration>8</duration></note><barline location="right"><repeat direction="backward"/></barline>`, 2)}
  ${measure(`<barline location="left"><ending number="2" type="start"/></barline><note><rest/><duration>8</duration></note><backup><duration>4</duration></backup>${chordOn('A', 'suspended-fourth', '<degree><degree-value>7</degree-value><degree-alter>0</degree-alter><degree-type>add</degree-type></degree><bass><bass-step>E</bass-step></bass>')}`, 3)}
  </part></score-partwise>`;
  const own = chart(unwrap(readMusicXml(xml)));
  expect([own.title, own.key && own.key.tonic.letter, own.key?.minor]).toEqual(['Third Weir', 'D', true]);
  expect(form(own).bars.map((bar) => bar.cells.join(' | '))).toEqual([
    'Dm7 3 | G7(b9) 1',
    'C 4',
    'Dm7 3 | G7(b9) 1',
    'C 2 | A7sus4/E 2',
  ]);
});

test.each([
  [
    'entities',
    '<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "b"><!ENTITY c "&a;&a;">]><score-partwise/>',
    'musicxml.entities',
  ],
  ['depth', `<score-partwise>${'<a>'.repeat(5000)}${'</a>'.repeat(5000)}</score-partwise>`, 'musicxml.deep'],
  ['size', `<score-partwise>${' '.repeat(8_000_001)}</score-partwise>`, 'musicxml.too-large'],
  ['no score', '<html></html>', 'musicxml.root'],
  ['not closed', '<score-partwise><part>', 'musicxml.unreadable'],
  [
    'no chords',
    '<score-partwise><part id="P1"><measure number="1"/></part></score-partwise>',
    'musicxml.no-chords',
  ],
  ['compressed', 'PK\u0003\u0004', 'musicxml.compressed'],
  [
    'unknown kind',
    '<score-partwise><part id="P"><measure><harmony><root><root-step>C</root-step></root><kind>Tristan</kind></harmony></measure></part></score-partwise>',
    'musicxml.kind',
  ],
])('hostile or foreign XML is refused: %s', (_, xml, code) => {
  const read = readMusicXml(xml);
  expect(read.ok ? '' : read.problems[0].code).toBe(code);
});

// The schema is MusicXML 3.0’s (its own licence beside it): the 4.0 schema is in no registry; 4.0 keeps
// every element used here.
const schema = readFileSync('tests/fixtures/musicxml/musicxml.xsd', 'utf8').replaceAll(
  'http://www.musicxml.org/xsd/',
  '',
);
const preload = ['xml.xsd', 'xlink.xsd'].map((fileName) => ({
  fileName,
  contents: readFileSync(`tests/fixtures/musicxml/${fileName}`, 'utf8'),
}));

test('what is written is valid against the published schema', async () => {
  const texts = [
    FULL,
    '| C |',
    'key: F#m\nmeter: 5/4\n| F#m7 . . B7 . | % | C#7#9 |',
    'meter: 12/8\ntempo: 60\n| Am . Dm E7 |',
  ];
  for (const text of texts) {
    const { valid, errors } = await validateXML({
      xml: [
        { fileName: 'chart.musicxml', contents: writeMusicXml(chart(text)).replace(/<!DOCTYPE[^>]*>/, '') },
      ],
      schema: [{ fileName: 'musicxml.xsd', contents: schema }],
      preload,
    });
    expect([valid, errors.map((error) => error.message)]).toEqual([true, []]);
  }
}, 60_000);

const symbol = fc.constantFrom(
  'C',
  'Bb7',
  'F#m7b5',
  'Ebmaj7',
  'G7alt',
  'Dm',
  'N.C.',
  'A7/C#',
  'C13#11',
  'Dbm9',
  'E7#5#9',
  'Abmaj7#11',
  'Gm11',
  'B7b9sus',
  'F6/9',
  'Fm7/Bb',
  'CmMaj9',
  'Ebadd9',
);
const bar = fc.oneof(
  fc.constant('%'),
  fc.array(symbol, { minLength: 1, maxLength: 4 }).map((all) => all.join(' ')),
  fc.tuple(symbol, symbol).map(([a, b]) => `${a} . . ${b}`),
);

test('any chart survives MusicXML and back; as MIDI markers its chords and bars do', () => {
  fc.assert(
    fc.property(
      fc.array(bar, { minLength: 1, maxLength: 10 }),
      fc.constantFrom('C', 'Bbm', 'F#', 'Ab'),
      (all, key) => {
        if (all[0] === '%') all[0] = 'C';
        const own = chart(`title: T\nkey: ${key}\n[A]\n| ${all.join(' | ')} |\n[B]\nkey: G\n| C |`);
        expect(form(chart(unwrap(readMusicXml(writeMusicXml(own)))))).toEqual(form(own));
        const midi = chart(unwrap(readChartMidi(writeChartMidi(own))));
        const cells = (one: Chart) => form(one).bars.map(({ cells: list, section }) => [section, list]);
        expect(cells(midi)).toEqual(cells(own));
      },
    ),
    { numRuns: 60 },
  );
});

test('MIDI markers: meters, tempo and keys; files without chords are refused', () => {
  const own = chart('title: Rungs\nkey: Dm\nmeter: 6/8\ntempo: 70\n| Dm A7 | Dm |\nmeter: 3/4\n| Gm |');
  const back = chart(unwrap(readChartMidi(writeChartMidi(own))));
  expect([
    back.title,
    back.tempo,
    back.key?.minor,
    back.bars.map((one) => `${one.meter.upper}/${one.meter.lower}`).join(' '),
  ]).toEqual(['Rungs', 70, true, '6/8 6/8 3/4']);
  const refusal = (bytes: Uint8Array) => {
    const read = readChartMidi(bytes);
    return read.ok ? '' : read.problems[0].code;
  };
  expect(refusal(new TextEncoder().encode('hello'))).toBe('midi.unreadable');
  expect(refusal(Uint8Array.from(atob('TVRoZAAAAAYAAAABAGBNVHJrAAAABAD/LwA='), (c) => c.charCodeAt(0)))).toBe(
    'midi.no-markers',
  );
});

test('whatever is given is read or refused, never thrown', () => {
  const piece = fc.constantFrom(
    '<score-partwise>',
    '<part id="P1">',
    '<measure>',
    '<harmony>',
    '<root><root-step>C</root-step></root>',
    '<kind>major</kind>',
    '</harmony>',
    '</measure>',
    '</part>',
    '</score-partwise>',
    '&amp;',
    '<!--',
    ']]>',
    '\u0000',
    'x',
  );
  fc.assert(fc.property(fc.array(piece, { maxLength: 20 }), (pieces) => void readMusicXml(pieces.join(''))));
  fc.assert(fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => void readChartMidi(bytes)));
});

test('what stands in chart text stays what it is', () =>
  expect(writeChart(chart(writeChart(chart(FULL))))).toBe(writeChart(chart(FULL))));

const QUALITIES = [
  '',
  'm',
  '5',
  '+',
  'dim',
  'dim7',
  'm7b5',
  'ø9',
  '6',
  'm6',
  '69',
  'm69',
  '7',
  '9',
  '11',
  '13',
  'maj7',
  'maj9',
  'maj11',
  'maj13',
  'm7',
  'm9',
  'm11',
  'm13',
  'mMaj7',
  'mMaj9',
  'sus4',
  'sus2',
  '7sus4',
  '9sus',
  '13sus',
  '7b9sus',
  'add9',
  'add11',
  'm(add9)',
  '7b5',
  '7#5',
  '7b9',
  '7#9',
  '7#11',
  '7b13',
  '7b9b13',
  '7b9#11',
  '7#9b13',
  '7#5#9',
  '7#5b9',
  '7b5b9',
  '9#11',
  '9b5',
  '9#5',
  '9b13',
  '13b9',
  '13#9',
  '13#11',
  'maj7#11',
  'maj9#11',
  'maj7#5',
  'maj7b5',
  'm7#5',
  '7alt',
];
const ROOTS = [...'ABCDEFG'].flatMap((letter) => [letter, `${letter}b`, `${letter}#`]);

test('sixty qualities on twenty-one roots: read, printed anew and read again, every tone and its spelling the same', () => {
  expect([QUALITIES.length, ROOTS.length]).toEqual([60, 21]);
  const said = (symbol: string) => {
    const { tones, colours } = unwrap(readChord(symbol));
    return [...tones, ...colours]
      .map((tone) => `${tone.note.letter}${tone.note.alter}`)
      .sort()
      .join(' ');
  };
  for (const root of ROOTS)
    for (const quality of QUALITIES) {
      const printed = unwrap(symbolOf(root, kindOf(unwrap(readChord(root + quality)))));
      expect([root + quality, printed, said(printed)]).toEqual([
        root + quality,
        printed,
        said(root + quality),
      ]);
    }
});

test('five hundred spellings that are none are refused with their place and a way out', () => {
  const wrong = ['H', 'h7', 'X', 'maj', 'm/']
    .map((word) => word)
    .concat(
      ROOTS.flatMap((root) =>
        [
          'x7',
          '7b',
          'maj8',
          '7(b9',
          '/H',
          'm7b',
          '77',
          '7#13',
          'maj7#13b2',
          'sus5',
          '9b10',
          '7#',
          'dimdim',
          'alt9',
          '14',
          '(',
          'mmaj',
          '7b9b',
          '5b5',
          '6/',
          '7sus3',
          'add14',
          '##b7',
          '**',
          '7#7',
          'q',
        ].map((tail) => root + tail),
      ),
    );
  const accepted: string[] = [];
  let refused = 0;
  for (const symbol of wrong) {
    const read = readChord(symbol);
    if (read.ok) {
      accepted.push(symbol);
      continue;
    }
    refused++;
    expect(read.problems[0].column).toBeGreaterThanOrEqual(1);
    expect(read.problems[0].column).toBeLessThanOrEqual(symbol.length + 1);
  }
  expect(refused).toBeGreaterThanOrEqual(500);
  expect(accepted).toEqual([]);
});
