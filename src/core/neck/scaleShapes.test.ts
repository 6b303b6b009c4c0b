import { describe, expect, test } from '@jest/globals';
import { readScale } from '../music';
import { pitchClassOf, unwrap } from '../shared';
import {
  fretsOf,
  layRun,
  PAIR_KINDS,
  SCALE_LAYOUTS,
  scalePairs,
  scaleShapes,
  scaleUnderHand,
  shapeNear,
  TUNINGS,
  readTuning,
} from '.';
import type { Run, ScaleLayout } from '.';

// Rules T15.4. Shapes named here are common practice, no source.
const STANDARD = [64, 59, 55, 50, 45, 40];
const scaleOf = (name: string): number[] => [...unwrap(readScale(name)).pcs];
const MATERIALS = {
  major: [0, 2, 4, 5, 7, 9, 11],
  'minor pentatonic': [0, 3, 5, 7, 10],
  blues: [0, 3, 5, 6, 7, 10],
  'harmonic minor': [0, 2, 3, 5, 7, 8, 11],
  'minor seventh': [0, 3, 7, 10],
  triad: [0, 4, 7],
};
const inKey = (steps: readonly number[], key: number) => steps.map((step) => (step + key) % 12);
const written = ({ touches }: Run) =>
  touches.map(({ string, fret, finger }) => `${string}:${fret}.${finger}`).join(' ');

describe('shapes that guitarists know', () => {
  test('A minor pentatonic: shape 1 lies at the fifth fret, index and ring or little finger', () => {
    const [first] = scaleShapes(scaleOf('A minor pentatonic'));
    expect(first).toMatchObject({ number: 1, rootString: 6 });
    expect(written(first!.run)).toBe(
      '6:5.1 6:8.4 5:5.1 5:7.3 4:5.1 4:7.3 3:5.1 3:7.3 2:5.1 2:8.4 1:5.1 1:8.4',
    );
  });

  test('C major from its seventh: the second finger on the root, no reach', () => {
    const shape = scaleShapes(scaleOf('C major')).find(({ number }) => number === 7)!;
    expect(shape.run.reaches).toBe(0);
    expect(written(shape.run)).toContain('6:7.1 6:8.2 6:10.4 5:7.1 5:8.2 5:10.4 4:7.1 4:9.3 4:10.4');
  });

  test('from the root with the second finger, where a player asks for it', () => {
    const [first] = scaleShapes(scaleOf('C major'), { finger: 2 });
    expect(written(first!.run)).toMatch(/^6:8\.2 6:10\.4 5:7\.1/);
  });

  test('three notes a string, one octave, along one string', () => {
    const three = scaleShapes(scaleOf('G major'), { layout: 'three' });
    expect(three).toHaveLength(7);
    for (const { run } of three)
      for (let string = 1; string <= 6; string++)
        expect(run.touches.filter((touch) => touch.string === string)).toHaveLength(3);
    const octaves = scaleShapes(scaleOf('C major'), { layout: 'octave' });
    expect(written(octaves.find(({ number }) => number === 5)!.run)).toBe(
      '5:3.2 5:5.4 4:2.1 4:3.2 4:5.4 3:2.1 3:4.3 3:5.4',
    );
    const [low] = scaleShapes(scaleOf('G major'), { layout: 'string' });
    expect(low!.run.touches.map(({ fret }) => fret)).toEqual([3, 5, 7, 8, 10, 12, 14, 15]);
    expect(low!.run.shifts.length).toBeGreaterThan(0);
  });
});

describe('what holds for every shape', () => {
  const tunings = [STANDARD, ...Object.values(TUNINGS).map((text) => [...unwrap(readTuning(text))])];
  const each = (
    check: (shape: ReturnType<typeof scaleShapes>[number], pcs: number[], layout: ScaleLayout) => void,
  ) => {
    for (const tuning of tunings)
      for (const steps of Object.values(MATERIALS))
        for (const layout of SCALE_LAYOUTS)
          for (const reach of [true, false]) {
            const pcs = inKey(steps, 9);
            for (const shape of scaleShapes(pcs, { instrument: { tuning, frets: 22 }, layout, reach }))
              check(shape, pcs, layout);
          }
  };

  test('no open string, each note of the material once from the lowest to the highest', () => {
    each(({ run }, pcs) => {
      const pitches = run.touches.map(({ midi }) => midi);
      const between = Array.from(
        { length: pitches.at(-1)! - pitches[0]! + 1 },
        (_, step) => pitches[0]! + step,
      ).filter((midi) => pcs.includes(pitchClassOf(midi)));
      expect(pitches).toEqual(between);
      expect(fretsOf(run)[0]).toBeGreaterThanOrEqual(1);
      expect(fretsOf(run)[1]).toBeLessThanOrEqual(22);
    });
  });

  test('fingers: a fret each from the index on, no string twice, none on two frets in a row', () => {
    each(({ run: { touches, shifts } }) => {
      const wrong = touches.filter((touch, index) => {
        const away = touch.fret - touch.hand;
        const before = touches[index - 1];
        const served = away >= -1 && away <= 4 && touch.finger === Math.max(1, Math.min(4, away + 1));
        if (!before) return !served;
        const again = touch.finger === before.finger && touch.fret !== before.fret;
        const told = shifts.includes(index) === (touch.hand !== before.hand);
        return !served || again || !told || touch.string > before.string;
      });
      expect(wrong).toEqual([]);
    });
  });

  test('another key is the same shape so many frets away', () => {
    for (const steps of Object.values(MATERIALS))
      for (const layout of SCALE_LAYOUTS) {
        const inC = new Map(scaleShapes(inKey(steps, 0), { layout }).map((shape) => [shape.number, shape]));
        for (let key = 1; key < 12; key++)
          for (const { number, run } of scaleShapes(inKey(steps, key), { layout })) {
            const other = inC.get(number);
            if (!other) continue;
            const away = run.touches[0]!.fret - other.run.touches[0]!.fret;
            expect(Math.abs(away - key) % 12).toBe(0);
            expect(run.touches.map(({ string, fret, finger }) => [string, fret - away, finger])).toEqual(
              other.run.touches.map(({ string, fret, finger }) => [string, fret, finger]),
            );
          }
      }
  });

  test('under one hand that would rather move, nothing is reached for', () => {
    for (const { run } of scaleShapes(scaleOf('C major'), { reach: false })) expect(run.reaches).toBe(0);
  });
});

test('a shape is shown an octave up where that is nearer', () => {
  const [shape] = scaleShapes(scaleOf('F minor pentatonic'));
  expect(fretsOf(shape!.run)[0]).toBe(1);
  expect(fretsOf(shapeNear(shape!, 12).run)[0]).toBe(13);
  expect(fretsOf(shapeNear(shape!, 4).run)[0]).toBe(1);
});

test('under a hand at any fret: each pitch once, no open string, nothing past the end of the neck', () => {
  for (const steps of Object.values(MATERIALS))
    for (let fret = 1; fret <= 22; fret++) {
      const run = scaleUnderHand(inKey(steps, 5), fret);
      if (!run) continue;
      const [low, high] = fretsOf(run);
      const pitches = run.touches.map(({ midi }) => midi);
      expect([fret, low >= 1, high <= 22, new Set(pitches).size]).toEqual([fret, true, true, pitches.length]);
    }
  expect(scaleUnderHand(scaleOf('C major'), 1)!.touches[0]).toMatchObject({ string: 6, fret: 1, finger: 1 });
});

test('a run that no hand plays is none', () => {
  // two notes on each string, and a third that lies on no further string
  expect(layRun([40, 41, 42], { tuning: [40], string: 1, perString: 2 })).toBeNull();
});

test('a scale in thirds, fourths, sixths and tenths: both notes of the scale, so many steps apart', () => {
  const pcs = scaleOf('G major');
  for (const kind of Object.keys(PAIR_KINDS) as (keyof typeof PAIR_KINDS)[]) {
    const { steps, apart } = PAIR_KINDS[kind];
    const sets = scalePairs(pcs, kind);
    expect(sets).toHaveLength(6 - apart);
    for (const { strings, pairs } of sets) {
      expect(pairs.length).toBeGreaterThan(8);
      for (const { low, high } of pairs) {
        expect([high.string, low.string]).toEqual(strings);
        expect([STANDARD[low.string - 1]! + low.fret, STANDARD[high.string - 1]! + high.fret]).toEqual([
          low.midi,
          high.midi,
        ]);
        const inScale = Array.from({ length: high.midi - low.midi }, (_, step) => low.midi + 1 + step).filter(
          (midi) => pcs.includes(pitchClassOf(midi)),
        );
        expect(inScale).toHaveLength(steps);
        expect(pcs).toContain(pitchClassOf(low.midi));
      }
    }
  }
});
