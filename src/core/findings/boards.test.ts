import { expect, test } from '@jest/globals';
import { analyse, type PlayedNote } from '../analyse';
import { readChart, timelineOf } from '../chart';
import { unwrap } from '../shared';
import { leadsInto, levelsOf, spelledOver } from './index';

const II_V = unwrap(readChart('key: C\n| Dm7 | G7 | Cmaj7 | % |'));
const VAMP = unwrap(readChart('key: Dm\n| Dm7 | % | % | % |'));
const eighths = (midis: readonly number[], from = 0): PlayedNote[] =>
  midis.map((midi, index) => ({ midi, onsetBeat: from + index / 2, durationBeats: 0.5 }));
const reportOf = (
  chart: typeof II_V,
  notes: PlayedNote[],
  id: 'scale-per-chord' | 'home-scale' = 'scale-per-chord',
) => ({
  chart,
  tempo: 120,
  plan: { id },
  report: analyse({ chart, tempo: 120, plan: { id }, notes, leanMs: 0 }),
});

test('what was spelled is named from the chord, bar by bar on a vamp', () => {
  // F A C E over Dm7 is its ninth without the root: a major seventh on the ♭3
  const { report } = reportOf(II_V, eighths([65, 69, 72, 76], 0));
  expect(spelledOver(report, timelineOf(II_V, 120))).toEqual([
    { chord: 'Dm7', bar: null, shapes: [{ name: 'major-seventh', relation: 'b3', count: 1, bars: [1] }] },
  ]);
  const vamp = reportOf(VAMP, [...eighths([62, 65, 69], 0), ...eighths([62, 65, 69, 72, 76], 8)]).report;
  expect(spelledOver(vamp, timelineOf(VAMP, 120))).toEqual([
    { chord: 'Dm7', bar: 1, shapes: [{ name: 'minor', relation: '1', count: 1, bars: [1] }] },
    { chord: 'Dm7', bar: 3, shapes: [{ name: 'minor-ninth', relation: '1', count: 1, bars: [3] }] },
  ]);
});

test('leads are counted inside the bar, by the note they come from', () => {
  // ♭3 into 3 of G7 three times in its bar, off every change
  const notes = [5, 6, 7].flatMap((beat) => eighths([70, 71], beat - 0.25));
  const { report } = reportOf(II_V, notes);
  expect(leadsInto(report)[0]).toEqual({ chord: 'G7', into: '3', from: '#9', side: 'below', count: 3 });
  expect(report.figures.filter(({ kind }) => kind === 'minor-to-major-third')).toHaveLength(3);
});

test('a chorus of one scale, one locked to the chords, one of borrowed shapes', () => {
  const blues = unwrap(readChart('key: Bb\n| Bb7 | Eb7 | Bb7 | G7 | Cm7 | F7 | Bb7 | F7 |'));
  const pentatonic = eighths(
    Array.from({ length: 64 }, (_, index) => [58, 61, 63, 65, 68, 65, 63, 61][index % 8]!),
  );
  const [one] = levelsOf(reportOf(blues, pentatonic, 'home-scale'));
  expect(one).toMatchObject({ chorus: 1, meant: 'one-scale' });
  const tones = [
    [62, 65, 68],
    [67, 70, 73],
    [62, 65, 68],
    [71, 65, 62],
    [63, 67, 70],
    [69, 63, 60],
    [62, 65, 68],
    [69, 63, 65],
  ];
  const chordal = tones.flatMap((bar, index) =>
    bar.map((midi, place) => ({ midi, onsetBeat: index * 4 + place * 1.25, durationBeats: 1 })),
  );
  expect(levelsOf(reportOf(blues, chordal))[0]).toMatchObject({ level: 'locked', meant: 'locked' });
  expect(levelsOf(reportOf(blues, eighths([60, 62])))[0]).toMatchObject({ level: null });
});
