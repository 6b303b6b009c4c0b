import { expect, test } from '@jest/globals';
import { analyse } from '@/core/analyse';
import { readChart } from '@/core/chart';
import { unwrap } from '@/core/shared';
import { intoChordsWords } from './handoverWords';

const chart = unwrap(readChart('key: C\n| Dm7 | G7 | Cmaj7 | % |'));
const wordsFor = (hit: readonly number[]): string => {
  const line = [62, 64, 65, 67].map((midi, beat) => ({ onsetBeat: beat, durationBeats: 1, midi }));
  const chords = [4, 6].flatMap((onsetBeat) => hit.map((midi) => ({ onsetBeat, durationBeats: 1, midi })));
  const notes = [...line, ...chords];
  const report = analyse({ chart, tempo: 100, plan: { id: 'scale-per-chord' }, notes, choruses: 1 });
  expect(report.handovers).toHaveLength(1);
  return intoChordsWords(report, report.handovers[0]!);
};

test.each([
  [[59, 65, 67], ', G7 as written, your last note is its root'],
  [[56, 59, 61, 65], ', D♭7 instead of G7, your last note is its root'],
  [[56, 60, 63], ', another chord than G7, your last note is its root'],
])('where a line gives way to chords: %p', (hit, words) => expect(wordsFor(hit)).toBe(words));

test('where the line takes over there is no chord to name', () => {
  const notes = [
    ...[62, 65, 69].map((midi) => ({ onsetBeat: 0, durationBeats: 2, midi })),
    ...[67, 65, 62, 59].map((midi, beat) => ({ onsetBeat: 4 + beat, durationBeats: 1, midi })),
  ];
  const report = analyse({ chart, tempo: 100, plan: { id: 'scale-per-chord' }, notes, choruses: 1 });
  expect(report.handovers.map(({ to }) => to)).toEqual(['line']);
  expect(intoChordsWords(report, report.handovers[0]!)).toBe('');
});
