import { expect, test } from '@jest/globals';
import { readChart } from '@/core/chart';
import { unwrap } from '@/core/shared';
import { chordParts, chordText, chordWidth } from '@/ui/chordParts';
import { datesIn, takeMoment } from '@/presentation';
import { chartFacts } from './chartFacts';

const facts = (text: string) => chartFacts(unwrap(readChart(text)));

test('a blues is read as one, with functions and changes counted', () => {
  expect(
    facts('key: Bb\ntempo: 96\nfeel: swing\n| Bb7 | Eb7 | Bb7 | G7 |\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |'),
  ).toMatchObject({
    summary: '8 bars in B♭, swing, 96',
    readAs: 'blues in B♭',
    home: 'B♭ blues',
    changes: '10 a chorus, 6 kinds',
    functions: [
      { chord: 'Bb7', degree: 'I' },
      { chord: 'Eb7', degree: 'IV' },
      { chord: 'G7', degree: 'V/ii' },
      { chord: 'Cm7', degree: 'ii' },
      { chord: 'F7', degree: 'V' },
    ],
  });
});

test('a key that is not written is found and said to be', () =>
  expect(facts('| Dm7 | G7 | Cmaj7 | % |').readAs).toBe('C major, found from its cadences'));
test('a vamp and a minor blues', () =>
  expect([
    facts('| E7 | % |').readAs,
    facts('key: Am\nfeel: blues\n| Am7 | Dm7 |').readAs,
    facts('| E7 |').changes,
  ]).toEqual(['vamp on E', 'minor blues in A minor', 'none: one chord throughout']));

test.each([
  ['Bbm7b5', 'B♭m7♭5'],
  ['Cmaj7', 'C△7'],
  ['C-7', 'Cm7'],
  ['F#dim7', 'F♯°7'],
  ['Ebmaj9/G', 'E♭△9/G'],
  ['C7#9', 'C7♯9'],
  ['N.C.', 'N.C.'],
  ['Caug', 'C+'],
])('%s is typeset %s', (symbol, text) => {
  expect(chordText(symbol)).toBe(text);
  expect(chordWidth(symbol)).toBeGreaterThan(0.6);
});
test('the m stands on the baseline, the figures are raised', () =>
  expect(chordParts('Cm7')).toMatchObject({ root: 'C', minor: 'm', figures: '7' }));

test('a take’s moment as a player says it', () => {
  const now = new Date(2026, 10, 25, 20, 0).getTime();
  const ago = (days: number, hour = 19) => new Date(2026, 10, 25 - days, hour, 5).getTime();
  expect(
    [ago(0), ago(1), ago(3), ago(9), ago(21)].map((at) => takeMoment(at, datesIn('en-GB'), now)),
  ).toEqual(['today 19:05', 'yesterday 19:05', 'Sunday 19:05', '9 days ago', '3 weeks ago']);
});

test('a pickup is said with its beats', () => {
  const summary = (pickup: number) =>
    chartFacts(unwrap(readChart(`key: C\npickup: ${pickup}\n| C | F |`))).summary;
  expect([summary(1), summary(2), summary(0)]).toEqual([
    '2 bars in C, pickup of 1 beat',
    '2 bars in C, pickup of 2 beats',
    '2 bars in C',
  ]);
});
