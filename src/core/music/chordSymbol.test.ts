import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Chord as TonalChord, Note as TonalNote } from 'tonal';
import { unwrap } from '../shared';
import { guideTones, isChange, readChord, toneNames, noteName, intervalOver } from './index';

const tones = (symbol: string): string => toneNames(unwrap(readChord(symbol))).join(' ');
const colours = (symbol: string): string =>
  unwrap(readChord(symbol))
    .colours.map((tone) => `${tone.interval}:${noteName(tone.note)}`)
    .join(' ');

// Hand-written from the grammar of the theory page; spellings are common practice, no source.
test.each([
  ['C', 'C E G'],
  ['A7', 'A C# E G'],
  ['Dbm', 'Db Fb Ab'],
  ['Ebm7b5/Bbb', 'Eb Gb Bbb Db'],
  ['Bø7', 'B D F A'],
  ['Bø', 'B D F A'],
  ['C°7', 'C Eb Gb Bbb'],
  ['Co7', 'C Eb Gb Bbb'],
  ['Cdim', 'C Eb Gb'],
  ['C+', 'C E G#'],
  ['Caug', 'C E G#'],
  ['C+7', 'C E G# Bb'],
  ['C7#5', 'C E G# Bb'],
  ['Cmaj7#5', 'C E G# B'],
  ['CΔ', 'C E G B'],
  ['CM7', 'C E G B'],
  ['C△7', 'C E G B'],
  ['Cma7', 'C E G B'],
  ['C-7', 'C Eb G Bb'],
  ['Cmi7', 'C Eb G Bb'],
  ['Cmin7', 'C Eb G Bb'],
  ['C6', 'C E G A'],
  ['Cm6', 'C Eb G A'],
  ['C69', 'C E G A'],
  ['C6/9', 'C E G A'],
  ['Csus', 'C F G'],
  ['Csus4', 'C F G'],
  ['Csus2', 'C D G'],
  ['C2', 'C D G'],
  ['C7sus4', 'C F G Bb'],
  ['C9sus', 'C F G Bb'],
  ['C7b9sus', 'C F G Bb'],
  ['C11', 'C F G Bb'],
  ['Cadd9', 'C E G'],
  ['C5', 'C G'],
  ['C7alt', 'C E Bb'],
  ['Calt', 'C E Bb'],
  ['CmMaj7', 'C Eb G B'],
  ['Cm(maj7)', 'C Eb G B'],
  ['C-Δ7', 'C Eb G B'],
  ['C/E', 'C E G'],
  ['C/D', 'C E G D'],
  ['Fm7/Bb', 'Bb Eb F Ab'],
  ['F##7', 'F## A## C## E#'],
  ['C7(b9,#11)', 'C E G Bb'],
  ['B♭maj7', 'Bb D F A'],
  ['C7b5', 'C E Gb Bb'],
  ['Cm7b5', 'C Eb Gb Bb'],
  ['Cmadd9', 'C Eb G'],
  ['Cø9', 'C Eb Gb Bb'],
])('%s sounds %s', (symbol, expected) => expect(tones(symbol)).toBe(expected));

test.each([
  ['C9', '9:D'],
  ['C13', '9:D 6:A'],
  ['C7b9b13', 'b9:Db b13:Ab'],
  ['C7alt', 'b9:Db #9:D# #11:F# b13:Ab'],
  ['Cmaj7#11', '#11:F#'],
  ['C69', '9:D'],
  ['Cm11', '9:D 4:F'],
  ['C13b9', 'b9:Db 6:A'],
  ['C7(b9,#11)', 'b9:Db #11:F#'],
  ['C11', '9:D'],
  ['Fm7/Bb', '9:C'],
  ['C7', ''],
  ['Cmadd9', '9:D'],
  ['Cø9', '9:D'],
  ['Cmadd11', '4:F'],
])('%s names the tensions %s', (symbol, expected) => expect(colours(symbol)).toBe(expected));

test.each([
  ['Cmaj7', '3 7'],
  ['C6', '3 6'],
  ['C', '3'],
  ['C7sus4', '4 b7'],
  ['Bm7b5', 'b3 b5 b7'],
  ['C5', '1 5'],
  ['C7', '3 b7'],
  ['Fm7/Bb', '4 b7'],
])('guide tones of %s are %s', (symbol, expected) =>
  expect(
    guideTones(unwrap(readChord(symbol)))
      .map((tone) => tone.interval)
      .join(' '),
  ).toBe(expected),
);

test.each([
  ['H7', 1, undefined],
  ['Cx7', 2, undefined],
  ['F7b', 3, 'F7b9'],
  ['Cmaj8', 5, undefined],
  ['C7(b9', 5, undefined],
  ['C/H', 3, 'C'],
  ['c7', 1, 'C7'],
  ['Cmin9b', 6, undefined],
  ['', 1, undefined],
])('%s is refused at column %s', (symbol, column, suggestion) => {
  const read = readChord(symbol);
  expect(read.ok).toBe(false);
  if (read.ok) return;
  expect(read.problems[0].column).toBe(column);
  if (suggestion) expect(read.problems[0].suggestion).toBe(suggestion);
  if (read.problems[0].suggestion && !['N.C.', '%'].includes(read.problems[0].suggestion))
    expect(readChord(read.problems[0].suggestion).ok).toBe(true);
});

test('whatever is typed is read or refused with a place inside it, never thrown', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 24 }), (text) => {
      const read = readChord(text);
      if (!read.ok) expect(read.problems[0].column).toBeLessThanOrEqual(text.length + 1);
    }),
  );
  const pieces = fc.constantFrom(
    'm',
    'maj',
    '7',
    '9',
    '13',
    'sus',
    'b5',
    '#9',
    '(',
    ')',
    'alt',
    '°',
    'ø',
    '/',
    'Bb',
    '+',
    '6',
    'add9',
    ',',
  );
  fc.assert(fc.property(fc.array(pieces, { maxLength: 6 }), (parts) => void readChord(`E${parts.join('')}`)));
});

// Outside check: tonal 6.4.3 (MIT), a general-purpose library. Pitch classes of the chord tones without
// tensions.
test.each([
  'maj7',
  'm7',
  '7',
  'm7b5',
  'dim7',
  'dim',
  'aug',
  'm',
  'M',
  '6',
  'm6',
  'sus4',
  'sus2',
  '7sus4',
  'mMaj7',
  '7b5',
  '7#5',
  'maj7#5',
  '5',
])('tonal agrees on %s over every root', (quality) => {
  for (const root of ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']) {
    const own = unwrap(readChord(root + quality))
      .tones.map((tone) => tone.pc)
      .sort((a, b) => a - b);
    const theirs = TonalChord.getChord(quality, root)
      .notes.map((note) => TonalNote.chroma(note)!)
      .sort((a, b) => a - b);
    expect({ root, pcs: own }).toEqual({ root, pcs: theirs });
  }
});

test('a change is a new root or a tone set neither containing nor contained', () => {
  const change = (a: string, b: string) => isChange(unwrap(readChord(a)), unwrap(readChord(b)));
  expect(change('Bb7', 'Bb13')).toBe(false);
  expect(change('C', 'C7')).toBe(false);
  expect(change('C7', 'Cm7')).toBe(true);
  expect(change('C', 'C/D')).toBe(false);
  expect(change('Fm7/Bb', 'Bb7')).toBe(true);
  expect(change('G7', 'C')).toBe(true);
});

test('intervals print by semitone: a major third makes a sharp ninth, an altered fifth keeps its name', () => {
  const over = (symbol: string, pc: number) => intervalOver(unwrap(readChord(symbol)), pc);
  expect([
    over('C7', 3),
    over('Cm7', 3),
    over('Cm7b5', 6),
    over('C7', 6),
    over('C7#5', 8),
    over('C7', 8),
    over('C°7', 9),
  ]).toEqual(['#9', 'b3', 'b5', '#11', '#5', 'b13', '6']);
});
