import { expect, test } from '@jest/globals';
import { handCheckWords } from '@/presentation';
import { analyse } from '../analyse';
import { readChart, timelineOf } from '../chart';
import { STANDARD_INSTRUMENT } from '../neck';
import { planFromWords, planOn, type PlanWords } from '../plan';
import { unwrap } from '../shared';
import { handCheck } from '.';

const chart = unwrap(readChart('key: A\n| A7 | D7 |'));
const timeline = timelineOf(chart, 100);
function check(words: PlanWords, pitches: readonly number[], position?: number) {
  const plan = unwrap(planFromWords(words));
  const notes = pitches.map((midi, index) => ({ onsetBeat: index, durationBeats: 1, midi, position }));
  const report = analyse({ chart, tempo: 100, plan, notes, choruses: 1 });
  return handCheck(report, timeline, planOn(chart, timeline, plan).plan, STANDARD_INSTRUMENT);
}

test('a hand that is free is held against nothing', () => {
  expect(check({ id: 'outline' }, [57, 61])).toBeNull();
});

test('what cannot be played at the fifth fret is told with its bar; an open string always can', () => {
  // A3 at the seventh fret of the D string; E2 open; E♭5 lies at the eleventh of the first string
  const found = check({ id: 'outline', hand: '5' }, [57, 40, 60, 64, 75]);
  expect(found).toEqual({ notes: 5, said: 0, outside: [4], bars: [2] });
  expect(handCheckWords(found!)).toBe('1 note of 5 cannot be played where your plan has the hand: bar 2.');
});

test('what can be played there may have been played elsewhere: that is said', () => {
  expect(handCheckWords(check({ id: 'outline', hand: '5' }, [57, 60])!)).toBe(
    'All 2 notes can be played where your plan has the hand. Pitches cannot tell whether they were.',
  );
});

test('where the player says they were is believed', () => {
  const there = check({ id: 'outline', hand: '5' }, [57, 60], 5);
  expect(handCheckWords(there!)).toBe('All 2 notes were played where your plan has the hand, as you set it.');
  const elsewhere = check({ id: 'outline', hand: '5' }, [57, 60], 9);
  expect(elsewhere).toMatchObject({ said: 2, outside: [0, 1] });
  expect(handCheckWords(elsewhere!)).toBe(
    '2 notes of 2 lie elsewhere than your plan has the hand, all as you set them: bar 1.',
  );
});
