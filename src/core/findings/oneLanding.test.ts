import { expect, test } from '@jest/globals';
import { analyse, type PlayedNote } from '../analyse';
import { harmonyOf, readChart, timelineOf } from '../chart';
import { planOf } from '../plan';
import { unwrap } from '../shared';
import { marksOf, oneLanding } from './index';

const chart = unwrap(readChart('key: C\n| Dm7 | G7 | Cmaj7 | % |'));
const note = (onsetBeat: number, midi: number, durationBeats = 1): PlayedNote => ({
  onsetBeat,
  durationBeats,
  midi,
});
function landingOf(notes: PlayedNote[], choruses = 2) {
  const plan = { id: 'outline' as const };
  const report = analyse({ chart, tempo: 100, notes, choruses, plan });
  return oneLanding(
    report,
    marksOf(
      report,
      planOf(plan, harmonyOf(chart, timelineOf(chart, 100)), timelineOf(chart, 100)),
      chart,
      100,
    ),
  );
}
/** Into G7: B (its third) in one chorus, C (its fourth) in the other; into Cmaj7 E both times. */
const LINE = [
  note(0, 62),
  note(3, 65),
  note(4, 71),
  note(7, 65),
  note(8, 64),
  note(12, 67),
  note(16, 65),
  note(19, 64),
  note(20, 72),
  note(22, 74),
  note(24, 64),
  note(28, 67),
];

test('the change that passed the player by most often is the one shown, with its landings and where it is', () => {
  const landing = landingOf(LINE)!;
  expect([landing.from, landing.to, landing.bar, landing.soft, landing.bold]).toEqual([
    'Dm7',
    'G7',
    2,
    'Into G7 you met its third',
    'once in 2.',
  ]);
  expect(landing.groups.map(({ mark, count }) => [mark, count])).toEqual([
    ['not-met', 1],
    ['target', 1],
  ]);
  expect(landing.groups.at(-1)!.chips).toEqual([{ interval: '3', height: 0 }]);
});

test('where every change was met, it says so; at rest nothing is judged', () => {
  const all = landingOf([0, 16].flatMap((at) => [note(at, 65), note(at + 4, 71), note(at + 8, 64)]))!;
  expect(all.bold).toMatch(/^every time, 2 of 2\.$/);
  expect(landingOf([])).toBeNull();
});

test('never met, it says how often there was the chance', () =>
  expect(
    landingOf([note(0, 62), note(3, 64), note(4, 72), note(16, 62), note(19, 64), note(20, 72)])!.bold,
  ).toBe('not once in 2.'));
