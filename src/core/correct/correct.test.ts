import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { analyse } from '../analyse';
import { readChart } from '../chart';
import { editsSchema, wordsSchema } from '../formats';
import { unwrap } from '../shared';
import {
  corrected,
  doubtsOf,
  editWords,
  heardId,
  playedFrom,
  reportPlaces,
  wordsText,
  withEdit,
  type Edit,
  type SecondsNote,
} from './index';

const note = (onsetSec: number, midi: number, more: Partial<SecondsNote> = {}): SecondsNote => ({
  onsetSec,
  offsetSec: onsetSec + 0.4,
  midi,
  confidence: 0.95,
  ...more,
});
const HEARD = [note(0, 60), note(0.5, 62), note(1, 64), note(1.5, 65)];
const pitches = (edits: readonly Edit[], heard = HEARD) => corrected(heard, edits).map(({ midi }) => midi);

test('each edit does what it says, and what was heard stays as it was', () => {
  const before = JSON.stringify(HEARD);
  expect(pitches([])).toEqual([60, 62, 64, 65]);
  expect(pitches([{ kind: 'delete', id: 'h1' }])).toEqual([60, 64, 65]);
  expect(pitches([{ kind: 'add', id: 'a1', onsetSec: 0.45, offsetSec: 0.5, midi: 70 }])).toEqual([
    60, 70, 62, 64, 65,
  ]);
  expect(pitches([{ kind: 'pitch', id: 'h2', midi: 63 }])).toEqual([60, 62, 63, 65]);
  expect(pitches([{ kind: 'time', id: 'h0', onsetSec: 1.2, offsetSec: 1.4 }])).toEqual([62, 64, 60, 65]);
  const split = corrected(HEARD, [{ kind: 'split', id: 'h0', atSec: 0.2, newId: 'a2' }]);
  expect(
    split.slice(0, 2).map(({ id, onsetSec, offsetSec, midi }) => [id, onsetSec, offsetSec, midi]),
  ).toEqual([
    ['h0', 0, 0.2, 60],
    ['a2', 0.2, 0.4, 60],
  ]);
  const merged = corrected(HEARD, [{ kind: 'merge', id: 'h0', withId: 'h1' }]);
  expect(merged[0]).toMatchObject({ id: 'h0', onsetSec: 0, offsetSec: 0.9, midi: 60, edited: true });
  expect(merged).toHaveLength(3);
  const bordered = corrected(HEARD, [{ kind: 'phrase', id: 'h2', border: 'begins' }]);
  expect(bordered[2]).toMatchObject({ phrase: 'begins', confidence: 0.95 });
  expect(bordered[2]!.edited).toBeUndefined();
  expect(playedFrom(bordered, 120, 0)[2]!.phrase).toBe('begins');
  const ghost = corrected(HEARD, [{ kind: 'ghost', id: 'h3', ghost: true }]);
  expect(ghost[3]).toMatchObject({ ghost: true, edited: true });
  expect(
    corrected(HEARD, [
      { kind: 'ghost', id: 'h3', ghost: true },
      { kind: 'ghost', id: 'h3', ghost: false },
    ])[3]!.ghost,
  ).toBeUndefined();
  expect(JSON.stringify(HEARD)).toBe(before);
});

test('a new pitch is played as written; a split bend is told by its first part', () => {
  const bent = [
    note(0, 60, {
      cents: 20,
      bend: [
        [0, 0],
        [0.1, 200],
        [0.3, 200],
      ],
      slide: { fromMidi: 58, seconds: 0.1 },
    }),
  ];
  expect(corrected(bent, [{ kind: 'pitch', id: 'h0', midi: 61 }])[0]).toEqual({
    id: 'h0',
    onsetSec: 0,
    offsetSec: 0.4,
    midi: 61,
    confidence: 1,
    edited: true,
  });
  const [first, second] = corrected(bent, [{ kind: 'split', id: 'h0', atSec: 0.2, newId: 'a' }]);
  expect([first!.bend, first!.slide?.fromMidi, second!.bend, second!.slide]).toEqual([
    [
      [0, 0],
      [0.1, 200],
    ],
    58,
    undefined,
    undefined,
  ]);
});

test('edits of notes that are gone, too short or twice do nothing', () => {
  expect(
    pitches([
      { kind: 'delete', id: 'h9' },
      { kind: 'pitch', id: 'x', midi: 1 },
      { kind: 'merge', id: 'h0', withId: 'h0' },
      { kind: 'split', id: 'h0', atSec: 0.39, newId: 'b' },
      { kind: 'time', id: 'h0', onsetSec: 1, offsetSec: 1.001 },
      { kind: 'add', id: 'h1', onsetSec: 0, offsetSec: 1, midi: 99 },
    ]),
  ).toEqual([60, 62, 64, 65]);
});

const anyEdit = fc.oneof(
  fc.record({ kind: fc.constant('delete' as const), id: fc.constantFrom('h0', 'h1', 'h2', 'a1') }),
  fc.record({
    kind: fc.constant('pitch' as const),
    id: fc.constantFrom('h0', 'h3', 'a1'),
    midi: fc.integer({ min: 20, max: 108 }),
  }),
  fc.record({
    kind: fc.constant('add' as const),
    id: fc.constantFrom('a1', 'a2'),
    onsetSec: fc.double({ min: 0, max: 2, noNaN: true }),
    offsetSec: fc.double({ min: 0, max: 3, noNaN: true }),
    midi: fc.integer({ min: 20, max: 108 }),
  }),
  fc.record({
    kind: fc.constant('split' as const),
    id: fc.constantFrom('h0', 'a1'),
    atSec: fc.double({ min: 0, max: 2, noNaN: true }),
    newId: fc.constantFrom('a2', 'a3'),
  }),
  fc.record({
    kind: fc.constant('merge' as const),
    id: fc.constantFrom('h0', 'h1', 'a1'),
    withId: fc.constantFrom('h2', 'a2'),
  }),
);

test('whatever the edits: notes last, are in order and named once; the last taken back is as if it had never been', () => {
  fc.assert(
    fc.property(fc.array(anyEdit, { maxLength: 12 }), (edits) => {
      const notes = corrected(HEARD, edits);
      expect(
        notes.every(
          (one, index) =>
            one.offsetSec > one.onsetSec && (index === 0 || one.onsetSec >= notes[index - 1]!.onsetSec),
        ),
      ).toBe(true);
      expect(new Set(notes.map(({ id }) => id)).size).toBe(notes.length);
      expect(corrected(HEARD, [...edits, { kind: 'delete' as const, id: 'h3' }].slice(0, -1))).toEqual(notes);
      expect(editsSchema.validate(edits).error).toBeUndefined();
    }),
    { numRuns: 150 },
  );
});

test('edits that are none are refused at their place', () => {
  for (const [bad, at] of [
    [[{ kind: 'pitch', id: 'h0', midi: 200 }], '0'],
    [[{ kind: 'fly', id: 'h0' }], '0'],
    [[{ kind: 'delete', id: '../x' }], '0'],
  ] as const)
    expect(editsSchema.validate(bad, { convert: false }).error!.details[0]!.path.join('.')).toContain(at);
});

test('doubts: an octave out of its line, a pitch between two keys, and what is hardly believed; least sure first; none once said', () => {
  const heard = [
    note(0, 60),
    note(0.5, 74, { confidence: 0.8 }),
    note(1, 63),
    note(1.5, 64, { cents: 42 }),
    note(2, 65, { confidence: 0.55 }),
    note(2.5, 67),
  ];
  const doubts = doubtsOf(corrected(heard, []));
  expect(doubts.map(({ id, why }) => [id, why])).toEqual([
    ['h1', 'octave'],
    ['h4', 'faint'],
    ['h3', 'between'],
  ]);
  expect(doubts[0]!.readings.map(({ midi }) => midi)).toEqual([62, 74]);
  expect(doubts[2]!.readings.map(({ midi }) => midi)).toEqual([64, 65]);
  expect(doubts[1]!.readings[1]!.midi).toBeNull();
  for (const {
    readings: [a, b],
  } of doubts)
    expect(a.belief).toBeGreaterThanOrEqual(b.belief);
  expect(
    doubtsOf(
      corrected(heard, [
        { kind: 'sure', id: 'h1' },
        { kind: 'pitch', id: 'h3', midi: 65 },
        { kind: 'delete', id: 'h4' },
      ]),
    ),
  ).toEqual([]);
});

test('a report finds its notes again, also where a slide made two of one and a ghost none', () => {
  const heard = [
    note(0, 60),
    note(0.5, 62),
    note(1, 64),
    note(1.5, 69, {
      offsetSec: 2.4,
      bend: [
        [0, -500],
        [0.3, -500],
        [0.4, 0],
        [0.9, 0],
      ],
    }),
  ];
  const played = playedFrom(corrected(heard, [{ kind: 'ghost', id: heardId(1), ghost: true }]), 120, 0);
  expect(played.map(({ id }) => id)).toEqual(['h0', 'h2', 'h3']);
  const report = analyse({
    chart: unwrap(readChart('| C | F |')),
    tempo: 120,
    plan: { id: 'outline' },
    choruses: 1,
    notes: played,
  });
  const places = reportPlaces(report, played);
  expect(places).toHaveLength(report.notes.length);
  expect(places.slice(0, 3)).toEqual(['h0', 'h2', 'h3']);
  expect(places.slice(2).every((id) => id === 'h3')).toBe(true);
});

test('what lies long before bar 1 is tuning up', () => {
  expect(playedFrom(corrected([note(0, 40), note(9, 60)], []), 120, 9)).toHaveLength(1);
});

test('words of a player are checked and can be searched; edits say themselves', () => {
  const words = { stars: 3, tags: ['Blues'], remarks: [{ id: 'r1', text: 'Rush in bar 4', bar: 4 }] };
  expect(wordsSchema.validate(words).error).toBeUndefined();
  expect(wordsSchema.validate({ ...words, stars: 6 }).error).toBeDefined();
  expect(wordsText(words)).toBe('blues\nrush in bar 4');
  expect(editWords({ kind: 'split', id: 'h0', atSec: 1, newId: 'a' }, 'E♭')).toBe('E♭ split');
});

test('where the hand lay is said of notes, not of what they are; moved along it is one edit, and it can be unsaid', () => {
  const one: Edit = { kind: 'position', id: 'h0', ids: ['h0', 'h1', 'gone'], fret: 5 };
  const notes = corrected(HEARD, [one]);
  expect(notes.map(({ position }) => position)).toEqual(HEARD.map((_, index) => (index < 2 ? 5 : undefined)));
  expect(notes[0]!.edited).toBeUndefined();
  expect(notes[0]!.confidence).toBe(corrected(HEARD, [])[0]!.confidence);
  expect(playedFrom(notes, 120, 0)[0]!.position).toBe(5);
  const moved = withEdit(withEdit([], one), { ...one, fret: 6 });
  expect(moved).toEqual([{ ...one, fret: 6 }]);
  expect(withEdit(moved, { ...one, ids: ['h0'] })).toHaveLength(2);
  const unsaid = corrected(HEARD, [one, { ...one, fret: null }]);
  expect(unsaid).toEqual(corrected(HEARD, []));
  expect([editWords(one, 'C4'), editWords({ ...one, fret: null }, 'C4')]).toEqual([
    'fret 5 from C4',
    'the likeliest place from C4',
  ]);
  expect(editsSchema.validate([one]).error).toBeUndefined();
  for (const wrong of [
    { ...one, fret: 0 },
    { ...one, fret: 99 },
    { ...one, ids: [] },
  ])
    expect(editsSchema.validate([wrong]).error).toBeDefined();
});

test('picked or slurred is said of how a note was begun: it is as sure as before', () => {
  const heard = [
    { onsetSec: 1, offsetSec: 1.2, midi: 60, confidence: 0.7, attack: 'pick' as const },
    { onsetSec: 1.2, offsetSec: 1.5, midi: 62, confidence: 0.6 },
  ];
  const edit: Edit = { kind: 'attack', id: 'h1', attack: 'hammer' };
  expect(corrected(heard, [edit])[1]).toEqual({ ...heard[1], id: 'h1', attack: 'hammer' });
  expect(editWords(edit, 'D4')).toBe('D4 hammered on');
  expect(editsSchema.validate([edit, { ...edit, attack: 'pick' }]).error).toBeUndefined();
  expect(editsSchema.validate([{ ...edit, attack: 'slide' }]).error).toBeDefined();
});
