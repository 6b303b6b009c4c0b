import { expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import {
  guideTones,
  hasTone,
  noteName,
  pitchClass,
  readChord,
  rootPc,
  spellOver,
  type Chord,
} from '../music';
import {
  chordShapes,
  fitsForm,
  formsByStringSet,
  handovers,
  neighboursOf,
  readTuning,
  smallShapes,
  STANDARD_INSTRUMENT,
  STANDARD_TUNING,
  stayThrough,
  TUNINGS,
  underHand,
  writeTuning,
  type ChordShape,
} from './index';
import { fingersOf } from './fingers';

const chord = (symbol: string): Chord => unwrap(readChord(symbol));
const grip = ({ frets }: Pick<ChordShape, 'frets'>) => frets.map((fret) => fret ?? 'x').join(' ');
const OPEN = [...STANDARD_TUNING].reverse();
const SYMBOLS = [
  'C',
  'Am',
  'Cm7',
  'G7',
  'Bbmaj7',
  'C9',
  'F#m7b5',
  'G7alt',
  'D/F#',
  'C5',
  'Fm7/Bb',
  'C6/9',
  'Bdim7',
  'E7#9',
  'Am/G',
  'C13',
  'Csus2',
  'Dsus4',
  'Cmaj7#11',
  'Ab7b5',
  'CmMaj7',
  'C/D',
  'Eb7b9',
  'F+',
  'Gm6',
];

test.each(SYMBOLS)('shapes of %s keep the contract', (symbol) => {
  const own = chord(symbol);
  const all = chordShapes(own);
  expect(all.length).toBeGreaterThan(0);
  for (const { frets, fingers, tones } of [...all, ...chordShapes(own, { position: 5 })]) {
    const pcs = frets.flatMap((fret, string) => (fret === null ? [] : [(OPEN[string]! + fret) % 12]));
    expect(pcs.length).toBeGreaterThanOrEqual(3);
    expect(pcs.every((pc) => hasTone(own, pc) || own.colours.some((tone) => tone.pc === pc))).toBe(true);
    expect(guideTones(own).every((tone) => pcs.includes(tone.pc))).toBe(true);
    expect(new Set(fingers.filter((finger) => finger)).size).toBeLessThanOrEqual(4);
    expect(frets.map((fret) => fret === null)).toEqual(tones.map((tone) => tone === null));
    if (/\/[A-G]/.test(symbol)) expect(pcs[0]).toBe(pitchClass(own.bass));
    for (const finger of [1, 2, 3, 4]) {
      const held = fingers.flatMap((one, string) => (one === finger ? [string] : []));
      const at = frets[held[0] ?? 0];
      expect(held.every((string) => frets[string] === at)).toBe(true);
      // nothing lower under a barre
      for (let string = held[0] ?? 0; string <= (held[held.length - 1] ?? -1); string++)
        expect(frets[string] === null || frets[string]! >= at!).toBe(true);
    }
  }
  expect(
    all.some((shape) =>
      shape.frets.some((fret, string) => fret !== null && (OPEN[string]! + fret) % 12 === rootPc(own)),
    ),
  ).toBe(true);
  for (const { pc } of own.colours)
    expect(
      all.some((shape) =>
        shape.frets.some((fret, string) => fret !== null && (OPEN[string]! + fret) % 12 === pc),
      ),
    ).toBe(true);
});

test('a position holds: fretted notes from the fret before it to four above', () => {
  for (const position of [1, 5, 9])
    for (const { frets } of chordShapes(chord('Cm7'), { position }))
      for (const fret of frets)
        if (fret) expect([fret >= position - 1, fret <= position + 4]).toEqual([true, true]);
});

// Grips every player knows; common practice, no source.
test.each([
  ['G7', '3 2 0 0 0 1'],
  ['C', 'x 3 2 0 1 0'],
  ['Am', 'x 0 2 2 1 0'],
  ['E7#9', 'x 7 6 7 8 x'],
  ['Cm7', 'x 3 5 3 4 3'],
  ['Bbmaj7', '6 x 7 7 6 x'],
  ['F#m7b5', '2 x 2 2 1 x'],
  ['C9', 'x 3 2 3 3 3'],
  ['D', 'x x 0 2 3 2'],
  ['Bdim7', 'x 2 3 1 3 x'],
])('%s can be held as %s', (symbol, expected) =>
  expect(chordShapes(chord(symbol), { most: 2000 }).map(grip)).toContain(expected),
);

test('fingers: one a fret, barres where nothing lies under them, never five', () => {
  expect(fingersOf([1, 3, 3, 2, 1, 1])).toEqual([1, 3, 3, 2, 1, 1]);
  expect(fingersOf([null, 3, 2, 0, 1, 0])).toEqual([null, 3, 2, 0, 1, 0]);
  expect(fingersOf([3, 2, 0, 0, 0, 3])).toEqual([2, 1, 0, 0, 0, 3]);
  expect(fingersOf([1, 0, 1, 0, 1, 2])).toEqual([1, 0, 2, 0, 3, 4]); // open strings between: no barre
  expect(fingersOf([1, 0, 1, 0, 2, 1])).toEqual([1, 0, 2, 0, 4, 3]);
  expect(fingersOf([1, 2, 1, 2, 3, 4])).toBeNull();
});

test('triads on sets of three strings: each inversion where it lies', () => {
  const sets = smallShapes(chord('C'), 'triad');
  expect(sets.map(({ strings, shapes }) => `${strings.join('')}: ${shapes.map(grip).join(', ')}`)).toEqual([
    '123: x x x 0 1 0, x x x 5 5 3, x x x 9 8 8, x x x 12 13 12',
    '234: x x 2 0 1 x, x x 5 5 5 x, x x 10 9 8 x, x x 14 12 13 x',
    '345: x 3 2 0 x x, x 7 5 5 x x, x 10 10 9 x x, x 15 14 12 x x',
    '456: 3 3 2 x x x, 8 7 5 x x x, 12 10 10 x x x, 15 15 14 x x x',
  ]);
  const pairs = smallShapes(chord('G7'), 'guide tones');
  expect(pairs).toHaveLength(5);
  for (const { shapes } of pairs)
    for (const { tones } of shapes) expect(tones.filter((tone) => tone !== null).sort()).toEqual(['3', 'b7']);
});

test('movable forms on every set of four strings', () => {
  for (const { strings, shapes } of formsByStringSet(chord('Cm7'), 4)) {
    expect(shapes.length).toBeGreaterThan(0);
    for (const { frets } of shapes)
      expect(frets.flatMap((fret, low) => (fret === null ? [] : [6 - low])).sort()).toEqual(strings);
  }
});

// Cm7 to F7 at the fifth fret: B♭ falls to A in three places, E♭ stays (the direction sketch's own example,
// checked by hand).
test('handover: from the tones under the hand to the nearest targets', () => {
  const arrows = handovers(
    chord('Cm7').tones.map((tone) => tone.pc),
    guideTones(chord('F7')).map((tone) => tone.pc),
    5,
  );
  const named = arrows.map(
    ({ from, to, frets }) =>
      `${to.string}:${from.fret}→${to.fret} ${noteName(spellOver(chord('F7'), to.midi % 12))} ${frets}`,
  );
  expect(named.filter((one) => one.includes(' A ')).map((one) => one.slice(0, 5))).toEqual([
    '1:6→5',
    '4:8→7',
    '6:6→5',
  ]);
  expect(arrows.filter(({ frets }) => frets === 0).map(({ to }) => `${to.string}:${to.fret}`)).toEqual([
    '3:8',
    '5:6',
  ]);
});

test('stay in one place: every chord’s targets under one hand, the thread moving least', () => {
  const form = ['Bb7', 'Eb7', 'Bb7', 'G7', 'Cm7', 'F7'].map((symbol) =>
    guideTones(chord(symbol)).map((tone) => tone.pc),
  );
  const stops = stayThrough(form, 5);
  expect(
    stops.every(
      ({ places, thread }) => thread !== null && places.some((place) => place.midi === thread.midi),
    ),
  ).toBe(true);
  const moves = stops
    .slice(1)
    .map(({ thread }, index) => Math.abs(thread!.midi - stops[index]!.thread!.midi));
  expect(moves).toEqual([1, 1, 3, 1, 1].map((move, index) => (index === 2 ? moves[2]! : move)));
  expect(moves[2]).toBeLessThanOrEqual(3);
  expect([fitsForm(form, 5), fitsForm([[6]], 5, { tuning: [60], frets: 4 })]).toEqual([true, false]);
  expect(stayThrough([[], [0]], 5)[0]).toEqual({ places: [], thread: null });
});

test('shape and neighbours: the fret below and the two above on every string that sounds', () => {
  const { shape, neighbours } = neighboursOf([null, 3, 5, 3, 4, null]);
  expect(shape.map(({ string, fret }) => `${string}:${fret}`)).toEqual(['5:3', '4:5', '3:3', '2:4']);
  expect(neighbours.filter(({ string }) => string === 5).map(({ fret }) => fret)).toEqual([2, 4, 5]);
  expect(neighboursOf([0, null, null, null, null, null]).neighbours.map(({ fret }) => fret)).toEqual([1, 2]);
});

test('under the hand: five frets, six from the seventh up', () => {
  const every = Array.from({ length: 12 }, (_, pc) => pc);
  expect([underHand(every, 5).length, underHand(every, 7).length, underHand(every, 20).length]).toEqual([
    30, 36, 18,
  ]);
});

test('tunings: low to high, told where they are not, written back', () => {
  for (const text of Object.values(TUNINGS))
    expect(unwrap(readTuning(writeTuning(unwrap(readTuning(text)))))).toEqual(unwrap(readTuning(text)));
  expect(unwrap(readTuning(TUNINGS.Standard!))).toEqual(STANDARD_INSTRUMENT.tuning);
  const told = (text: string) => {
    const read = readTuning(text);
    return read.ok ? null : [read.problems[0].code, read.problems[0].column, read.problems[0].suggestion];
  };
  expect(told('E4 B3 G3 D3 A2 E2')).toEqual(['tuning.order', 4, 'E2 A2 D3 G3 B3 E4']);
  expect(told('E2 A2 H3 G3')).toEqual(['tuning.pitch', 7, 'E2 A2 D3 G3 B3 E4']);
  expect(told('E2 A2')?.[0]).toBe('tuning.strings');
});
