import { expect, test } from '@jest/globals';
import { improvise } from '../../band';
import { LIBRARY, readChart } from '../../chart';
import { unwrap } from '../../shared';
import { analyse, type PlayedNote, type Report } from '../index';

const plan = { id: 'scale-per-chord' as const };
const FORMS = ['lamplight', 'orchard', 'ferry'].map((id) =>
  unwrap(readChart(LIBRARY.find((form) => form.id === id)!.text)),
);
const shifted = (notes: readonly PlayedNote[], ms: number, tempo: number): PlayedNote[] =>
  notes.map((note) => ({ ...note, onsetBeat: note.onsetBeat + (ms / 1000) * (tempo / 60) }));
const verdictsOf = ({ notes, changes }: Report) => [
  notes.map(({ function: name, tier, chord }) => [name, tier, chord]),
  changes.map(({ landing }) => [landing.noteIndex, landing.timing, landing.verdict]),
];

test('a take shifted by up to 120 ms is judged as it is unshifted, or says that latency should be measured', () => {
  const counts = { same: 0, undecided: 0, other: 0 };
  const others: string[] = [];
  FORMS.forEach((chart, form) => {
    for (const tempo of [84, 120, 168])
      for (const seed of [1, 2, 3]) {
        const profile = { meet: 0.85, spreadMs: 12 };
        const notes = improvise({ chart, tempo, choruses: 3, plan, seed, profile });
        const straight = analyse({ chart, tempo, plan, notes, choruses: 3 });
        for (const ms of [-120, -75, -30, 45, 90, 120]) {
          const report = analyse({ chart, tempo, plan, notes: shifted(notes, ms, tempo), choruses: 3 });
          const isSame = JSON.stringify(verdictsOf(report)) === JSON.stringify(verdictsOf(straight));
          const differs = report.time.lean.isDecided ? 'other' : 'undecided';
          const kind = isSame ? 'same' : differs;
          counts[kind]++;
          if (kind === 'other')
            others.push(`form ${form} at ${tempo}, seed ${seed}, ${ms}: ${JSON.stringify(report.time.lean)}`);
        }
      }
  });
  console.log(JSON.stringify(counts), others.slice(0, 12).join('\n'));
  expect(counts.other).toBe(0);
  expect(counts.same).toBeGreaterThan(9 * counts.undecided);
}, 120_000);

test('quarters on the beat up and down a scale have no lean, whatever their pitches would tell', () => {
  const chart = unwrap(
    readChart(
      'key: Bb\nfeel: swing\n| Bb7 | Eb7 | Bb7 | % |\n| Eb7 | % | Bb7 | G7 |\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |',
    ),
  );
  const scale = [58, 61, 63, 65, 68, 65, 63, 61];
  const notes = Array.from({ length: 130 }, (_, beat) => ({
    onsetBeat: beat,
    durationBeats: 0.9,
    midi: scale[beat % 8]!,
  }));
  const leanAt = (ms: number) =>
    analyse({ chart, tempo: 120, plan, notes: shifted(notes, ms, 120), choruses: 3 }).time.lean;
  expect(leanAt(0)).toMatchObject({ ms: 0, takenMs: 0, isDecided: true });
  for (const ms of [-60, 45, 80]) expect([ms, Math.round(leanAt(ms).ms!)]).toEqual([ms, ms]);
});
