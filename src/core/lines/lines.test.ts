import { expect, test } from '@jest/globals';
import { elementAt } from '../shared';
import {
  isStrongBeat,
  lineFaults,
  longestSwing,
  pitchesThrough,
  rhythmOf,
  type RhythmRequest,
} from './index';

const SEEDS = Array.from({ length: 24 }, (_, seed) => seed + 1);
const EVERY_BAR = Array.from({ length: 11 }, (_, bar) => (bar + 1) * 4);
const request = (change: Partial<RhythmRequest> = {}): RhythmRequest => ({
  end: 48,
  bar: 4,
  tempo: 100,
  level: 'usual',
  base: 'mixed',
  changes: EVERY_BAR,
  leadIn: 0,
  ahead: 0,
  answers: true,
  seed: 1,
  ...change,
});

test.each(['mixed', 'running', 'quarters', 'triplets', 'offbeats'] as const)(
  '%s: notes follow one another, every phrase ends on a held note, and there is a breath before the next',
  (base) => {
    for (const seed of SEEDS) {
      const notes = rhythmOf(request({ base, seed, changes: base === 'offbeats' ? [] : EVERY_BAR }));
      expect([seed, notes.length > 12]).toEqual([seed, true]);
      notes.forEach(({ beat, duration, place }, index) => {
        const next = notes[index + 1];
        expect([seed, beat, duration > 0, beat + duration <= 48 + 1e-6]).toEqual([seed, beat, true, true]);
        if (next) expect([seed, beat, beat + duration <= next.beat + 1e-6]).toEqual([seed, beat, true]);
        if (place === 'last' && next) expect(next.beat - (beat + duration)).toBeGreaterThanOrEqual(1 - 1e-6);
      });
      expect(elementAt(notes, notes.length - 1).duration).toBeGreaterThanOrEqual(1);
    }
  },
);

test('a change has a note of its own, or a beat of silence around it', () => {
  for (const seed of SEEDS)
    for (const leadIn of [0, 1, 2]) {
      const notes = rhythmOf(request({ seed, leadIn }));
      for (const change of EVERY_BAR) {
        const struck = notes.some(({ beat }) => Math.abs(beat - change) < 1e-6);
        const sounds = notes.some(
          ({ beat, duration }) => beat < change + 1 - 1e-6 && beat + duration > change - 1 + 1e-6,
        );
        expect([seed, leadIn, change, struck || !sounds]).toEqual([seed, leadIn, change, true]);
      }
    }
});

test('struck an eighth ahead, a change is held over and not struck again', () => {
  for (const seed of SEEDS) {
    const notes = rhythmOf(request({ seed, ahead: 0.5 }));
    for (const change of EVERY_BAR)
      expect([seed, change, notes.some(({ beat }) => Math.abs(beat - change) < 1e-6)]).toEqual([
        seed,
        change,
        false,
      ]);
  }
});

test('phrases of one place begin there; answers take up the rhythm of their call', () => {
  const phrase = { start: 1, bars: 2, rest: 0 };
  for (const seed of SEEDS) {
    const notes = rhythmOf(request({ seed, phrase, leadIn: null, changes: [] }));
    const starts = notes.filter(({ place }) => place === 'first').map(({ beat }) => beat % 4);
    expect([seed, new Set(starts)]).toEqual([seed, new Set([1])]);
    const beats = (number: number) =>
      notes.filter((note) => note.phrase === number).map(({ beat }) => Math.round((beat - number * 8) * 1e6));
    expect(beats(1).slice(0, -1)).toEqual(beats(0).slice(0, -1));
  }
});

test('seeds differ, and the same seed writes the same', () => {
  const rhythms = SEEDS.map((seed) => JSON.stringify(rhythmOf(request({ seed }))));
  expect(new Set(rhythms).size).toBe(SEEDS.length);
  expect(JSON.stringify(rhythmOf(request({ seed: 3 })))).toBe(rhythms[2]);
});

const SCALE = [0, 2, 4, 5, 7, 9, 11];
const lineOf = (seed: number) => {
  const slots = rhythmOf(request({ seed, leadIn: null, changes: [] })).map((note) => ({
    ...note,
    pcs: SCALE,
    tones: [0, 4, 7],
    isStrong: isStrongBeat(note.beat, 4),
  }));
  const pitches = pitchesThrough(
    slots,
    Array.from({ length: 27 }, (_, index) => 50 + index),
    seed,
  )!;
  return slots.map(({ beat, duration }, index) => ({
    onsetBeat: beat,
    durationBeats: duration,
    midi: elementAt(pitches, index),
  }));
};

// Shares as published corpora of improvised lines have them, from memory: steps about half of all moves, thirds a
// fifth to a third, repeats and leaps over a fifth under a tenth each; direction turns at about two notes in five.
test('moves, turns and range are those of improvised lines', () => {
  const lines = SEEDS.map(lineOf);
  const moves = lines.flatMap((line) =>
    line.slice(1).map(({ midi }, index) => midi - elementAt(line, index).midi),
  );
  const share = (is: (size: number) => boolean) =>
    moves.filter((move) => is(Math.abs(move))).length / moves.length;
  expect(share((size) => size === 1 || size === 2)).toBeGreaterThan(0.42);
  expect(share((size) => size === 1 || size === 2)).toBeLessThan(0.75);
  expect(share((size) => size === 3 || size === 4)).toBeGreaterThan(0.12);
  expect(share((size) => size === 3 || size === 4)).toBeLessThan(0.36);
  expect(share((size) => size === 0)).toBeLessThan(0.1);
  expect(share((size) => size > 7)).toBeLessThan(0.1);
  const turns = moves.slice(1).filter((move, index) => move * elementAt(moves, index) < 0).length;
  expect(turns / moves.length).toBeGreaterThan(0.2);
  expect(turns / moves.length).toBeLessThan(0.55);
  for (const line of lines) expect(lineFaults(line, 48)).toEqual([]);
});

test('where no note lies so far from the one before, the line goes on without that step', () => {
  const slots = [0, 1, 2].map((beat) => ({
    beat,
    duration: 1,
    phrase: 0,
    place: 'inner' as const,
    pcs: [0],
    tones: [0],
    isStrong: false,
    ...(beat === 1 && { steps: [1] }),
  }));
  expect(pitchesThrough(slots, [60, 72], 1)).toHaveLength(3);
  expect(pitchesThrough([{ ...slots[0]!, pcs: [1] }], [60, 72], 1)).toBeNull();
  expect(pitchesThrough([], [60], 1)).toEqual([]);
});

test('the faults of a line that nobody would play are named', () => {
  const swinging = Array.from({ length: 40 }, (_, index) => ({
    onsetBeat: index / 2,
    durationBeats: 0.47,
    midi: index % 2 === 0 ? 61 : 63,
  }));
  expect(lineFaults(swinging, 20)).toEqual([
    'swings-between-two',
    'never-breathes',
    'few-note-lengths',
    'range',
    'stops-short',
  ]);
  const repeating = swinging.map((note) => ({ ...note, midi: 61 }));
  expect(lineFaults(repeating, 20)).toContain('repeats');
  const leaping = swinging.map((note, index) => ({ ...note, midi: 50 + ((index * 11) % 24) }));
  expect(lineFaults(leaping, 20)).toContain('leaps');
  expect([longestSwing([61, 63, 61, 63]), longestSwing([60, 62, 64, 62])]).toEqual([4, 3]);
});
