import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { unwrap } from '../shared';
import {
  beatAt,
  changeLoops,
  meanTempo,
  passage,
  readChart,
  routeOf,
  secondsAt,
  sectionsOf,
  steady,
  tempoAt,
  timelineOf,
} from './index';

const TEXT =
  'title: Walk\nkey: Bb\ntempo: 96\n[A]\n| Bb7 | Eb7 | Bb7 | % |\n[B]\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |\n';
const symbols = (text: string) =>
  timelineOf(unwrap(readChart(text)), 100).chordSpans.map(({ chord }) => chord?.symbol);

test('beats and seconds of a pace are each other’s inverse, and a faster pass is shorter', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 40, max: 320 }), { minLength: 1, maxLength: 8 }),
      fc.integer({ min: 1, max: 64 }),
      fc.double({ min: -8, max: 600, noNaN: true }),
      (tempi, passBeats, beat) => {
        const pace = { passBeats, tempi };
        expect(Math.abs(beatAt(pace, secondsAt(pace, beat)) - beat)).toBeLessThan(1e-6);
      },
    ),
  );
  const pace = { passBeats: 4, tempi: [60, 120, 240] };
  // 4 beats at 60, 4 at 120, then 240 for good; the count-in goes at the first tempo
  expect([-2, 0, 4, 8, 12].map((beat) => secondsAt(pace, beat))).toEqual([-2, 0, 4, 6, 7]);
  expect([tempoAt(pace, -1), tempoAt(pace, 4), tempoAt(pace, 99)]).toEqual([60, 120, 240]);
  expect(secondsAt(steady(90), 3)).toBe(2);
  // twelve beats take as long at the mean tempo
  expect(meanTempo(pace)).toBeCloseTo((12 / 7) * 60, 9);
});

test('some bars are a chart of their own in the key they had, first bar written out', () => {
  expect(passage(unwrap(readChart(TEXT)), 4, 6).text).toContain('| Bb7 |');
  expect(symbols(passage(unwrap(readChart(TEXT)), 4, 6).text)).toEqual(['Bb7', 'Cm7', 'F7']);
  const minor = passage(
    unwrap(readChart('key: Eb\n| Eb | Bb7 | Eb | Bb7 |\n[B]\nkey: Cm\n| Cm7 | Fm7 | Dm7b5 G7 | Cm7 |\n')),
    7,
    8,
  );
  expect(minor.key).toMatchObject({ minor: true, tonic: { letter: 'C' } });
  expect(sectionsOf(unwrap(readChart(TEXT)))).toEqual([
    { name: 'A', bars: [1, 4] },
    { name: 'B', bars: [5, 8] },
  ]);
  expect(sectionsOf(unwrap(readChart('| C | F |')))).toEqual([]);
});

test('every change with the bars that lead over it', () => {
  expect(
    changeLoops(unwrap(readChart('| C | C | Dm7 G7 | N.C. | F |'))).map(({ from, to, bar, bars }) => [
      from,
      to,
      bar,
      ...bars,
    ]),
  ).toEqual([
    ['C', 'Dm7', 3, 2, 3],
    ['Dm7', 'G7', 3, 3, 3],
  ]);
});

test('the plain route is the chart as it stands', () => {
  expect(routeOf(TEXT, { passes: 3, tempo: 96 })).toMatchObject({
    ok: true,
    value: { text: TEXT, choruses: 3, pace: { tempi: [96] } },
  });
});

test('a loop goes round its bars; the tempo rises from pass to pass and stays inside 40 to 320', () => {
  const route = unwrap(routeOf(TEXT, { bars: [5, 6], passes: 4, tempo: 300, tempoStep: 10 }));
  expect([symbols(route.text), route.choruses, route.pace]).toEqual([
    ['Cm7', 'F7'],
    4,
    { passBeats: 8, tempi: [300, 310, 320, 320] },
  ]);
});

test('in fourths every pass is written out in its own key, spelled for it', () => {
  const route = unwrap(routeOf('key: C\n| Dm7 | G7 | Cmaj7 | % |\n', { passes: 4, tempo: 120, keyStep: 5 }));
  expect(route.choruses).toBe(1);
  expect(symbols(route.text).filter((_, index) => index % 4 < 3)).toEqual([
    'Dm7',
    'G7',
    'Cmaj7',
    'Gm7',
    'C7',
    'Fmaj7',
    'Cm7',
    'F7',
    'Bbmaj7',
    'Fm7',
    'Bb7',
    'Ebmaj7',
  ]);
  // and the harmony is read in each key, not in the first
  expect(
    route.chart.bars
      .map((bar) => bar.key && `${bar.key.tonic.letter}${bar.key.tonic.alter}`)
      .filter((_, bar) => bar % 4 === 0),
  ).toEqual(['C0', 'F0', 'B-1', 'E-1']);
});

test('what cannot be played is refused with what can', () => {
  expect(routeOf(TEXT, { bars: [3, 12], passes: 1, tempo: 96 })).toMatchObject({
    ok: false,
    problems: [{ code: 'route.bars', suggestion: '1 to 8' }],
  });
  expect(routeOf(TEXT, { passes: 100, tempo: 96, keyStep: 1 })).toMatchObject({
    ok: false,
    problems: [{ code: 'route.long' }],
  });
  expect(routeOf('| Q |', { passes: 1, tempo: 96 }).ok).toBe(false);
});
