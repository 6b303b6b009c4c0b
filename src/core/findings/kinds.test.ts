import { expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { changesOf, readChart, timelineOf } from '../chart';
import { analyse, type PlayedNote } from '../analyse';
import type { PlanChoice } from '../plan';
import { findingsOf } from './index';

// Kinds that no planted player of tests/corpora/planted.ts has: each with a line that has it, and one that
// has not.
const chart = unwrap(readChart('key: C\n| Dm7 | % | G7 | % |\n| Cmaj7 | % | A7 | % |'));
const kinds = (notes: PlayedNote[], plan: PlanChoice = { id: 'scale-per-chord' }) =>
  findingsOf({
    chart,
    tempo: 120,
    plan,
    report: analyse({ chart, tempo: 120, notes, plan, choruses: 4 }),
  }).map(({ kind }) => kind);
const at = (
  starts: readonly number[],
  cell: readonly (readonly [number, number, number])[],
  move = (_: number) => 0,
): PlayedNote[] =>
  starts.flatMap((start, phrase) =>
    cell.map(([beat, durationBeats, midi]) => ({
      onsetBeat: start + beat,
      durationBeats,
      midi: midi + move(phrase),
    })),
  );
const every = (beats: number, from = 0): number[] =>
  Array.from({ length: Math.floor((128 - from) / beats) }, (_, index) => from + index * beats);

const FIVE_BEATS = [
  [0, 1, 62],
  [1, 0.5, 65],
  [1.5, 1.5, 69],
  [3, 2, 67],
] as const;
test('never-crosses-changes: phrases of five beats inside chords of eight', () => {
  expect(kinds(at(every(8, 1.5), FIVE_BEATS))).toContain('never-crosses-changes');
  expect(kinds(at(every(8, 5.5), FIVE_BEATS))).not.toContain('never-crosses-changes');
});

test('one-rhythm: nothing but off-beat quarters', () => {
  const gaps = (long: number) =>
    at(
      every(8, 0.5),
      Array.from(
        { length: 6 },
        (_, index) => [index * (index === 3 ? long : 1), 0.9, 60 + ((index * 4) % 11)] as const,
      ),
    );
  expect(kinds(gaps(1))).toContain('one-rhythm');
  const varied = every(8, 0.5).flatMap((start) =>
    [0, 0.5, 2, 2.75, 3.5, 5].map((beat, index) => ({
      onsetBeat: start + beat,
      durationBeats: 0.4,
      midi: 60 + index,
    })),
  );
  expect(kinds(varied)).not.toContain('one-rhythm');
});

test('no-motif: sixteen phrases, no two alike; one idea that comes back is enough', () => {
  const unlike = every(8).flatMap((start, phrase) =>
    Array.from({ length: 4 + (phrase % 5) }, (_, index) => ({
      onsetBeat: start + index * (0.4 + 0.05 * phrase),
      durationBeats: 0.4,
      midi: 60 + ((index * (phrase + 3)) % 13),
    })),
  );
  expect(kinds(unlike)).toContain('no-motif');
  expect(kinds(at(every(8), FIVE_BEATS))).not.toContain('no-motif');
});

test('no-enclosures: landings a hundredfold, none enclosed', () => {
  const landing = (cell: readonly (readonly [number, number, number])[]) =>
    at(
      Array.from({ length: 15 }, (_, change) => 8 * (change + 1)),
      cell,
    );
  const many = Array.from({ length: 8 }, () =>
    landing([
      [-1, 1, 69],
      [0, 1, 71],
    ]),
  ).flatMap((notes, round) => notes.map((note) => ({ ...note, onsetBeat: note.onsetBeat + 128 * round })));
  const plan = { id: 'scale-per-chord' } as const;
  const found = (notes: PlayedNote[]) =>
    findingsOf({ chart, tempo: 120, plan, report: analyse({ chart, tempo: 120, notes, plan }) }).map(
      ({ kind }) => kind,
    );
  expect(found(many)).toContain('no-enclosures');
  const enclosed = many.flatMap((note) =>
    note.midi === 71
      ? [
          { ...note, onsetBeat: note.onsetBeat - 1, durationBeats: 0.5, midi: 73 },
          { ...note, onsetBeat: note.onsetBeat - 0.5, durationBeats: 0.5, midi: 70 },
          note,
        ]
      : [],
  );
  expect(found(enclosed)).not.toContain('no-enclosures');
});

test('stays-on-ground: chord tones alone where the plan means to float; one-position: a line under one hand', () => {
  const tones = [
    [62, 65, 69, 72],
    [67, 71, 62, 65],
    [60, 64, 67, 71],
    [69, 73, 64, 67],
  ];
  const ground = Array.from({ length: 120 }, (_, beat) => ({
    onsetBeat: beat,
    durationBeats: 1,
    midi: tones[Math.floor(beat / 8) % 4]![(beat * 3) % 4]!,
  }));
  expect(kinds(ground, { id: 'outline', heights: ['high'] })).toContain('stays-on-ground');
  expect(kinds(ground, { id: 'outline', heights: ['ground'] })).not.toContain('stays-on-ground');
  const over = (range: number) =>
    Array.from({ length: 60 }, (_, beat) => ({
      onsetBeat: beat * 2,
      durationBeats: 1,
      midi: 48 + ((beat * 5) % range),
    }));
  expect([kinds(over(20)).includes('one-position'), kinds(over(36)).includes('one-position')]).toEqual([
    true,
    false,
  ]);
});

test('targets-missed: few targets at changes of many kinds, none of which came five times', () => {
  const blues = unwrap(
    readChart('key: Bb\n| Bb7 | Eb7 | Bb7 | % |\n| Eb7 | % | Bb7 | G7 |\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |'),
  );
  const plan = { id: 'scale-per-chord' as const };
  // on each change the tone that `role` names by its number, most often none of the targets
  const found = (role: (change: number) => string) => {
    const line = changesOf(timelineOf(blues, 96), 2).map(({ at, until, to }, change) => ({
      onsetBeat: at,
      durationBeats: until - at,
      midi: 60 + (to.tones.find((tone) => tone.role === role(change))?.pc ?? 0),
    }));
    const report = analyse({ chart: blues, tempo: 96, notes: line, plan, choruses: 2 });
    return findingsOf({ chart: blues, tempo: 96, plan, report });
  };
  const missing = (change: number) => (change % 2 ? 'root' : 'fifth');
  const seldom = found((change) => ({ 0: 'third', 6: 'seventh' })[change % 12] ?? missing(change));
  const one = seldom.find(({ kind }) => kind === 'targets-missed');
  expect(one).toMatchObject({ met: 4, of: 23, drill: { kind: 'ladder-thirds' } });
  const mostly = found((change) => (change % 4 ? ['third', 'seventh'][change % 2]! : 'fifth'));
  expect(mostly.map(({ kind }) => kind)).not.toContain('targets-missed');
  // where one tone is never landed on, that is said and not this
  const never = found((change) => (change % 5 ? missing(change) : 'seventh')).map(({ kind }) => kind);
  expect(never).toContain('tone-missed');
  expect(never).not.toContain('targets-missed');
});
