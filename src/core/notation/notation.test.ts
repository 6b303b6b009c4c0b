import { expect, test } from '@jest/globals';
import { improvise } from '../band';
import { LIBRARY, readChart, timelineOf } from '../chart';
import { elementAt, seededRandom, unwrap } from '../shared';
import {
  frettedMidi,
  headsFor,
  scoreOf,
  slursOver,
  spellPitch,
  TICKS,
  writtenLine,
  type GridAt,
  type ScoreBar,
  type WrittenNote,
} from './index';

const FOUR = { beat: 48, bar: 192 };
const SIX_EIGHT = { beat: 72, bar: 144 };
const said = (from: number, length: number, counting = FOUR, isRest = false) =>
  headsFor(from, length, counting, isRest)
    .map(({ type, dots, triplet }) => `${type}${'.'.repeat(dots)}${triplet ? ' of 3' : ''}`)
    .join(' ');

// How lengths are written so that the beats can be seen: common practice as in Gould, Behind Bars (from memory).
test.each([
  ['a whole bar', 0, 192, 'whole'],
  ['a half on three', 96, 96, 'half'],
  ['a half from two', 48, 96, 'quarter quarter'],
  ['three beats from one', 0, 144, 'half.'],
  ['a beat and a half on a beat', 0, 72, 'quarter.'],
  ['a beat from the offbeat', 24, 48, 'quarter'],
  ['over the middle of the bar', 72, 48, 'eighth eighth'],
  ['an eighth', 24, 24, 'eighth'],
  ['a triplet’s third', 32, 16, 'eighth of 3'],
  ['two thirds of a beat', 0, 32, 'quarter of 3'],
  ['a dotted eighth', 0, 36, 'eighth.'],
  ['a sixteenth and on into the beat', 36, 36, '16th eighth'],
])('notes: %s', (_, from, length, words) => {
  expect(said(from, length)).toBe(words);
});

test.each([
  ['a whole bar', 0, 192, 'whole'],
  ['two beats from two', 48, 96, 'quarter quarter'],
  ['a beat and a half: no dots', 0, 72, 'quarter eighth'],
  ['from the offbeat', 24, 72, 'eighth quarter'],
])('rests: %s', (_, from, length, words) => {
  expect(said(from, length, FOUR, true)).toBe(words);
});

test('in six eight the beat is a dotted quarter', () => {
  expect(said(0, 144, SIX_EIGHT)).toBe('half.');
  expect(said(0, 72, SIX_EIGHT)).toBe('quarter.');
  expect(said(24, 24, SIX_EIGHT)).toBe('eighth');
  expect(said(48, 96, SIX_EIGHT)).toBe('eighth quarter.');
});

test('pitches are spelled over their chord, octaves as in MIDI 60 = C4', () => {
  const { timeline } = sheetOf('title: One\nkey: Db\n| Dbmaj7 |\n', []);
  const { chord } = elementAt(timeline.chordSpans, 0);
  expect(spellPitch(66, chord)).toEqual({ letter: 'G', alter: -1, octave: 4 });
  expect(spellPitch(60, chord)).toEqual({ letter: 'C', alter: 0, octave: 4 });
  expect(spellPitch(59, null)).toEqual({ letter: 'B', alter: 0, octave: 3 });
});

function sheetOf(text: string, notes: readonly WrittenNote[], swing: number | null = null, choruses = 1) {
  const chart = unwrap(readChart(text));
  return { chart, timeline: timelineOf(chart, 120), notes, choruses, swing };
}

const note = (onsetBeat: number, durationBeats: number, midi = 64): WrittenNote => ({
  onsetBeat,
  durationBeats,
  midi,
});
const written = ({ entries }: ScoreBar) =>
  entries
    .map(({ head, pitches }) => {
      const tie = pitches[0]?.tie.from ? '~' : '';
      return `${tie}${pitches.length > 0 ? 'n' : 'r'}${head.size}`;
    })
    .join(' ');

test('swung eighths are eighths, triplets stay triplets, a note over the bar line is tied', () => {
  const swung = scoreOf(sheetOf('title: One\n| C | C |\n', [note(0, 0.6), note(0.66, 0.3), note(1, 1)], 2));
  expect(written(elementAt(swung, 0))).toBe('n24 n24 n48 r96');
  const thirds = scoreOf(sheetOf('title: One\n| C |\n', [note(0, 0.3), note(0.34, 0.3), note(0.66, 0.3)]));
  expect(written(elementAt(thirds, 0))).toBe('n16 n16 n16 r48 r96');
  const over = scoreOf(sheetOf('title: One\n| C | C |\n', [note(3, 2)]));
  expect(over.map(written)).toEqual(['r96 r48 n48', '~n48 r48 r96']);
});

test('a pickup and a last note that rings on have bars of their own', () => {
  const bars = scoreOf(sheetOf('title: One\n| C |\n', [note(-1, 0.9), note(3.5, 1.5)]));
  expect(bars.map(({ index }) => index)).toEqual([-1, 0, -1]);
});

test('how long a note rang is not told by sixteenths', () => {
  const [bar] = scoreOf(sheetOf('title: One\n| C |\n', [note(0, 0.5), note(0.5, 0.72), note(3, 0.2)]));
  expect(written(bar!)).toBe('n24 n24 r48 r48 n24 r24');
});

// Any line over any form of the library: every bar is filled exactly, every note begins once, in time.
test('every chart and forty seeded lines: bars are full, no note is lost, none moves by a third of a beat', () => {
  for (let seed = 0; seed < 40; seed++) {
    const { text } = elementAt(LIBRARY, seed % LIBRARY.length);
    const chart = unwrap(readChart(text));
    const random = seededRandom(seed);
    const tempo = 90 + seed;
    const notes = improvise({ chart, tempo, choruses: 1, plan: { id: 'scale-per-chord' }, seed }).map(
      (one) => ({
        ...one,
        onsetBeat: one.onsetBeat + (random() - 0.5) * 0.04,
      }),
    );
    const bars = scoreOf(sheetOf(text, notes, random() < 0.5 ? 2 : null));
    const begun: number[] = [];
    for (const { entries, counting, start } of bars) {
      let now = 0;
      for (const { at, head, pitches } of entries) {
        expect(at).toBe(now);
        now += head.size;
        for (const {
          tie,
          index,
          note: { onsetBeat },
        } of pitches)
          if (!tie.from) {
            begun.push(index);
            expect(Math.abs(start + at / counting.beat - onsetBeat)).toBeLessThan(1 / 3);
          }
      }
      expect(now).toBe(counting.bar);
    }
    expect([...begun].sort((a, b) => a - b)).toEqual(notes.map((_, index) => index));
  }
});

test('a bent string is fretted where the bend is lowest, whether it is bent up, let go, or both', () => {
  const fretted = (midi: number, cents: readonly number[]) =>
    frettedMidi({ midi, bend: cents.map((amount, index) => [index / 10, amount] as const) });
  expect(fretted(62, [-200, 0])).toBe(60);
  expect(fretted(60, [0, 200, 0])).toBe(60);
  expect(fretted(60, [200, 0])).toBe(60);
  expect(frettedMidi({ midi: 60 })).toBe(60);
});

test('an empty bar is one whole rest, in any meter', () => {
  for (const meter of ['4/4', '3/4', '6/8', '5/4']) {
    const [bar] = scoreOf(sheetOf(`meter: ${meter}\n| C | C |\n`, [note(6, 1)]));
    expect(bar!.entries).toEqual([
      { at: 0, head: { size: bar!.counting.bar, type: 'whole', dots: 0, triplet: false }, pitches: [] },
    ]);
  }
});

test('a reader chooses triplets or sixteenths for a bar; the others stay on their plainest grid', () => {
  const notes = [0, 0.6, 4, 4.6].map((onsetBeat) => ({ onsetBeat, durationBeats: 0.4, midi: 60 }));
  const at = (gridAt?: GridAt) => writtenLine(notes, null, gridAt).map((place) => place.at / TICKS);
  expect(at()).toEqual([0, 0.5, 4, 4.5]);
  expect(at((beat) => (beat < 4 ? 'triplets' : null))).toEqual([0, 8 / 12, 4, 4.5]);
  expect(at(() => 'sixteenths')).toEqual([0, 0.5, 4, 4.5]);
});

const TWO_KEYS = 'title: Two keys\n[A]\nkey: F\n| F | C7 |\n[B]\nkey: Ab\n| Ab | Eb7 |\n';

test('each bar is written in the key of its section, what stands before and after the form in that of the first', () => {
  const bars = scoreOf({
    ...sheetOf(TWO_KEYS, [note(-1, 1), note(0, 4), note(15.5, 2)]),
    touchAt: () => null,
  });
  expect(bars.map(({ key }) => key && `${key.tonic.letter}${key.tonic.alter}`)).toEqual([
    'F0',
    'F0',
    'F0',
    'A-1',
    'A-1',
    'F0',
  ]);
});

test('slurs: from the picked note over all that the fretting hand begins; none after a rest or onto the same pitch', () => {
  const slurred = (onsetBeat: number, midi: number, durationBeats = 0.5): WrittenNote => ({
    ...note(onsetBeat, durationBeats, midi),
    attack: 'hammer',
  });
  const spansOf = (notes: readonly WrittenNote[]) =>
    slursOver(
      scoreOf(sheetOf('title: One\n| C | C |\n', notes)).flatMap(({ entries }) => entries),
      undefined,
      undefined,
    );
  const run = [note(0, 0.5), slurred(0.5, 66), slurred(1, 64), note(1.5, 0.5), slurred(2, 65)];
  expect(spansOf(run)).toEqual([
    { first: 0, last: 2 },
    { first: 3, last: 4 },
  ]);
  expect(spansOf([note(0, 0.5), slurred(1, 66)])).toEqual([]);
  expect(spansOf([note(0, 0.5), slurred(0.5, 64)])).toEqual([]);
  // over the bar line from where it was struck, and on from a chord
  expect(spansOf([note(3, 1.5), slurred(4.5, 66)])).toEqual([{ first: 2, last: 4 }]);
  expect(spansOf([note(0, 0.5), note(0, 0.5, 60), slurred(0.5, 66)])).toEqual([]);
});

test('a slur over the end of a line is open on both sides of it', () => {
  const [first, second] = scoreOf(
    sheetOf('title: One\n| C | C |\n', [note(3, 1), { ...note(4, 1, 66), attack: 'hammer' }]),
  ).map(({ entries }) => entries);
  expect(slursOver(first!, undefined, second![0])).toEqual([{ first: 2, last: 3 }]);
  expect(slursOver(second!, first!.at(-1), undefined)).toEqual([{ first: -1, last: 0 }]);
});
