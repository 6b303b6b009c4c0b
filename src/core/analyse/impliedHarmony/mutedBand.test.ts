import { expect, test } from '@jest/globals';
import { unwrap } from '../../shared';
import { readChart } from '../../chart';
import { analyse, type PlayedNote } from '../index';

const judge = (chart: string, notes: [number, number, number][], choruses = 1) =>
  analyse({
    chart: unwrap(readChart(chart)),
    tempo: 120,
    choruses,
    plan: { id: 'outline' },
    notes: notes.map(([midi, onsetBeat, durationBeats]): PlayedNote => ({ midi, onsetBeat, durationBeats })),
  }).mutedBand;

const TWO = 'key: C\n| Dm7 | G7 | Cmaj7 | % |';

test('thirds and sevenths on the beat are heard', () => {
  const { segments, share } = judge(TWO, [
    [65, 0, 1],
    [72, 1, 1],
    [71, 4, 1],
    [65, 5, 1],
    [67, 6, 1],
    [76, 8, 1],
    [71, 9, 1],
  ]);
  expect(segments.map((segment) => [segment.chord, segment.verdict, segment.best])).toEqual([
    ['Dm7', 'heard', 'Dm7'],
    ['G7', 'heard', 'G7'],
    ['Cmaj7', 'heard', 'Cmaj7'],
  ]);
  expect(share).toBe(1);
});

test('third and seventh alone are heard: the tritone partner is of the family (T12.4)', () => {
  expect(
    judge(TWO, [
      [71, 4, 1],
      [65, 5, 1],
    ]).segments[1],
  ).toMatchObject({ verdict: 'heard', best: 'G7' });
});

test('a line that stays on the old chord is not heard, and the chord it said is named', () => {
  const { segments } = judge(TWO, [
    [65, 0, 1],
    [72, 4, 1],
    [69, 5, 1],
    [62, 6, 1],
  ]);
  expect(segments[1]).toMatchObject({ chord: 'G7', verdict: 'not-heard', best: 'Dm7' });
  expect(segments[1]!.margin).toBeLessThan(-0.05);
});

test('a chord with hardly a note is silent and left out of the share', () => {
  const { segments, share } = judge(TWO, [
    [65, 0, 1],
    [72, 1, 1],
    [71, 4.5, 0.5],
  ]);
  expect(segments.map((segment) => segment.verdict)).toEqual(['heard', 'silent', 'silent']);
  expect(share).toBe(1);
});

// Weight by hand: min(beats inside, 1) × (1 on a beat, else 0.6) × (1.5 the landing, 0.6 carried in, else 1).
test('weights: the landing counts half as much again, a note off the beat less, one carried in less still', () => {
  const { segments } = judge(TWO, [
    [71, 4, 1],
    [74, 5.5, 0.5],
  ]);
  // G7: third 1 × 1.5, fifth 0.5 × 0.3 → 1.65 / 1.8; the best outside its family: Dm7 (root 0.6 × 0.3,
  // sixth in its scale) → 0.18 / 1.8
  expect(segments[1]!.margin).toBeCloseTo(1.65 / 1.8 - bestOutside(), 4);
  function bestOutside(): number {
    // Cmaj7 shares two tones with G7 (G B): seventh 0.8 × 1.5, ninth 0; D♭7 is the tritone partner: seventh
    // C♭ 0.8 × 1.5, D outside −0.5 × 0.3
    return Math.max((0.6 * 0.3) / 1.8, (0.8 * 1.5) / 1.8, (0.8 * 1.5 - 0.5 * 0.3) / 1.8);
  }
});

test('candidates: the chart’s chords, tritone partners and relatives', () => {
  // Dm7 G7 Cmaj7, the partner D♭7, the relatives Fmaj7 of Dm7 and Am7 of Cmaj7
  expect(judge(TWO, []).chance).toBeCloseTo(1 / 6, 4);
  expect(judge('key: Bb\n| Bb7 | Eb7 |', []).chance).toBeCloseTo(1 / 4, 4);
  // a relative that the chart has already is one candidate
  expect(judge('key: C\n| Cmaj7 | Am7 |', []).chance).toBeCloseTo(1 / 2, 4);
});

test('an anticipation weighs in the chord it belongs to, never in the one it leaves', () => {
  const { segments } = judge(TWO, [
    [65, 0, 1],
    [72, 1, 1],
    [71, 3.5, 1.5],
    [67, 5, 1],
  ]);
  expect(segments[0]).toMatchObject({ verdict: 'heard' });
  expect(segments[1]).toMatchObject({ verdict: 'heard', best: 'G7' });
});

test('blue notes, graces and resolved approaches say nothing of the chord', () => {
  const plain = judge('key: C\nfeel: blues\n| C7 | F7 |', [
    [64, 0, 1],
    [67, 1, 1],
  ]).segments[0]!.margin;
  const blue = judge('key: C\nfeel: blues\n| C7 | F7 |', [
    [64, 0, 1],
    [67, 1, 1],
    [63, 2, 1],
  ]).segments[0]!.margin;
  expect(blue).toBeCloseTo(plain, 6);
  const approach = judge('key: C\nfeel: blues\n| C7 | F7 |', [
    [64, 0, 1],
    [67, 1, 1],
    [66, 2, 0.5],
    [67, 2.5, 0.5],
  ]).segments[0]!;
  expect(approach.verdict).toBe('heard');
});

test('a run of one symbol is one segment, a new chorus a new one', () => {
  expect(judge(TWO, [], 2).segments.map((segment) => [segment.beat, segment.chord])).toEqual([
    [0, 'Dm7'],
    [4, 'G7'],
    [8, 'Cmaj7'],
    [16, 'Dm7'],
    [20, 'G7'],
    [24, 'Cmaj7'],
  ]);
});
