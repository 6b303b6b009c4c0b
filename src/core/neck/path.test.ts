import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { unwrap, seededRandom } from '../shared';
import {
  bothWays,
  pathOf,
  readTuning,
  STANDARD_INSTRUMENT,
  STANDARD_TUNING,
  withCapo,
  type NeckNote,
  type Touch,
} from './index';

const line = (...midi: number[]): NeckNote[] =>
  midi.map((one, index) => ({ onsetBeat: index / 2, durationBeats: 0.5, midi: one }));
const show = (path: readonly Touch[]) =>
  path.map(({ string, fret, finger }) => `${string}:${fret}/${finger}`).join(' ');

// Worked by hand on a guitar; common practice, no source. string:fret/finger.
test.each<[string, number[], number, string]>([
  [
    'C major from the third fret of the fifth string, open strings',
    [48, 50, 52, 53, 55, 57, 59, 60],
    0,
    '5:3/2 4:0/0 4:2/1 4:3/2 3:0/0 3:2/1 3:4/3 3:5/4',
  ],
  [
    'A minor pentatonic at the fifth fret',
    [45, 48, 50, 52, 55, 57, 60, 62, 64, 67, 69, 72],
    0,
    '6:5/1 6:8/4 5:5/1 5:7/3 4:5/1 4:7/3 3:5/1 3:7/3 2:5/1 2:8/4 1:5/1 1:8/4',
  ],
  [
    'G major over two octaves and a third at the third fret',
    [43, 45, 47, 48, 50, 52, 54, 55, 57, 59, 60, 62, 64, 66, 67, 69, 71],
    0,
    '6:3/1 6:5/2 6:7/4 5:3/1 5:5/2 5:7/4 4:4/1 4:5/2 4:7/4 3:4/1 3:5/2 3:7/4 2:5/2 2:7/4 1:3/1 1:5/2 1:7/4',
  ],
  ['chromatic from the open sixth string', [40, 41, 42, 43, 44], 0, '6:0/0 6:1/1 6:2/2 6:3/3 6:4/4'],
  ['one open string', [55], 0, '3:0/0'],
  ['the top of the neck', [84, 86], 0, '1:20/1 1:22/3'],
  [
    'E minor pentatonic with open strings',
    [40, 43, 45, 47, 50, 52, 55, 57, 59, 62, 64, 67],
    0,
    '6:0/0 6:3/3 5:0/0 5:2/2 4:0/0 4:2/2 3:0/0 3:2/2 2:0/0 2:3/3 1:0/0 1:3/3',
  ],
  [
    'C major arpeggio over two octaves: one hand at the seventh fret, no open strings between',
    [48, 52, 55, 60, 64, 67, 72],
    0,
    '6:8/2 5:7/1 5:10/4 4:10/4 3:9/3 2:8/2 1:8/2',
  ],
  [
    'B♭ blues from the first fret',
    [46, 49, 51, 52, 53, 56, 58],
    0,
    '5:1/1 5:4/4 4:1/1 4:2/2 4:3/3 3:1/1 3:3/3',
  ],
  [
    'chromatic, a finger a fret',
    [57, 58, 59, 60, 61, 62, 63, 64],
    0,
    '3:2/1 3:3/2 3:4/3 3:5/4 2:2/1 2:3/2 2:4/3 2:5/4',
  ],
  [
    'A major from the open fifth string',
    [45, 47, 49, 50, 52, 54, 56, 57],
    0,
    '5:0/0 5:2/2 5:4/4 4:0/0 4:2/2 4:4/4 3:1/1 3:2/2',
  ],
  [
    'E minor pentatonic at the ninth fret',
    [64, 67, 69, 71, 74, 76],
    0,
    '3:9/1 3:12/4 2:10/2 2:12/4 1:10/2 1:12/4',
  ],
  ['up one string from the open note', [55, 57, 59], 0, '3:0/0 3:2/2 3:4/4'],
  ['octaves across a string', [45, 57, 47, 59], 0, '5:0/0 3:2/2 5:2/2 3:4/4'],
  [
    'A major high up',
    [69, 71, 73, 74, 76, 78, 80, 81],
    0,
    '3:14/1 3:16/3 2:14/1 2:15/2 2:17/4 1:14/1 1:16/3 1:17/4',
  ],
  [
    'D Dorian from the open fourth string',
    [50, 52, 53, 55, 57, 59, 60, 62],
    0,
    '4:0/0 4:2/2 4:3/3 3:0/0 3:2/2 2:0/0 2:1/1 2:3/3',
  ],
  ['one note again and again', [64, 64, 64], 0, '1:0/0 1:0/0 1:0/0'],
  [
    'F major in the first position',
    [41, 43, 45, 46, 48, 50, 52, 53],
    0,
    '6:1/1 6:3/3 5:0/0 5:1/1 5:3/3 4:0/0 4:2/2 4:3/3',
  ],
  ['an enclosure of C', [62, 59, 60], 0, '2:3/3 2:0/0 2:1/1'],
  ['lowest to highest and back moves twice', [40, 76, 41, 86], 2, '6:0/0 1:12/4 6:1/1 1:22/4'],
])('%s', (_, midi, shifts, expected) => {
  const { path, shifts: moved } = unwrap(pathOf(line(...midi)));
  expect([moved, show(path)]).toEqual([shifts, expected]);
});

test('pins: string, fret and finger hold, the rest follows', () => {
  const start = (string: number, finger: number) => {
    const [first, ...rest] = line(60, 62, 64, 65);
    return show(unwrap(pathOf([{ ...first!, string, finger }, ...rest])).path);
  };
  // start with the index on the third string: up the fifth position; with the third finger: down to the
  // open strings' side
  expect(start(3, 1)).toBe('3:5/1 3:7/3 2:5/1 2:6/2');
  expect(start(3, 4).startsWith('3:5/4')).toBe(true);
  expect(start(5, 1).startsWith('5:15/1')).toBe(true);
  expect(show(unwrap(pathOf([{ onsetBeat: 0, midi: 64, fret: 9 }])).path)).toBe('3:9/1');
});

test('a pin that sounds another pitch and a pitch no string reaches are told with their note', () => {
  const told = (notes: NeckNote[]) => {
    const read = pathOf(notes);
    return read.ok ? null : [read.problems[0].code, read.problems[0].path, read.problems[0].suggestion];
  };
  expect(told([{ onsetBeat: 0, midi: 60, string: 3, fret: 4 }])).toEqual([
    'neck.pin',
    'notes.0',
    'string 2, fret 1; or string 3, fret 5; or string 4, fret 10; or string 5, fret 15; or string 6, fret 20',
  ]);
  expect(told(line(60, 30))?.slice(0, 2)).toEqual(['neck.range', 'notes.1.midi']);
  expect(told(line(87))?.[0]).toBe('neck.range');
  expect(told([{ onsetBeat: 0, midi: 61, finger: 0 }])?.[0]).toBe('neck.pin');
});

test('a twin without a shift is offered where the pitches fit one place, pins aside', () => {
  const pinned: NeckNote[] = [
    { onsetBeat: 0, midi: 64, string: 1 },
    { onsetBeat: 1, midi: 67, string: 3, fret: 12 },
  ];
  const { shifts, noShift } = unwrap(pathOf(pinned));
  expect([shifts, noShift && noShift.length]).toEqual([0, undefined]); // the open first string belongs to every place
  const moved = unwrap(
    pathOf([
      { onsetBeat: 0, midi: 65, string: 1 },
      { onsetBeat: 1, midi: 67, string: 3 },
    ]),
  );
  expect([moved.shifts, moved.noShift?.length]).toEqual([1, 2]);
  expect(unwrap(pathOf(line(41, 86))).noShift).toBeUndefined();
});

test('notes of one onset get strings of their own', () => {
  const chord = [48, 52, 55, 60].map((midi) => ({ onsetBeat: 0, midi }));
  const { path } = unwrap(pathOf(chord));
  expect(new Set(path.map((touch) => touch.string)).size).toBe(4);
  // no hand strikes these at once: one after the other
  expect(
    unwrap(
      pathOf([
        { onsetBeat: 0, midi: 41 },
        { onsetBeat: 0, midi: 86 },
      ]),
    ).shifts,
  ).toBe(1);
});

test('shift or stretch: two answers where the hand must do one', () => {
  const none = unwrap(bothWays(line(60, 62, 64, 65)));
  expect([none.stretching.shifts, none.shifting]).toEqual([0, null]);
  // three notes a string in whole steps: reach five frets, or move up by two
  const whole = line(43, 45, 47, 48, 50, 52).map((note, index) => ({ ...note, string: index < 3 ? 6 : 5 }));
  const { stretching, shifting } = unwrap(bothWays(whole));
  expect([stretching.shifts, show(stretching.path)]).toEqual([0, '6:3/1 6:5/2 6:7/4 5:3/1 5:5/2 5:7/4']);
  expect([shifting!.shifts > 0, runsOf(shifting!.path) - 1 <= shifting!.shifts]).toEqual([true, true]);
});

/** A slow plain reference: the fewest runs, taken greedily, each of which fits some window of frets. */
function fewestRuns(midi: readonly number[], tuning = STANDARD_TUNING): number {
  const fits = (from: number, to: number) =>
    Array.from({ length: 22 }, (_, index) => index + 1).some((low) =>
      midi
        .slice(from, to)
        .every((pitch) =>
          tuning.some(
            (open) =>
              pitch === open ||
              (pitch - open >= low && pitch - open <= Math.min(22, low + (low >= 7 ? 5 : 4))),
          ),
        ),
    );
  let runs = 0;
  for (let from = 0; from < midi.length;) {
    let to = from + 1;
    while (to < midi.length && fits(from, to + 1)) to++;
    runs++;
    from = to;
  }
  return runs;
}

/** Runs of a printed path by the contract's own words. */
function runsOf(path: readonly Touch[]): number {
  const together = (run: readonly Touch[]) => {
    const fretted = run.filter((touch) => touch.fret > 0);
    const [low, high] = [Math.min(...fretted.map((t) => t.fret)), Math.max(...fretted.map((t) => t.fret))];
    if (fretted.length > 0 && high - low + 1 > (low >= 7 ? 6 : 5)) return false;
    return fretted.every((a) =>
      fretted.every(
        (b) =>
          !(a.fret < b.fret && a.finger > b.finger) &&
          !(a.finger === b.finger && Math.abs(a.fret - b.fret) > 1),
      ),
    );
  };
  let runs = 0;
  for (let from = 0; from < path.length;) {
    let to = from + 1;
    while (to < path.length && together(path.slice(from, to + 1))) to++;
    runs++;
    from = to;
  }
  return runs;
}

test('10,000 random lines: every note on the neck and in tune, no impossible stretch, shifts counted right and as few as there can be', () => {
  const random = seededRandom(11);
  for (let round = 0; round < 10_000; round++) {
    const midi = Array.from({ length: 2 + Math.floor(random() * 6) }, () => 40 + Math.floor(random() * 47));
    const { path, shifts } = unwrap(pathOf(line(...midi)));
    path.forEach(({ string, fret, finger }, index) => {
      if (
        STANDARD_TUNING[string - 1]! + fret !== midi[index] ||
        fret < 0 ||
        fret > 22 ||
        (fret === 0) !== (finger === 0)
      )
        throw new Error(`${midi.join(' ')}: ${show(path)}`);
    });
    if (runsOf(path) - 1 !== shifts || fewestRuns(midi) - 1 !== shifts)
      throw new Error(
        `${midi.join(' ')}: ${shifts} shifts, ${runsOf(path)} runs, ${fewestRuns(midi)} at least: ${show(path)}`,
      );
  }
});

/** By trying everything: the fewest runs of a line with pinned fingers. */
function fewestPinned(notes: readonly NeckNote[]): number {
  const touches = notes.map((note) =>
    STANDARD_TUNING.flatMap((open, index) => {
      const fret = note.midi - open;
      if (fret < 0 || fret > 22 || (note.string !== undefined && note.string !== index + 1)) return [];
      return (fret === 0 ? [0] : [1, 2, 3, 4])
        .filter((finger) => note.finger === undefined || note.finger === finger)
        .map((finger) => ({ string: index + 1, fret, finger }));
    }),
  );
  const all = touches.reduce<Touch[][]>(
    (paths, choices) => paths.flatMap((path) => choices.map((touch) => [...path, touch])),
    [[]],
  );
  return Math.min(...all.map(runsOf));
}

test('pinned fingers: as few shifts as trying everything finds', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          midi: fc.integer({ min: 52, max: 72 }),
          finger: fc.option(fc.integer({ min: 1, max: 4 }), { nil: undefined }),
        }),
        { minLength: 2, maxLength: 3 },
      ),
      (drawn) => {
        const notes = drawn.map(({ midi, finger }, index) => ({
          onsetBeat: index,
          midi,
          ...(finger === undefined ? {} : { finger }),
        }));
        const found = pathOf(notes);
        if (!found.ok) return;
        expect(runsOf(found.value.path) - 1).toBe(found.value.shifts);
        expect(found.value.shifts).toBe(fewestPinned(notes) - 1);
      },
    ),
    { numRuns: 60, seed: 5 },
  );
});

test('any tuning, any number of strings, with a capo', () => {
  const seven = { tuning: unwrap(readTuning('B1 E2 A2 D3 G3 B3 E4')), frets: 24 };
  expect(show(unwrap(pathOf(line(35, 37), { instrument: seven })).path)).toBe('7:0/0 7:2/2');
  expect(pathOf(line(40), { instrument: withCapo(STANDARD_INSTRUMENT, 2) }).ok).toBe(false);
  expect(show(unwrap(pathOf(line(42, 45), { instrument: withCapo(STANDARD_INSTRUMENT, 2) })).path)).toBe(
    '6:0/0 6:3/3',
  );
});

describe('notes struck together', () => {
  const together = (...pitches: number[]) => pitches.map((midi) => ({ onsetBeat: 0, midi }));

  test('have a string each, though no hand reaches them all at once', () => {
    const { path } = unwrap(pathOf(together(41, 48, 72)));
    expect(new Set(path.map(({ string }) => string)).size).toBe(3);
  });

  test('have a string each wherever there are strings for them', () => {
    const random = seededRandom(4);
    for (let round = 0; round < 300; round++) {
      const pitches = Array.from(
        { length: 2 + Math.floor(random() * 4) },
        () => 40 + Math.floor(random() * 47),
      );
      const { path } = unwrap(pathOf(together(...pitches)));
      const strings = path.map(({ string }) => string);
      expect([pitches, new Set(strings).size === strings.length || !canBeApart(pitches)]).toEqual([
        pitches,
        true,
      ]);
      expect(path.map(({ string, fret }) => STANDARD_TUNING[string - 1]! + fret)).toEqual(pitches);
    }
  });

  /** Is there a string for each? Every order of strings is tried. */
  function canBeApart(pitches: readonly number[], taken: readonly number[] = []): boolean {
    const [midi, ...rest] = pitches;
    if (midi === undefined) return true;
    return STANDARD_TUNING.some(
      (open, index) =>
        !taken.includes(index) && midi >= open && midi - open <= 22 && canBeApart(rest, [...taken, index]),
    );
  }
});

test('where the player has the hand is where the line lies, as far as it can be reached; shifts are still counted', () => {
  const scale = line(60, 62, 64, 65, 67, 69, 71, 72);
  const at = (position: number) => unwrap(pathOf(scale.map((note) => ({ ...note, position }))));
  const handOf = ({ fret, finger }: Touch) => (finger === 0 ? 0 : fret - finger + 1);
  for (const position of [5, 7, 8, 12]) {
    const { path, shifts } = at(position);
    expect(shifts).toBe(0);
    for (const touch of path)
      expect([position, Math.abs(handOf(touch) - position) <= 1]).toEqual([position, true]);
  }
  // one half here and one half there: one shift, wherever the whole would lie
  const halves = unwrap(pathOf(scale.map((note, index) => ({ ...note, position: index < 4 ? 10 : 5 }))));
  expect(halves.shifts).toBe(1);
  expect(halves.path.map(({ fret }, index) => (index < 4 ? fret >= 9 : fret <= 10))).toEqual(
    scale.map(() => true),
  );
  // a low string's note cannot be had at the twelfth fret: it is played where it is
  const low = unwrap(pathOf([{ onsetBeat: 0, midi: 41, position: 12 }]));
  expect(low.path).toMatchObject([{ string: 6, fret: 1 }]);
});

test('a note that is hammered on or pulled off lies on the string of the one before, though the hand must move', () => {
  // a trill of B and C, and a run of fourths that nobody would play along one string unasked
  for (const pitches of [
    [59, 60, 59, 60],
    [57, 62, 57],
    [64, 69, 64],
    [52, 55, 52, 50],
  ]) {
    const slurred = unwrap(
      pathOf(line(...pitches).map((note, index) => ({ ...note, slurred: index > 0 }))),
    ).path;
    expect([pitches, new Set(slurred.map(({ string }) => string)).size]).toEqual([pitches, 1]);
  }
  const apart = unwrap(pathOf(line(57, 62, 57))).path;
  expect(new Set(apart.map(({ string }) => string)).size).toBe(2);
  // no string holds both: they are still found
  expect(unwrap(pathOf([...line(40, 86)].map((note) => ({ ...note, slurred: true })))).path).toHaveLength(2);
});
