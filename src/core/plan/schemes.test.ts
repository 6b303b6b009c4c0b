import { expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { LIBRARY, readChart, timelineOf } from '../chart';
import { scaleOn } from '../music';
import {
  cellAt,
  clashesOf,
  homeGridOf,
  misplacedParts,
  PLAN_IDS,
  planFromWords,
  planOn,
  readPlan,
  readPlanPart,
  type PlanWords,
} from './index';

const chartOf = (text: string) => {
  const chart = unwrap(readChart(text));
  return { chart, timeline: timelineOf(chart, 100) };
};
const withParts = (words: PlanWords, ...parts: string[]): PlanWords => ({
  ...words,
  parts: parts.map((text) => unwrap(readPlanPart(text))),
});

/** What is played over each chord, in chart order: `E7: E G G# A B D > G#`. */
function played(text: string, words: PlanWords, chorus = 0): string[] {
  const { chart, timeline } = chartOf(text);
  return readPlan(chart, timeline, unwrap(planFromWords(words)), chorus).map(
    ({ reading, plays, targets }) =>
      `${reading.chord.symbol}: ${plays.map(({ name }) => name).join(' ')} > ${targets.map(({ name }) => name).join(' ')}`,
  );
}

const BLUES = 'key: A\nfeel: blues\n| A7 | D7 | A7 | E7 |\n';
const MINOR_BLUES = 'key: Cm\nfeel: blues\n| Cm7 | Fm7 | Cm7 | Gm7 |\n';

// Ten ways of playing as teachers give them. Common practice, no source; notes worked out by hand.
test('one pentatonic throughout a blues, and the third that each chord has beside it', () =>
  expect(played(`home: A minor pentatonic\n${BLUES}`, { id: 'home-tell-tale' })).toEqual([
    'A7: A C C# D E G > C#',
    'D7: D E F# G A C > F#',
    'A7: A C C# D E G > C#',
    'E7: E G G# A B C D > G# B',
  ]));

test('minor pentatonic on i, natural minor of each chord elsewhere, pentatonic again on iv', () =>
  expect(
    played(
      'key: Am\n| Am7 | Em7 | Dm7 |\n',
      withParts(
        { id: 'parallel-mode', mode: 'natural minor' },
        'every i: home-scale; home=A minor pentatonic',
        'every iv: home-scale; home=D minor pentatonic',
      ),
    ),
  ).toEqual(['Am7: A C D E G > A C E G', 'Em7: E F# G A B C D > G D', 'Dm7: D F G A C > D F A C']));

test('true Dorian on each chord of a minor blues', () =>
  expect(played(MINOR_BLUES, { id: 'parallel-mode', mode: 'dorian' })).toEqual([
    'Cm7: C D Eb F G A Bb > Eb Bb',
    'Fm7: F G Ab Bb C D Eb > Ab Eb',
    'Cm7: C D Eb F G A Bb > Eb Bb',
    'Gm7: G A Bb C D E F > Bb F',
  ]));

test('natural minor, and harmonic minor where the V or the iiø–V sounds', () =>
  expect(played('key: Am\n| Am7 | Bm7b5 | E7 | Dm7 |\n', { id: 'minor-dominant' })).toEqual([
    'Am7: A B C D E F G > C G',
    'Bm7b5: B C D E F G# A > D F A',
    'E7: E F G# A B C D > G#',
    'Dm7: D E F G A B C > F C',
  ]));

test('blend of minor and major pentatonic on I alone, chord tones elsewhere', () =>
  expect(played(BLUES, withParts({ id: 'outline' }, 'every I: major-minor-blend'))).toEqual([
    'A7: A B C C# D E F# G > C#',
    'D7: D F# A C > F# C',
    'A7: A B C C# D E F# G > C#',
    'E7: E G# B D > G# D',
  ]));

test('each chorus by another school: chord tones, one pentatonic, superimposed changes, free', () => {
  const words = withParts(
    { id: 'outline', overlay: '| A7 | Ab7 | A7 | Bb7 |' },
    'chorus 2: home-scale; home=A minor pentatonic',
    'chorus 3: superimposed',
    'chorus 4: free',
  );
  expect(played(BLUES, words, 0)[1]).toBe('D7: D F# A C > F# C');
  expect(played(BLUES, words, 1)[1]).toBe('D7: D E G A C > D A C');
  // over D7 the line follows Ab7
  expect(played(BLUES, words, 2)[1]).toMatch(/ > F# C$/);
  expect(played(BLUES, words, 2)[3]).toMatch(/> .*G#/);
  const { chart, timeline } = chartOf(BLUES);
  expect(cellAt(planOn(chart, timeline, unwrap(planFromWords(words))).plan, 1, 3).material).toHaveLength(12);
});

test('a pentatonic for each chord of a ii–V–I: on the fifth, and a half step up on the altered V', () =>
  expect(
    played(
      'key: C\n| Dm7 | G7alt | Cmaj7 |\n',
      withParts(
        { id: 'outline' },
        'every ii: home-scale; home=A minor pentatonic',
        'every V: home-scale; home=Ab minor pentatonic',
        'every I: home-scale; home=E minor pentatonic',
      ),
    ),
  ).toEqual(['Dm7: D E G A C > D A C', 'G7alt: Ab B Db Eb Gb > B', 'Cmaj7: D E G A B > E G B']));

test('sixth-diminished, the tonic as a sixth chord', () =>
  expect(played('key: C\n| Cmaj7 | G7 |\n', { id: 'sixth-diminished' })).toEqual([
    'Cmaj7: C D E F G Ab A B > C E G A',
    'G7: G Ab A B C D E F > G B D F',
  ]));

test('Lydian on every tonic major seventh', () =>
  expect(played('key: C\nhome: C lydian\n| Cmaj7 | G7 | Cmaj7 |\n', { id: 'scale-per-chord' })).toEqual([
    'Cmaj7: C D E F# G A B > E B',
    'G7: G A B C D E F > B F',
    'Cmaj7: C D E F# G A B > E B',
  ]));

test('four chords, one scale, another target on each', () =>
  expect(
    played(
      'key: C\n| C | Am | F | G |\n',
      withParts(
        { id: 'home-scale', home: 'C major pentatonic' },
        'every I: home-scale; aims=1',
        'every vi: home-scale; aims=3',
        'every IV: home-scale; aims=5',
        'every V: home-scale; aims=9',
      ),
    ).map((line) => line.replace(/.*> /, '')),
  ).toEqual(['C', 'C', 'C', 'A']));

test('a home scale stands in the chart, in a section, in the plan and in a part, the nearest first', () => {
  const { chart, timeline } = chartOf(
    'key: C\nhome: C lydian\n[A]\n| C | F |\n[B]\nhome: A minor pentatonic\n| Am | G |\n',
  );
  const homes = (words: PlanWords) =>
    planOn(chart, timeline, unwrap(planFromWords(words))).plan.homeScales.map(({ name }) => name);
  expect(homes({ id: 'outline' })).toEqual([
    'C lydian',
    'C lydian',
    'A minor pentatonic',
    'A minor pentatonic',
  ]);
  expect(homes({ id: 'outline', home: 'C blues' })).toEqual(['C blues', 'C blues', 'C blues', 'C blues']);
  expect(homes(withParts({ id: 'outline' }, 'bars 2-3: home-scale; home=D dorian'))).toEqual([
    'C lydian',
    'D dorian',
    'D dorian',
    'A minor pentatonic',
  ]);
});

test('clashes are told ahead, but blue notes of a blues are none', () => {
  const clashes = (text: string, words: PlanWords) => {
    const { chart, timeline } = chartOf(text);
    return clashesOf(readPlan(chart, timeline, unwrap(planFromWords(words)))).map(
      ({ note, chord, against, bars }) => `${note} over ${chord} against ${against}: ${bars.join(' ')}`,
    );
  };
  expect(clashes('key: C\n| C | Cm | C | Cm |\n', { id: 'home-scale', home: 'C major pentatonic' })).toEqual([
    'E over Cm against Eb: 2 4',
  ]);
  expect(clashes(BLUES, { id: 'home-scale' })).toEqual([]);
});

test('the grid says what each note of the home scale is over each chord', () => {
  const { chart, timeline } = chartOf(`home: A minor pentatonic\n${BLUES}`);
  const grid = homeGridOf(readPlan(chart, timeline, { id: 'outline' }));
  expect(grid.map(({ chord, degree, bars }) => `${chord} ${degree} ${bars.join(' ')}`)).toEqual([
    'A7 I 1 3',
    'D7 IV 2',
    'E7 V 4',
  ]);
  expect(grid[1]!.cells.map(({ name, interval, role }) => `${name} ${interval} ${role}`)).toEqual([
    'A 5 chord-tone',
    'C b7 chord-tone',
    'D 1 chord-tone',
    'E 9 scale',
    'G 4 avoid',
  ]);
  expect(grid[1]!.missing.map(({ name }) => name)).toEqual(['F#']);
});

test('a part over what the form does not have is told', () => {
  const { chart } = chartOf(BLUES);
  const told = (...parts: string[]) =>
    misplacedParts(withParts({ id: 'outline' }, ...parts), chart).map(({ message }) => message);
  expect(
    told(
      'bars 5-8: outline',
      'section B: outline',
      'every ii: outline',
      'chord Gm: outline',
      'bars 1-4: free',
    ),
  ).toEqual([
    'This form has 4 bars: there are no bars 5 to 8.',
    'No section of this form is called B.',
    'No chord of this form is its ii.',
    'Gm is no chord of this form.',
  ]);
});

test.each([
  ['bars 1-4', 'plan.part'],
  ['somewhere: outline', 'plan.where'],
  ['bars 1-4: outlien', 'plan.unknown'],
  ['bars 1-4: outline; colour=red', 'plan.setting'],
])('the part “%s” is refused as %s', (text, code) => {
  const read = readPlanPart(text);
  expect(read.ok ? null : [read.problems[0].code, (read.problems[0].suggestion ?? '').length > 0]).toEqual([
    code,
    true,
  ]);
});

test('under every plan, over every form of the library, the targets lie inside the material', () => {
  const outside: string[] = [];
  for (const form of LIBRARY)
    for (const id of PLAN_IDS) {
      const { chart, timeline } = chartOf(form.text);
      const { plan } = planOn(chart, timeline, { id });
      for (const { targets, material } of plan.cells)
        if (targets.some((pc) => !material.includes(pc))) outside.push(`${form.id} ${id}`);
    }
  expect(outside).toEqual([]);
});

const HOMES = [
  'minor pentatonic',
  'major pentatonic',
  'blues',
  'major blues',
  'dorian',
  'mixolydian',
  'lydian',
  'harmonic minor',
  'melodic minor',
  'major sixth-diminished',
  'whole tone',
  'half-whole diminished',
];
const ROOTS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'];

test('no double accidentals and no note in two spellings, over home scales, roots and forms', () => {
  const wrong: string[] = [];
  for (const form of LIBRARY.slice(0, 12)) {
    const { chart, timeline } = chartOf(form.text);
    for (const root of ROOTS)
      for (const kind of HOMES) {
        const note = {
          letter: root[0] as 'C',
          alter: (root[1] === 'b' && -1) || (root[1] === '#' && 1) || 0,
        };
        const home = scaleOn(note, kind);
        for (const one of readPlan(chart, timeline, { id: 'home-tell-tale', home })) {
          const said = [...one.plays, ...one.targets, ...one.tellTale, ...one.avoid];
          const names = new Map(said.map(({ pc, name }) => [pc, name]));
          for (const { pc, name } of said)
            if (/##|bb/.test(name) || names.get(pc) !== name) wrong.push(`${form.id} ${home.name} ${name}`);
        }
      }
  }
  expect(wrong).toEqual([]);
});
