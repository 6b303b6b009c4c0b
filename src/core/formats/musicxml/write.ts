import { XMLBuilder } from 'fast-xml-parser';
import { isCompound, writeOverride, type Bar, type Cell, type Chart, type Meter } from '../../chart';
import {
  fifthsOf,
  pitchClass,
  readChord,
  readNote,
  type Chord,
  type Key,
  type SpelledNote,
} from '../../music';
import { kindOf } from './kinds';
import { present } from '../../shared';

/**
 * Divisions of a quarter note: bars shared by two, three, four, five, six or eight chords all fall on whole
 * ones.
 */
const DIVISIONS = 480;

export type Xml = Record<string, unknown>;
export const tag = (
  name: string,
  children: Xml[] | string | number,
  attributes?: Record<string, string | number>,
): Xml => ({
  [name]: Array.isArray(children) ? children : [{ '#text': children }],
  ...(attributes
    ? { ':@': Object.fromEntries(Object.entries(attributes).map(([key, value]) => [`@_${key}`, value])) }
    : {}),
});

/**
 * A chart as a MusicXML 4.0 score: one part whose measures hold chords (element `harmony`) over rests,
 * repeats written out.
 * Source: MusicXML 4.0, W3C Music Notation Community Group.
 */
export function writeMusicXml(chart: Chart): string {
  const misc = [
    ...(chart.feel === null ? [] : [tag('miscellaneous-field', chart.feel, { name: 'feel' })]),
    ...(chart.pickup > 0 ? [tag('miscellaneous-field', chart.pickup, { name: 'pickup' })] : []),
    ...chart.overrides.map((one, index) =>
      tag('miscellaneous-field', writeOverride(one).replace('reading: ', ''), {
        name: `reading-${index + 1}`,
      }),
    ),
  ];
  return scoreText(
    chart.title || 'Untitled',
    [tag('score-part', [tag('part-name', 'Chords')], { id: 'P1' })],
    chart.bars.map((bar, index) => measure(chart, bar, index)),
    misc,
  );
}

/** A score of one part as text. */
export function scoreText(title: string, parts: Xml[], measures: Xml[], misc: Xml[] = []): string {
  const score = tag(
    'score-partwise',
    [
      tag('work', [tag('work-title', title)]),
      tag('identification', [
        tag('encoding', [tag('software', 'Idle Wander')]),
        ...(misc.length > 0 ? [tag('miscellaneous', misc)] : []),
      ]),
      tag('part-list', parts),
      tag('part', measures, { id: 'P1' }),
    ],
    { version: '4.0' },
  );
  const builder = new XMLBuilder({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: '@_',
    format: true,
    indentBy: '  ',
    suppressEmptyNode: true,
  });
  return `<?xml version="1.0" encoding="UTF-8"?>\n<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">\n${builder.build([score]).trim()}\n`;
}

const unit = (meter: Meter): number => ((4 * DIVISIONS) / meter.lower) * (isCompound(meter) ? 3 : 1);

function measure(chart: Chart, bar: Bar, index: number): Xml {
  const before = chart.bars[index - 1];
  const children: Xml[] = [];
  const attributes = [...barAttributes(bar, before), ...repeatMarks(bar, before)];
  if (attributes.length > 0) children.push(tag('attributes', attributes));
  if (bar.section !== null && bar.section !== before?.section)
    children.push(
      tag('direction', [tag('direction-type', [tag('rehearsal', bar.section)])], { placement: 'above' }),
    );
  if (!before && chart.tempo !== null) children.push(tempoTag(chart.tempo, bar.meter));
  for (const cell of bar.cells) children.push(harmonyTag(cell.chord), ...beatsOf(cell, bar));
  return tag('measure', children, { number: index + 1 });
}

/** Key and meter where they are new; in the first measure also its divisions and clef. */
function barAttributes({ key, meter }: Bar, before: Bar | undefined): Xml[] {
  const time = tag('time', [tag('beats', meter.upper), tag('beat-type', meter.lower)]);
  if (!before)
    return [
      tag('divisions', DIVISIONS),
      ...fifthsTags(key),
      time,
      tag('clef', [tag('sign', 'G'), tag('line', 2)]),
      tag('measure-style', [tag('slash', [], { type: 'start', 'use-stems': 'no' })]),
    ];
  const isSameMeter = meter.upper === before.meter.upper && meter.lower === before.meter.lower;
  return [...(keyId(key) === keyId(before.key) ? [] : fifthsTags(key)), ...(isSameMeter ? [] : [time])];
}

/** Where bars that say the one before again begin and end. */
function repeatMarks(bar: Bar, before: Bar | undefined): Xml[] {
  if (bar.repeats === (before?.repeats ?? false)) return [];
  const mark = bar.repeats
    ? tag('measure-repeat', 1, { type: 'start' })
    : tag('measure-repeat', [], { type: 'stop' });
  return [tag('measure-style', [mark])];
}

const TYPES: Readonly<Record<number, string>> = {
  1: 'whole',
  2: 'half',
  4: 'quarter',
  8: 'eighth',
  16: '16th',
};

/** The note value of a beat; of a compound metre it has a dot. */
const beatType = (meter: Meter): string =>
  isCompound(meter) ? 'quarter' : (TYPES[meter.lower] ?? 'quarter');

export const tempoTag = (tempo: number, meter: Meter): Xml =>
  tag(
    'direction',
    [
      tag('direction-type', [
        tag('metronome', [
          tag('beat-unit', beatType(meter)),
          ...(isCompound(meter) ? [tag('beat-unit-dot', [])] : []),
          tag('per-minute', tempo),
        ]),
      ]),
      tag('sound', [], { tempo: Math.round(((tempo * unit(meter)) / DIVISIONS) * 1000) / 1000 }),
    ],
    { placement: 'above' },
  );

const keyId = (key: Key | null): string =>
  key ? `${pitchClass(key.tonic)} ${key.tonic.letter} ${key.minor}` : '';

/** Fifths on the circle: C is 0, each sharp one more; minor counts from its relative major. */
export const fifthsTags = (key: Key | null): Xml[] =>
  key ? [tag('key', [tag('fifths', fifthsOf(key)), tag('mode', key.minor ? 'minor' : 'major')])] : [];

export function harmonyTag(chord: Chord | null, offset = 0): Xml {
  const moved = offset === 0 ? [] : [tag('offset', offset)];
  if (!chord)
    return tag('harmony', [
      tag('root', [tag('root-step', 'C', { text: '' })]),
      tag('kind', 'none', { text: 'N.C.' }),
      ...moved,
    ]);
  const { kind, degrees } = kindOf(chord);
  const written = present(readNote(chord.symbol));
  const slash = /\/([A-G][b#♭♯𝄫𝄪]*)$/u.exec(chord.symbol);
  const body = heard(chord, written.note);
  const shown = body ? kindOf(body) : { kind, degrees };
  return tag('harmony', [
    tag('root', note('root', written.note)),
    tag('kind', shown.kind, {
      text: chord.symbol.slice(written.length, slash ? chord.symbol.length - slash[0].length : undefined),
    }),
    ...(slash ? [tag('bass', note('bass', chord.bass))] : []),
    ...shown.degrees.map((degree) =>
      tag('degree', [
        tag('degree-value', degree.value),
        tag('degree-alter', degree.alter),
        tag('degree-type', degree.type),
      ]),
    ),
    ...moved,
  ]);
}

/** A m7 over its fourth is read as a sus chord on the bass, but written as the m7 it is. */
function heard(chord: Chord, written: SpelledNote): Chord | null {
  if (pitchClass(written) === pitchClass(chord.root)) return null;
  const plain = chord.symbol.slice(0, chord.symbol.lastIndexOf('/'));
  const read = readChord(plain);
  return read.ok ? read.value : null;
}

const note = (part: 'root' | 'bass', { letter, alter }: SpelledNote): Xml[] => [
  tag(`${part}-step`, letter),
  ...(alter === 0 ? [] : [tag(`${part}-alter`, alter)]),
];

/**
 * The time of a chord as rests of a beat each, shown as slashes: readers that give a chord the length of what
 * stands under it lose it over a rest for the whole measure.
 */
function beatsOf({ beats }: Cell, { meter }: Bar): Xml[] {
  const whole = Math.floor(beats.valueOf() + 1e-9);
  const left = Math.round((beats.valueOf() - whole) * unit(meter));
  const beat = tag('note', [
    tag('rest', []),
    tag('duration', unit(meter)),
    tag('voice', 1),
    tag('type', beatType(meter)),
    ...(isCompound(meter) ? [tag('dot', [])] : []),
  ]);
  const part = tag('note', [tag('rest', []), tag('duration', left), tag('voice', 1)]);
  return [...Array.from({ length: whole }, () => beat), ...(left > 0 ? [part] : [])];
}
