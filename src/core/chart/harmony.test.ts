import { expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { keyName } from '../music';
import { changesOf, harmonyOf, formPositionOf, readChart, soundingAt, timelineOf } from './index';

/** `degree:scale` of each chord, the scale without its root. */
function reading(text: string): string {
  const chart = unwrap(readChart(text));
  const { readings } = harmonyOf(chart, timelineOf(chart, 120));
  return readings.map((one) => (one ? `${one.degree}:${one.scale.kind}` : '-')).join(' ');
}

// The chord-scale table of the theory page, row by row.
test.each([
  [
    'key: Bb\n| Bb7 | Eb7 | G7 | Cm7 | F7 |',
    'I:mixolydian IV:mixolydian V/ii:fifth mode of harmonic minor ii:dorian V:mixolydian',
  ],
  [
    'key: C\n| Dm7 | G7 | Cmaj7 | Am7 | Em7 | Fmaj7 |',
    'ii:dorian V:mixolydian I:major vi:natural minor iii:phrygian IV:lydian',
  ],
  [
    'key: C\n| Cmaj7 | A7 | Dm7 | D7 | G7 |',
    'I:major V/ii:fifth mode of harmonic minor ii:dorian V/V:mixolydian V:mixolydian',
  ],
  [
    'key: Fm\n| Fm7 | Gm7b5 | C7b9 | Fm7 |',
    'i:natural minor ii:locrian V:fifth mode of harmonic minor i:natural minor',
  ],
  [
    'key: Fm\n| Fm7 | C7 | Fm7 | C9 | C13 |',
    'i:natural minor V:fifth mode of harmonic minor i:natural minor V:mixolydian b6 V:mixolydian',
  ],
  ['key: Am\n| Am7 | D7 | Am7 |', 'i:dorian IV:mixolydian i:dorian'],
  ['key: Am\n| Am7 | Bbmaj7 | Am7 |', 'i:phrygian bII:lydian i:phrygian'],
  ['key: C\n| Cmaj7 | Db7 | Cmaj7 |', 'I:major subV:lydian dominant I:major'],
  ['key: C\n| Cmaj7 | Eb7 | Dm7 | G7 |', 'I:major subV/ii:lydian dominant ii:dorian V:mixolydian'],
  ['key: C\n| Cmaj7 | Bb7 | Cmaj7 |', 'I:major bVII:lydian dominant I:major'],
  [
    'key: Am\n| Am | G7 | Cmaj7 | E7 |',
    'i:natural minor bVII:mixolydian bIII:major V:fifth mode of harmonic minor',
  ],
  ['key: C\n| C | F#dim7 | G7 | Abmaj7 |', 'I:major vii/V:whole-half diminished V:mixolydian bVI:lydian'],
  ['key: Am\nfeel: blues\n| Am7 | Dm7 | E7 |', 'i:dorian iv:dorian V:fifth mode of harmonic minor'],
  [
    'key: C\n| G7alt | C6 | G7sus4 | G7b9sus | G7#11 | G7#5 | G7b13 | G7#9 | G7b9b13 |',
    'V:altered I:major V:mixolydian V:phrygian V:lydian dominant V:whole tone V:mixolydian b6 V:half-whole diminished V:fifth mode of harmonic minor',
  ],
  ['key: C\n| Cm6 | CmMaj7 | Caug | Bdim |', 'i:melodic minor i:melodic minor I:whole tone vii:locrian'],
  ['| E7 | % |', 'I:mixolydian I:mixolydian'],
  ['| Am7 | % |', 'i:dorian i:dorian'],
  ['key: C\n| Cmaj7 | Dmaj7 |', 'I:major II:major'],
])('%s', (text, expected) => expect(reading(text)).toBe(expected));

test.each([
  ['key: Bb\n| Bb7 | Eb7 | F7 |', 'Bb blues'],
  ['key: C\n| Cmaj7 | G7 |', 'C major'],
  ['key: Am\n| Am | E7 |', 'A natural minor'],
  ['| E7 |', 'E blues'],
  ['key: Am\nfeel: blues\n| Am7 |', 'A blues'],
])('home scale of %s is %s', (text, expected) => {
  const chart = unwrap(readChart(text));
  expect(harmonyOf(chart, timelineOf(chart, 120)).homeScales[0]!.name).toBe(expected);
});

test.each([
  ['| Dm7 | G7 | Cmaj7 | % |', 'C major'],
  ['| Cm7 | F7 | Bbmaj7 | Ebmaj7 | Am7b5 | D7 | Gm | % |', 'G minor'],
  ['| Am | E7 | Am | % |', 'A minor'],
  ['| G | C | D7 | G |', 'G major'],
  ['| Fm7 | Bb7 | Ebmaj7 | Abmaj7 |', 'Eb major'],
])('the key of %s is found: %s', (text, expected) => {
  const chart = unwrap(readChart(text));
  expect(keyName(harmonyOf(chart, timelineOf(chart, 120)).readings[0]!.key)).toBe(expected);
});

test('the timeline knows where a beat lies, chorus after chorus', () => {
  const line = timelineOf(unwrap(readChart('| C | F G |')), 120);
  expect(line.formBeats).toBe(8);
  expect([-1, 0, 5.9, 6, 8, 15].map((beat) => soundingAt(line, beat).span.chord!.symbol)).toEqual([
    'C',
    'C',
    'F',
    'G',
    'C',
    'G',
  ]);
  expect(formPositionOf(line, 13.5)).toEqual({ chorus: 1, bar: 1, beatInBar: 1.5 });
});

test('changes: across the form’s end, none from N.C. or between tensions of one chord', () => {
  const changes = (text: string, choruses: number) =>
    changesOf(timelineOf(unwrap(readChart(text)), 120), choruses).map(
      (change) => `${change.at}-${change.until} ${change.from.symbol}>${change.to.symbol}`,
    );
  expect(changes('| C | F |', 2)).toEqual(['4-8 C>F', '8-12 F>C', '12-16 C>F']);
  expect(changes('| C | N.C. | F | F13 |', 1)).toEqual([]);
  expect(changes('| C | F | N.C. |', 1)).toEqual(['4-8 C>F']);
});
