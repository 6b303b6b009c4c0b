import { expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { readChord, readScale } from '../music';
import { harmonyOf, readChart, timelineOf } from '../chart';
import {
  cellAt,
  heightIntent,
  landOn,
  overlayOf,
  planOf,
  PLAN_IDS,
  PLANS,
  presetsFor,
  readPlanId,
  readPlanWords,
  type PlanChoice,
} from './index';

const laid = (text: string, choice: PlanChoice) => {
  const chart = unwrap(readChart(text));
  const timeline = timelineOf(chart, 120);
  return planOf(choice, harmonyOf(chart, timeline), timeline);
};
const cells = (text: string, choice: PlanChoice) => laid(text, choice).cells;
/** Notes of a text as sorted pitch classes: `G Bb` is 7 10. */
const notes = (names: string) => pcs(names.split(' ').map((name) => unwrap(readChord(name)).tones[0]!.pc));
const pcs = (values: readonly number[]) => [...values].sort((a, b) => a - b);
const A_MINOR_PENTATONIC = unwrap(readScale('A minor pentatonic'));

// Check values of the theory page: against A minor pentatonic A7 lacks C♯, D7 F♯, E7 G♯ and B.
test('home scale and tell-tale tones: the chord tones the home scale lacks', () => {
  const plan = cells('key: A\n| A7 | D7 | E7 | Am7 |', { id: 'home-tell-tale', home: A_MINOR_PENTATONIC });
  expect(plan.map((cell) => pcs(cell.targets))).toEqual([[1], [6], [8, 11], [0, 7]]); // Am7 lacks nothing: its guide tones
  expect(pcs(plan[0]!.material)).toEqual([0, 1, 2, 4, 7, 9]);
});

test('outline, scale per chord, home scale and single target', () => {
  const text = 'key: C\n| Dm7 | G7 | C6 |';
  expect(cells(text, { id: 'outline' }).map((cell) => [pcs(cell.material), pcs(cell.targets)])).toEqual([
    [
      [0, 2, 5, 9],
      [0, 5],
    ],
    [
      [2, 5, 7, 11],
      [5, 11],
    ],
    [
      [0, 4, 7, 9],
      [4, 9],
    ],
  ]);
  expect(pcs(cells(text, { id: 'scale-per-chord' })[1]!.material)).toEqual([0, 2, 4, 5, 7, 9, 11]);
  expect(cells(text, { id: 'home-scale' }).map((cell) => pcs(cell.targets))).toEqual([
    [0, 2, 5, 9],
    [2, 5, 7, 11],
    [0, 4, 7, 9],
  ]);
  expect(cells('key: Am\n| Am |', { id: 'home-scale' })[0]!.targets).toEqual([9, 0, 4]);
  expect(cells(text, { id: 'single-target' }).map((cell) => cell.targets)).toEqual([[5], [11], [4]]);
  expect(cells('| C5 | Gsus4 |', { id: 'single-target' }).map((cell) => cell.targets)).toEqual([[0], [0]]);
});

test('over N.C. the home scale is the material and nothing is aimed at', () => {
  expect(cells('key: C\n| C | N.C. |', { id: 'outline' })[1]).toMatchObject({
    material: [0, 2, 4, 5, 7, 9, 11],
    targets: [],
  });
});

test('a plan that is none is refused with the nearest', () => {
  const read = readPlanId('outlines');
  expect(read.ok ? '' : read.problems[0].suggestion).toBe('outline');
  expect(PLAN_IDS.every((id) => readPlanId(id).ok)).toBe(true);
});

test('land on: the half step before a common tone, with where it comes from', () => {
  const aim = (from: string, to: string, targets: number[]) =>
    landOn(unwrap(readChord(from)), unwrap(readChord(to)), targets);
  expect(aim('Cm7', 'F7', [9, 3])).toEqual({
    pc: 9,
    name: 'A',
    interval: '3',
    from: { name: 'Bb', semitones: -1 },
  });
  expect(aim('Bb7', 'Eb7', [7, 1])).toMatchObject({ name: 'G', from: { name: 'Ab', semitones: -1 } });
  expect(aim('C', 'F', [])).toBeNull();
});

// Material and targets as the table of schools says them; the sets are written by hand, check values of the
// theory page among them.
test.each<[string, string, PlanChoice, number, string, string]>([
  [
    'pentatonic: G7alt takes the one on B♭',
    'key: C\n| G7alt | Cmaj7 |',
    { id: 'pentatonic-per-chord' },
    0,
    'Bb Db Eb F Ab',
    'F',
  ],
  [
    'pentatonic: Cmaj7 takes the one on E',
    'key: C\n| G7alt | Cmaj7 |',
    { id: 'pentatonic-per-chord' },
    1,
    'E G A B D',
    'E G B',
  ],
  [
    'pentatonic: Fmaj7 as IV takes the one on its third',
    'key: C\n| Cmaj7 | Fmaj7 |',
    { id: 'pentatonic-per-chord' },
    1,
    'A C D E G',
    'A C E',
  ],
  [
    'pentatonic: a m7 on its own root',
    'key: C\n| Dm7 | G7 | C6 |',
    { id: 'pentatonic-per-chord' },
    0,
    'D F G A C',
    'D F A C',
  ],
  [
    'pentatonic: a dominant on its own root',
    'key: C\n| Dm7 | G7 | C6 |',
    { id: 'pentatonic-per-chord' },
    1,
    'G A B D E',
    'G B D',
  ],
  [
    'pentatonic: Bø a minor third up',
    'key: C\n| Bm7b5 | E7 | Am |',
    { id: 'pentatonic-per-chord' },
    0,
    'D F G A C',
    'D F A',
  ],
  [
    'pentatonic: a ♭9 dominant holds no pentatonic: five tones of its own',
    'key: Fm\n| Gm7b5 | C7b9 | Fm7 |',
    { id: 'pentatonic-per-chord' },
    1,
    'C E G Bb Db',
    'C E G Bb',
  ],
  // C6 and D°7 together are C D E F G A♭ A B
  [
    'sixth-diminished: tonic',
    'key: C\n| Cmaj7 | Dm7 | G7 |',
    { id: 'sixth-diminished' },
    0,
    'C D E F G Ab A B',
    'C E G A',
  ],
  [
    'sixth-diminished: the dominant is inside the tonic’s scale',
    'key: C\n| Cmaj7 | Dm7 | G7 |',
    { id: 'sixth-diminished' },
    2,
    'C D E F G Ab A B',
    'G B D F',
  ],
  [
    'sixth-diminished: Dm7 is F6',
    'key: C\n| Cmaj7 | Dm7 | G7 |',
    { id: 'sixth-diminished' },
    1,
    'F G A Bb C Db D E',
    'F A C D',
  ],
  [
    'sixth-diminished: Bø is Dm6',
    'key: Am\n| Bm7b5 | E7 | Am6 |',
    { id: 'sixth-diminished' },
    0,
    'D E F G A Bb B C#',
    'D F A B',
  ],
  [
    'blend: both pentatonics of the tonic, the third sounding',
    'key: A\n| A7 | D7 | E7 |',
    { id: 'major-minor-blend' },
    1,
    'A B C C# D E F# G',
    'F#',
  ],
  [
    'borrowed shapes: Em7 and Am7 over Cmaj7',
    'key: C\n| Cmaj7 | G7 |',
    { id: 'borrowed-shapes' },
    0,
    'E G B D A C',
    'C E G B',
  ],
  [
    'borrowed shapes: Bø, F and G over G7',
    'key: C\n| Cmaj7 | G7 |',
    { id: 'borrowed-shapes' },
    1,
    'B D F A C G',
    'G B D F',
  ],
  // F♯7 in B minor takes B harmonic minor; C♯ø–F♯7 both fit it
  [
    'minor dominant: the dominant, raised seventh aimed at',
    'key: Bm\n| Bm7 | C#m7b5 | F#7 |',
    { id: 'minor-dominant' },
    2,
    'B C# D E F# G A#',
    'A#',
  ],
  [
    'minor dominant: its ii half-diminished',
    'key: Bm\n| Bm7 | C#m7b5 | F#7 |',
    { id: 'minor-dominant' },
    1,
    'B C# D E F# G A#',
    'E G B',
  ],
  [
    'minor dominant: elsewhere natural minor',
    'key: Bm\n| Bm7 | C#m7b5 | F#7 |',
    { id: 'minor-dominant' },
    0,
    'B C# D E F# G A',
    'D A',
  ],
  [
    'step out: anything, home to a chord tone',
    'key: C\n| G7 | C |',
    { id: 'step-out' },
    0,
    'C Db D Eb E F Gb G Ab A Bb B',
    'G B D F',
  ],
  [
    'shape and neighbours of a triad',
    'key: C\n| C | G7 |',
    { id: 'shape-neighbours' },
    0,
    'B C C# D D# E F F# G G# A',
    'C E G',
  ],
  // in a minor blues in A: D Dorian over Dm, A Dorian over Am, E Dorian over Em
  [
    'parallel mode: iv of a minor blues',
    'key: Am\nfeel: blues\n| Am7 | Dm7 | Em7 |',
    { id: 'parallel-mode' },
    1,
    'D E F G A B C',
    'F C',
  ],
  [
    'parallel mode: v of a minor blues',
    'key: Am\nfeel: blues\n| Am7 | Dm7 | Em7 |',
    { id: 'parallel-mode' },
    2,
    'E F# G A B C# D',
    'G D',
  ],
  [
    'parallel mode: one for all',
    'key: C\n| Cmaj7 | G7 |',
    { id: 'parallel-mode', mode: 'lydian' },
    0,
    'C D E F# G A B',
    'E B',
  ],
  ['by degrees: made for the i', 'key: Am\n| Am7 | Dm7 | E7 |', { id: 'by-degrees' }, 0, 'A C D F G', 'C G'],
  ['by degrees: made for the iv', 'key: Am\n| Am7 | Dm7 | E7 |', { id: 'by-degrees' }, 1, 'D F G A B', 'F'],
  [
    'by degrees: made for the V',
    'key: Am\n| Am7 | Dm7 | E7 |',
    { id: 'by-degrees' },
    2,
    'E F# G# B D',
    'G# D',
  ],
  [
    'by degrees: the player’s own, with aims',
    'key: C\n| C | G |',
    { id: 'by-degrees', degrees: '1 3 5 6', aims: ['6'] },
    1,
    'G B D E',
    'E',
  ],
  [
    'tonic = 6: the outline of a tonic major',
    'key: C\n| Cmaj7 | Fmaj7 |',
    { id: 'outline', tonicSix: true },
    0,
    'C E G A',
    'E A',
  ],
  [
    'tonic = 6 leaves other majors alone',
    'key: C\n| Cmaj7 | Fmaj7 |',
    { id: 'outline', tonicSix: true },
    1,
    'F A C E',
    'A E',
  ],
])('%s', (_, text, choice, index, material, targets) => {
  const cell = cells(text, choice)[index]!;
  expect([pcs(cell.material), pcs(cell.targets)]).toEqual([notes(material), notes(targets)]);
});

const BRIDGE = 'key: Bb\n[A]\n| Bb7 | Eb7 |\n[B]\n| Cm7 | F7 |';

test('a mixed plan: by degree, section, bars, chord and chorus; the last that fits wins', () => {
  const mixed = laid(BRIDGE, {
    id: 'outline',
    parts: [
      { where: { degree: 'I' }, plan: { id: 'major-minor-blend' } },
      { where: { section: 'B' }, plan: { id: 'scale-per-chord' } },
      { where: { chord: 'F7', bars: [4, 4] }, plan: { id: 'step-out' } },
      { where: { chorus: 2 }, plan: { id: 'home-scale' } },
    ],
  });
  expect(mixed.cells.map((cell) => cell.id)).toEqual([
    'major-minor-blend',
    'outline',
    'scale-per-chord',
    'step-out',
  ]);
  expect([0, 1, 2].map((chorus) => cellAt(mixed, 1, chorus).id)).toEqual([
    'outline',
    'home-scale',
    'outline',
  ]);
  expect(
    [0, 1, 5].map((chorus) =>
      heightIntent(laid(BRIDGE, { id: 'outline', heights: ['low', 'high'] }), chorus),
    ),
  ).toEqual(['low', 'high', 'high']);
  expect(heightIntent(mixed, 0)).toBe('ground');
});

test('overlays cover the same bars and keep the chart’s key; others are refused with the bar', () => {
  const written = unwrap(readChart('key: C\nfeel: swing\n| Dm7 | G7 | C6 | % |'));
  const laidOver = unwrap(overlayOf(written, '| Abm7 | Db7 | C6 | % |'));
  expect([laidOver.feel, laidOver.bars.map((bar) => bar.cells[0]!.chord!.symbol).join(' ')]).toEqual([
    'swing',
    'Abm7 Db7 C6 C6',
  ]);
  const short = overlayOf(written, '| Abm7 | Db7 |');
  expect(short.ok ? null : short.problems[0]).toMatchObject({ code: 'overlay.bars', bar: 3 });
  expect(overlayOf(written, '| Hm7 |').ok).toBe(false);
});

test('every school says why it is taught and what it is bad at; every form has presets that can be laid', () => {
  for (const id of PLAN_IDS)
    expect([PLANS[id].why.length > 30, PLANS[id].badAt.length > 30]).toEqual([true, true]);
  for (const text of [
    '| Bb7 | Eb7 | F7 |',
    'key: Am\nfeel: blues\n| Am7 | Dm7 |',
    '| E7 | % |',
    'key: Am\n| Am | E7 |',
    BRIDGE,
    'key: C\n| Cmaj7 | G7 |',
  ]) {
    const chart = unwrap(readChart(text));
    const timeline = timelineOf(chart, 120);
    const harmony = harmonyOf(chart, timeline);
    for (const { choice } of presetsFor(harmony))
      for (const cell of planOf(choice, harmony, timeline).cells)
        expect(cell.material.length).toBeGreaterThan(0);
  }
});

test('words beside a school are checked', () => {
  const wrong = (words: Parameters<typeof readPlanWords>[0]) => {
    const read = readPlanWords(words);
    return read.ok ? '' : read.problems[0].code;
  };
  expect([
    wrong({ degrees: '1 3 x' }),
    wrong({ mode: 'dorean' }),
    wrong({ home: 'Q minor' }),
    wrong({ degrees: '1 b3 4', mode: 'dorian', home: 'A blues' }),
  ]).toEqual(['plan.degrees', 'plan.mode', 'scale.root', '']);
});
