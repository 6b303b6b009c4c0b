import { expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { readChart } from '../chart';
import { analyse, type PlayedNote } from './index';

const CHART = 'key: C\n| Dm7 | G7 | Cmaj7 | A7 |';
const report = (notes: PlayedNote[], text = CHART, choruses?: number) =>
  analyse({
    chart: unwrap(readChart(text)),
    tempo: 120,
    notes,
    plan: { id: 'scale-per-chord' },
    ...(choruses ? { choruses } : {}),
  });
const line = (pitches: number[], start = 0, step = 1): PlayedNote[] =>
  pitches.map((midi, index) => ({ onsetBeat: start + index * step, durationBeats: step, midi }));
/** Third, seventh, fifth, third of each chord in turn, a beat each. */
const OUTLINE = [65, 72, 69, 65, 71, 65, 74, 71, 76, 71, 67, 76, 73, 67, 76, 73];

test('where the line turned: on the change, a beat late, a beat early', () => {
  const turned = (notes: PlayedNote[]) =>
    report(notes)
      .changes.slice(0, 2)
      .map((change) => change.turnedAtBeat! - change.beat);
  expect(turned(line(OUTLINE))).toEqual([0, 0]);
  expect(turned(line(OUTLINE, 1))).toEqual([1, 1]);
  expect(turned(line(OUTLINE.slice(1)))).toEqual([-1, -1]);
  expect(report([]).changes[0]?.turnedAtBeat).toBeUndefined();
});

test('the line as a whole runs behind or ahead of the chords', () => {
  const rounds = [...OUTLINE, ...OUTLINE, ...OUTLINE];
  expect(report(line(rounds)).time.lagBeats).toBe(0);
  // a beat late: any lag that gives the change's own beat to the old chord fits as well
  expect(report(line(rounds, 1)).time.lagBeats).toBeGreaterThan(0);
  expect(report(line(rounds.slice(1))).time.lagBeats).toBeLessThan(0);
});

test('lost from a bar on, found again', () => {
  const rounds = Array.from({ length: 5 }, () => OUTLINE).flat();
  const lost = line(rounds).map((note) =>
    note.onsetBeat >= 16 && note.onsetBeat < 48 ? { ...note, midi: rounds[note.onsetBeat - 4]! } : note,
  );
  expect(report(lost, CHART, 5).place).toEqual([{ fromBeat: 16, toBeat: 48, lagBeats: 4 }]);
  expect(report(line(rounds), CHART, 5).place).toEqual([]);
});

test('how the line moves: repeats, steps, skips, leaps, ways and ties', () => {
  expect(report(line([60, 60, 62, 65, 72, 70, 69])).line).toEqual({
    repeats: 1,
    steps: 3,
    skips: 1,
    leaps: 1,
    rising: 3,
    falling: 2,
    directionChanges: 1,
    longestRun: 3,
    tiesAcrossBars: 0,
    slurred: 0,
  });
  expect(report([{ onsetBeat: 3, durationBeats: 2, midi: 65 }]).line.tiesAcrossBars).toBe(1);
});

test('the arc of each chorus: heights add up to one, density and register', () => {
  const { arc } = report(line([...OUTLINE, ...OUTLINE.map((midi) => midi + 12)]));
  expect(arc.map(({ chorus, density }) => [chorus, density])).toEqual([
    [1, 4],
    [2, 4],
  ]);
  for (const { heights } of arc) expect(heights.reduce((sum, value) => sum + value, 0)).toBeCloseTo(1, 2);
  expect(arc[1]!.register! - arc[0]!.register!).toBe(12);
});

test('a motif comes back exact, moved or fitted; a theme with two notes changed', () => {
  const motif = [0, 2, 4, 7];
  const said = (base: number, start: number, shape = motif) =>
    shape.map((step, index) => ({
      onsetBeat: start + [0, 0.5, 1, 2][index]!,
      durationBeats: 0.45,
      midi: base + step,
    }));
  const { phrases } = report([
    ...said(60, 0),
    ...said(65, 5),
    ...said(62, 10, [0, 1, 3, 7]),
    ...said(60, 15, [7, 4, 2, 0]),
  ]);
  expect(phrases.map(({ motif: one }) => one)).toEqual([0, 0, 0, undefined]);
  expect(phrases.map(({ theme }) => theme)).toEqual([0, 0, 0, undefined]);
});

test('what the line said: a chord, or the notes where they are few', () => {
  const said = (pitches: number[]) => report(line(pitches), '| C | % | % | % |').mutedBand.segments[0]!.said;
  expect([said([59, 62, 66, 59]), said([60, 64, 67, 60]), said([60, 67, 60, 67])]).toEqual([
    'Bm',
    'C',
    'C G',
  ]);
});
