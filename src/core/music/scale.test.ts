import { expect, test } from '@jest/globals';
import { Note as TonalNote, Scale as TonalScale } from 'tonal';
import { unwrap } from '../shared';
import { isAdjacentIn, noteName, readKey, readScale, scaleNotes } from './index';

const names = (text: string): string =>
  scaleNotes(unwrap(readScale(text)))
    .map(noteName)
    .join(' ');

// Check values of the theory page: common practice, no source.
test.each([
  ['F melodic minor', 'F G Ab Bb C D E'],
  ['Bb blues scale', 'Bb Db Eb Fb F Ab'],
  ['C major sixth-diminished', 'C D E F G Ab A B'],
  ['A dorian', 'A B C D E F# G'],
  ['B harmonic minor', 'B C# D E F# G A#'],
  ['fifth mode of C harmonic minor', 'G Ab B C D Eb F'],
  ['G phrygian dominant', 'G Ab B C D Eb F'],
  ['A minor pentatonic', 'A C D E G'],
  ['A 1 b3 4 5 b7', 'A C D E G'],
  ['a minor', 'A B C D E F G'],
  ['G altered', 'G Ab A# B C# Eb F'],
  ['Gb major', 'Gb Ab Bb Cb Db Eb F'],
  ['C whole-half diminished', 'C D Eb F Gb Ab A B'],
])('%s is %s', (text, expected) => expect(names(text)).toBe(expected));

// T16.1
test('check values that tie scales together', () => {
  const pcs = (text: string) => [...unwrap(readScale(text)).pcs].sort((a, b) => a - b);
  expect(pcs('C major pentatonic')).toEqual(pcs('A minor pentatonic')); // the minor pentatonic's shape three frets lower
  expect(pcs('D major')).toEqual(pcs('A mixolydian'));
  expect(pcs('D major')).toEqual(pcs('G lydian'));
  const g7alt = pcs('G altered');
  expect(pcs('Bb minor pentatonic').every((pc) => g7alt.includes(pc))).toBe(true);
});

// Outside check: tonal 6.4.3 (MIT). Its names beside ours; "blues" there is the minor blues scale.
test.each([
  ['major', 'major'],
  ['dorian', 'dorian'],
  ['phrygian', 'phrygian'],
  ['lydian', 'lydian'],
  ['mixolydian', 'mixolydian'],
  ['natural minor', 'aeolian'],
  ['locrian', 'locrian'],
  ['harmonic minor', 'harmonic minor'],
  ['melodic minor', 'melodic minor'],
  ['harmonic major', 'harmonic major'],
  ['lydian augmented', 'lydian augmented'],
  ['lydian dominant', 'lydian dominant'],
  ['mixolydian b6', 'mixolydian b6'],
  ['fifth mode of harmonic minor', 'phrygian dominant'],
  ['altered', 'altered'],
  ['whole tone', 'whole tone'],
  ['half-whole diminished', 'half-whole diminished'],
  ['whole-half diminished', 'diminished'],
  ['major pentatonic', 'major pentatonic'],
  ['minor pentatonic', 'minor pentatonic'],
  ['blues', 'minor blues'],
  ['major blues', 'major blues'],
  ['locrian natural 2', 'locrian #2'],
  ['chromatic', 'chromatic'],
  ['dorian b2', 'dorian b2'],
  ['dorian #4', 'dorian #4'],
  ['locrian natural 6', 'locrian 6'],
  ['lydian #2', 'lydian #9'],
  ['major #5', 'ionian augmented'],
])('tonal agrees on %s over every root', (own, theirs) => {
  for (const root of ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']) {
    const expected = TonalScale.get(`${root} ${theirs}`)
      .notes.map((note) => TonalNote.chroma(note)!)
      .sort((a, b) => a - b);
    expect(expected.length).toBeGreaterThan(4);
    expect([...unwrap(readScale(`${root} ${own}`)).pcs].sort((a, b) => a - b)).toEqual(expected);
  }
});

test.each([
  ['F melodik minor', 'F melodic minor'],
  ['F', 'F major'],
  ['X major', 'C major'],
  ['C 1 b3 99', 'C 1 b3 4 5 6'],
])('%s is refused and %s offered', (text, suggestion) => {
  const read = readScale(text);
  expect(read.ok ? null : read.problems[0].suggestion).toBe(suggestion);
});

test('adjacent tones of a scale wrap round the octave', () => {
  const home = unwrap(readScale('A minor pentatonic'));
  expect([
    isAdjacentIn(home, 9, 0),
    isAdjacentIn(home, 7, 9),
    isAdjacentIn(home, 9, 2),
    isAdjacentIn(home, 9, 10),
  ]).toEqual([true, true, false, false]);
});

test.each([
  ['Bb', 'Bb', false],
  ['F#m', 'F#', true],
  ['C minor', 'C', true],
  ['D maj', 'D', false],
  ['E min', 'E', true],
])('key %s', (text, tonic, minor) => {
  const key = unwrap(readKey(text));
  expect([noteName(key.tonic), key.minor]).toEqual([tonic, minor]);
});

test('a key that is none is refused', () => expect(readKey('H dur').ok).toBe(false));
