import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { secondsAt, steady, timelineOf, readChart } from '../chart';
import { LIMITS } from '../contracts';
import { editsSchema } from '../formats';
import { unwrap } from '../shared';
import { barAgain, corrected, editWords, heardId, playedAgain, type Edit, type SecondsNote } from './index';

const CHART = unwrap(readChart('title: Again\nkey: C\ntempo: 120\n| Dm7 | G7 | Cmaj7 | A7 |\n'));
const TIMELINE = timelineOf(CHART, 120);
const PACE = steady(120);
const TAKE = { pace: PACE, offsetSec: 1.5 };
let ids = 0;
const newId = () => `n${ids++}`;

const note = (onsetSec: number, midi: number, lasts = 0.4): SecondsNote => ({
  onsetSec,
  offsetSec: onsetSec + lasts,
  midi,
  confidence: 0.9,
});
/** Quarters through two choruses of the take. */
const HEARD = Array.from({ length: 32 }, (_, beat) => note(1.5 + beat / 2, 50 + (beat % 20)));
const again = (heard: readonly SecondsNote[], throughBar = 6, offsetSec = 0.8) =>
  playedAgain(barAgain(CHART, TIMELINE, PACE, throughBar), heard, offsetSec, TAKE, newId);
const at = (beat: number) => 1.5 + secondsAt(PACE, beat);

test('a bar is met out of the one before it, in the key it has in the form', () => {
  const { chartText, ...bar } = barAgain(CHART, TIMELINE, PACE, 6);
  expect(bar).toEqual({ tempo: 120, lead: 4, beats: 4, at: 20 });
  expect(chartText).toContain('| Dm7 | G7 |');
  // there is nothing before the first bar of the form
  expect(barAgain(CHART, TIMELINE, PACE, 5)).toMatchObject({ lead: 0, beats: 4, at: 16 });
});

test('only the notes of the bar give way, and the new ones lie in the take as they were played', () => {
  // beat 0 of the passage lies at 0.8 s: the bar itself from 2.8 to 4.8 s
  const edit = again([note(1.8, 70), note(2.75, 71), note(3.8, 72, 5), note(4.85, 73)]);
  expect(edit.notes.map(({ midi, onsetSec }) => [midi, +onsetSec.toFixed(3)])).toEqual([
    [71, +(at(20) - 0.05).toFixed(3)],
    [72, at(22)],
  ]);
  const now = corrected(HEARD, [edit]);
  const inBar = (notes: readonly SecondsNote[]) =>
    notes.filter(({ onsetSec }) => onsetSec > at(19.8) && onsetSec < at(23.8)).map(({ midi }) => midi);
  expect(inBar(HEARD)).toHaveLength(4);
  expect(inBar(now)).toEqual([71, 72]);
  expect(now).toHaveLength(HEARD.length - 2);
  // what rang into the bar ends where its line begins, and the last note where the line goes on
  expect(now.find(({ id }) => id === heardId(19))!.offsetSec).toBeLessThanOrEqual(edit.notes[0]!.onsetSec);
  expect(now.find(({ midi }) => midi === 72)!.offsetSec).toBeCloseTo(at(24));
  expect(editWords(edit, 'B')).toBe('a bar played again from B');
});

test('a bar in which nothing was played is a rest', () => {
  const edit = again([]);
  expect(corrected(HEARD, [edit])).toHaveLength(HEARD.length - 4);
  expect(editWords(edit, 'a note')).toBe('a bar played again: a rest');
});

test('one undo brings back what was heard, and later edits of the new notes hold', () => {
  const edit = again([note(2.8, 71)]);
  const later: Edit = { kind: 'pitch', id: edit.id, midi: 60 };
  expect(corrected(HEARD, [edit, later]).find(({ id }) => id === edit.id)?.midi).toBe(60);
  expect(corrected(HEARD, [])).toEqual(HEARD.map((one, index) => ({ ...one, id: heardId(index) })));
});

test('whatever is played: outside of the bar no note begins elsewhere, inside only what was played', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.double({ min: 0, max: 6, noNaN: true }), fc.integer({ min: 40, max: 88 })), {
        maxLength: 24,
      }),
      fc.integer({ min: 1, max: 8 }),
      (played, throughBar) => {
        const heard = played
          .map(([onset, midi]) => note(onset, midi))
          .sort((a, b) => a.onsetSec - b.onsetSec);
        const edit = again(heard, throughBar);
        const now = corrected(HEARD, [edit]);
        const outside = (one: SecondsNote) => one.onsetSec < edit.fromSec || one.onsetSec >= edit.toSec;
        expect(now.filter(outside).map(({ onsetSec, midi }) => [onsetSec, midi])).toEqual(
          HEARD.filter(outside).map(({ onsetSec, midi }) => [onsetSec, midi]),
        );
        expect(now.filter((one) => !outside(one))).toHaveLength(edit.notes.length);
        expect(now.every(({ onsetSec, offsetSec }) => offsetSec > onsetSec)).toBe(true);
        expect(editsSchema.validate([edit]).error).toBeUndefined();
      },
    ),
  );
});

test('no bar holds more notes than the limit says', () => {
  const many = (count: number): Edit => ({
    ...again([]),
    notes: Array.from({ length: count }, (_, index) => ({
      ...note(11 + index / 1000, 60, 0.1),
      id: `m${index}`,
    })),
  });
  expect(editsSchema.validate([many(LIMITS.notes.playedAgain)]).error).toBeUndefined();
  expect(editsSchema.validate([many(LIMITS.notes.playedAgain + 1)]).error).toBeDefined();
});
