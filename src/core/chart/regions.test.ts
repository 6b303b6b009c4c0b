import { expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { keyName } from '../music';
import { harmonyOf, readChart, timelineOf, writeChart } from './index';

const read = (text: string) => {
  const chart = unwrap(readChart(text));
  const timeline = timelineOf(chart, 120);
  return { chart, timeline, harmony: harmonyOf(chart, timeline) };
};

/** Each region with the bar it begins in. */
function regions(text: string): string {
  const { timeline, harmony } = read(text);
  return harmony.regions
    .map(({ key, from }) => `${keyName(key)} from ${timeline.chordSpans[from]!.bar + 1}`)
    .join(', ');
}

// Keys as a teacher would write them over forms that name none; common practice, no source.
test.each([
  [
    'a jazz blues',
    '| Bb7 | Eb7 | Bb7 | % | Eb7 | % | Bb7 | G7 | Cm7 | F7 | Bb7 G7 | Cm7 F7 |',
    'Bb major from 1',
  ],
  ['a plain blues', '| E7 | A7 | E7 | % | A7 | % | E7 | % | B7 | A7 | E7 | B7 |', 'E major from 1'],
  ['a minor blues', '| Cm7 | % | % | % | Fm7 | % | Cm7 | % | Ab7 | G7 | Cm7 | G7 |', 'C minor from 1'],
  ['relative keys stay together', '| Am7 | D7 | Gmaj7 | Cmaj7 | F#m7b5 | B7 | Em | % |', 'E minor from 1'],
  [
    'falling ii–V–Is are three keys',
    '| Dm7 | G7 | Cmaj7 | % | Cm7 | F7 | Bbmaj7 | % | Bbm7 | Eb7 | Abmaj7 | % |',
    'C major from 1, Bb major from 5, Ab major from 9',
  ],
  [
    'down by whole steps and home in minor',
    '| Gmaj7 | % | Gm7 | C7 | Fmaj7 | % | Fm7 | Bb7 | Ebmaj7 | Am7b5 D7 | Gm7 | Am7b5 D7 |',
    'G major from 1, F major from 3, Eb major from 7, G minor from 10',
  ],
  [
    'a bridge in its own key',
    '[A]\n| Dbmaj7 | Ebm7 Ab7 | Dbmaj7 | % |\n[B]\n| F#m7 | B7 | Emaj7 | % | F#m7 | B7 | Emaj7 | % |\n[A]\n| Dbmaj7 | Ebm7 Ab7 | Dbmaj7 | % |',
    'Db major from 1, E major from 5, Db major from 13',
  ],
  [
    'dominants round the fifths leave nobody’s home',
    '[A]\n| Bb6 G7 | Cm7 F7 | Dm7 G7 | Cm7 F7 |\n[B]\n| D7 | % | G7 | % | C7 | % | F7 | % |\n[A]\n| Bb6 G7 | Cm7 F7 | Cm7 F7 | Bb6 |',
    'Bb major from 1',
  ],
  [
    'a modal form moved up a half step',
    '[A]\n| Dm7 | % | % | % | % | % | % | % |\n[B]\n| Ebm7 | % | % | % | % | % | % | % |\n[A]\n| Dm7 | % | % | % | % | % | % | % |',
    'D minor from 1, Eb minor from 9, D minor from 17',
  ],
  ['a vamp that never hears C', '| Dm7 | G7 | Dm7 | G7 |', 'D minor from 1'],
  ['one, five, six, four', '| D | A | Bm | G |', 'D major from 1'],
  ['a falling minor tetrachord', '| Am | G | F | E7 |', 'A minor from 1'],
  ['borrowed chords do not move home', '| Cmaj7 | Fm6 | Cmaj7 | Abmaj7 | Dbmaj7 | Cmaj7 |', 'C major from 1'],
])('%s', (_, text, expected) => expect(regions(text)).toBe(expected));

test('a key that the chart writes holds, by section where a section says so', () => {
  expect(regions('key: C\n| Dm7 | G7 | Cmaj7 | % | Cm7 | F7 | Bbmaj7 | % |')).toBe('C major from 1');
  expect(
    regions('key: Eb\n[A]\n| Ebmaj7 | Bb7 |\n[B]\nkey: Ab\n| Bbm7 Eb7 | Abmaj7 |\n[A]\n| Ebmaj7 | Bb7 |'),
  ).toBe('Eb major from 1, Ab major from 3, Eb major from 5');
});

test('each region says why, and which key is near', () => {
  const { harmony } = read('| C | G | Am | F | C | G | F | % |');
  expect(harmony.regions[0]).toMatchObject({
    source: 'found',
    reason: 'Most of these chords belong to C major.',
  });
  expect(keyName(harmony.regions[0]!.runnerUp!)).toBe('A minor');
  expect(read('| Dm7 | G7 | Cmaj7 | % |').harmony.regions[0]!.reason).toBe(
    'G7 comes home to Cmaj7: C major.',
  );
});

const sentences = (text: string) => read(text).harmony.readings.map((reading) => reading?.reason);

test('every reading has its reason in one sentence', () => {
  expect(
    sentences(
      'key: C\n| Cmaj7 | A7 | Dm7 | G7 | Gm7 | C7 | Fmaj7 | Fm6 | Eb7 | Dm7 | Db7 | C6 | F#dim7 | G7 |',
    ),
  ).toEqual([
    'Cmaj7 is home in C major.',
    'A7 falls a fifth to Dm7: it is that chord’s own dominant.',
    'Dm7 prepares G7: the two are a ii–V.',
    'G7 is the dominant: it wants to go home to C.',
    'Gm7 prepares C7: the two are a ii–V.',
    'C7 falls a fifth to Fmaj7: it is that chord’s own dominant.',
    'Fmaj7 stands on the fourth degree of C major.',
    'Fm6 is not of C major: it is borrowed from C natural minor.',
    'Eb7 slips down a half step into Dm7: it stands in for A7, whose third and seventh it shares.',
    'Dm7 stands on the second degree of C major.',
    'Db7 slips down a half step into C6: it stands in for G7, whose third and seventh it shares.',
    'C6 is home in C major.',
    'F#dim7 lies a half step under G7 and leads into it.',
    'G7 is the dominant: it wants to go home to C.',
  ]);
  expect(sentences('key: Cm\n| Cm7 | G7 |')[1]).toBe(
    'G7 is the dominant of Cm: its B comes from the harmonic minor and leads home.',
  );
  expect(sentences('key: Bb\n| Bb7 | Eb7 | F7 |')[1]).toBe(
    'In a blues the fourth degree carries its own minor seventh: Eb7 rests and need not resolve.',
  );
});

test('two ways to hear a chord: the runner-up with what speaks for it', () => {
  const second = (text: string, index: number) =>
    read(text).harmony.readings[index]!.runnerUp?.degree ?? null;
  expect([
    second('key: C\n| C7 | Fmaj7 | G7 |', 0),
    second('key: C\n| Gm7 | C7 | Fmaj7 |', 0),
    second('key: Am\n| Am | G7 | Cmaj7 |', 1),
    second('key: C\n| Dm7 | G7 | C |', 0),
  ]).toEqual(['I', 'ii/IV', 'V/bIII', null]);
});

test.each([
  [
    'key: C\n| Cmaj7 | Fm6 | Bb7 | Abmaj7 | Dbmaj7 | Bbmaj7 | Ebmaj7 | Dm7b5 | Cm7 |',
    'C natural minor,C natural minor,C natural minor,C phrygian,C mixolydian,C natural minor,C natural minor,C natural minor',
  ],
  ['key: Am\n| Am7 | D7 | E7 | G#dim7 | Bbmaj7 | F#m7b5 | Am6 |', 'A dorian,A phrygian,A dorian'],
  ['key: G\nfeel: blues\n| G7 | C7 | D7 |', ''],
])('borrowed from: %s', (text, expected) => {
  expect(
    read(text)
      .harmony.readings.flatMap((reading) => (reading?.borrowedFrom ? [reading.borrowedFrom] : []))
      .join(','),
  ).toBe(expected);
});

test('brackets: ii–Vs wherever they aim, turnarounds where the form comes home', () => {
  const brackets = (text: string) =>
    read(text).harmony.brackets.map(({ kind, from, to }) => `${kind} ${from}-${to}`);
  expect(brackets('key: Bb\n| Bb7 | Eb7 | Bb7 | G7 | Cm7 | F7 | Bb7 G7 | Cm7 F7 |')).toEqual([
    'ii-V 4-6',
    'ii-V 8-10',
    'turnaround 6-10',
  ]);
  expect(brackets('key: C\n| Dm7 | % | G7 | % | C | N.C. | Bm7b5 | E7 | Am |')).toEqual([
    'ii-V 0-4',
    'ii-V 6-8',
  ]);
  expect(brackets('key: C\n| C | F |')).toEqual([]);
});

test('the player’s own reading stands before the machine’s, and everything follows', () => {
  const text = 'key: C\n| Cmaj7 | A7 | Dm7 | G7 |\nreading: 2 = subV/bVI\nreading: 4 = , altered';
  const { chart, harmony } = read(text);
  expect(harmony.readings.map((reading) => [reading!.degree, reading!.scale.name])).toEqual([
    ['I', 'C major'],
    ['subV/bVI', 'A lydian dominant'],
    ['ii', 'D dorian'],
    ['V', 'G altered'],
  ]);
  expect(harmony.readings[1]).toMatchObject({
    overridden: true,
    reason: 'You read it so.',
    runnerUp: { degree: 'V/ii' },
  });
  expect(read(writeChart(chart)).harmony.readings.map((reading) => reading!.degree)).toEqual([
    'I',
    'subV/bVI',
    'ii',
    'V',
  ]);
  expect(
    read('key: C\n| Am7 | F7 |\nreading: 1 = i\nreading: 2 = V/ii, 1 2 3 5 b7').harmony.readings.map(
      (reading) => reading!.scale.name,
    ),
  ).toEqual(['A natural minor', 'F 1 2 3 5 b7']);
  expect(read('key: C\n| Em7 | A7 |\nreading: 2 = V/ii').harmony.readings[1]!.scale.name).toBe(
    'A fifth mode of harmonic minor',
  );
});

test.each([
  ['reading: 9 = ii', 'There is no chord 1 in bar 9'],
  ['reading: 1 = xx', '“xx” is not a degree'],
  ['reading: 1 = ii, plaid', '“plaid” is not a scale'],
  ['reading: now', 'A reading is written as'],
])('%s is refused', (line, message) => {
  const wrong = readChart(`key: C\n| C | F |\n${line}`);
  expect(wrong.ok ? '' : wrong.problems[0].message).toContain(message);
  expect(wrong.ok ? 0 : wrong.problems[0].line).toBe(3);
});
