import { expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { readChart, timelineOf, harmonyOf } from '../chart';
import { improvise } from '../band';
import { analyse, type PlayedNote } from '../analyse';
import { planOf } from '../plan';
import { findingsOf, findingsOver, firstPageOf, marksOf, wilsonInterval, type Finding } from './index';
import { intervalWord, times, typeset } from '../music';

// Wilson (JASA 1927); values from the closed form by hand, z = 1.959964.
test.each([
  [0, 0, 0, 1],
  [5, 10, 0.2366, 0.7634],
  [0, 10, 0, 0.2775],
  [10, 10, 0.7225, 1],
  [1, 6, 0.0301, 0.5635],
])('Wilson interval of %i in %i', (met, of, low, high) => {
  const [a, b] = wilsonInterval(met, of);
  expect(a).toBeCloseTo(low, 3);
  expect(b).toBeCloseTo(high, 3);
});

test('words', () => {
  expect([times(0), times(1), times(2), times(7)]).toEqual(['never', 'once', 'twice', '7 times']);
  expect(['Bb7', 'Ebm7b5', 'F#', 'Bbb', 'C7#9', 'Bb blues'].map(typeset)).toEqual([
    'B♭7',
    'E♭m7♭5',
    'F♯',
    'B♭♭',
    'C7♯9',
    'B♭ blues',
  ]);
  expect([intervalWord('b3'), intervalWord('#11'), intervalWord('b7')]).toEqual([
    'third',
    'sharp eleventh',
    'seventh',
  ]);
});

const text = 'key: Bb\n| Bb7 | Eb7 | Bb7 | % |\n| Eb7 | % | Bb7 | G7 |\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |';
const chart = unwrap(readChart(text));
const findings = (notes: PlayedNote[], choruses = 4) => {
  const plan = { id: 'scale-per-chord' as const };
  return findingsOf({ chart, tempo: 96, plan, report: analyse({ chart, tempo: 96, notes, choruses, plan }) });
};

test('what the ears doubt weighs less: the same missed landings, sure, in doubt and most likely not played', () => {
  const plan = { id: 'scale-per-chord' as const };
  const played = improvise({
    chart,
    tempo: 96,
    choruses: 4,
    plan,
    seed: 1,
    profile: { meet: 0.95, changes: { F7: 0.05 }, early: 0, late: 0, outside: 0 },
  });
  const missed = new Set(
    analyse({ chart, tempo: 96, notes: played, choruses: 4, plan }).changes.flatMap(({ to, landing }) =>
      to === 'F7' && landing.verdict !== 'target' && landing.noteIndex !== null ? [landing.noteIndex] : [],
    ),
  );
  expect(missed.size).toBeGreaterThan(4);
  const intoF7 = (confidence: number) => {
    const notes = played.map((note, index) => (missed.has(index) ? { ...note, confidence } : note));
    const report = analyse({ chart, tempo: 96, notes, choruses: 4, plan });
    const request = { chart, tempo: 96, plan, report };
    const isThere = ({ kind, where }: Finding) => kind === 'target-missed' && where.change?.endsWith('→F7');
    const { findings: sure, tooFew } = findingsOver([request]);
    return { sure: sure.find(isThere), tooFew: tooFew.find(isThere) };
  };
  const [sure, doubted, unlikely] = [1, 0.6, 0.1].map(intoF7);
  // the counts are told as they were heard; how sure they are follows the ears
  expect(sure!.sure!.of).toBe(doubted!.sure!.of);
  expect(doubted!.sure!.interval[1]).toBeGreaterThan(sure!.sure!.interval[1]);
  expect(doubted!.sure!.weight).toBeLessThanOrEqual(sure!.sure!.weight);
  expect(unlikely!.sure).toBeUndefined();
  expect(unlikely!.tooFew?.certainty).not.toBe('sure');
});

test('over one chord nothing is said of changes', () => {
  const plan = { id: 'scale-per-chord' as const };
  const vamp = unwrap(readChart('key: D dorian\n| Dm7 | % | % | % |\n| Dm7 | % | % | % |'));
  const notes = improvise({ chart: vamp, tempo: 104, choruses: 3, plan, seed: 3, profile: { meet: 1 } });
  const report = analyse({ chart: vamp, tempo: 104, notes, choruses: 3, plan });
  const request = { chart: vamp, tempo: 104, plan, report };
  const { findings: found, tooFew } = findingsOver([request]);
  expect(report.changes).toEqual([]);
  const { strength, step } = firstPageOf(request, { findings: [], tooFew: [] });
  expect(strength?.kind).not.toBe('heard-without-band');
  // three choruses were played: nobody is asked to play two
  expect(['another-register', 'faster']).toContain(step?.kind);
  for (const { sentence, title } of [...found, ...tooFew])
    expect(`${title} ${sentence}`).not.toMatch(/chang/);
});

test.each(['F7', 'G7', 'Eb7'])(
  'a planted weakness over %s comes back as the first finding, with its counts, bars and drill',
  (weak) => {
    for (const seed of [1, 2, 3]) {
      const notes = improvise({
        chart,
        tempo: 96,
        choruses: 4,
        plan: { id: 'scale-per-chord' },
        seed,
        profile: { meet: 0.95, changes: { [weak]: 0.05 }, early: 0, late: 0, outside: 0 },
      });
      const [first] = findings(notes);
      expect([seed, first?.kind, first?.where.change?.split('→')[1]]).toEqual([seed, 'target-missed', weak]);
      expect(first!.of).toBeGreaterThanOrEqual(5);
      expect(first!.interval[1]).toBeLessThan(0.75);
      expect(first!.where.bars).toHaveLength(first!.of - first!.met);
      expect(first!.sentence).toMatch(new RegExp(`into ${typeset(weak)} you (never )?landed on`));
      expect(first!.drill).toMatchObject({ kind: 'one-target', change: first!.where.change, tempo: 72 });
    }
  },
);

test('a player who meets everything gets no target-missed', () => {
  const notes = improvise({
    chart,
    tempo: 96,
    choruses: 4,
    plan: { id: 'scale-per-chord' },
    seed: 5,
    profile: { meet: 1, early: 0, late: 0 },
  });
  expect(findings(notes).filter((one) => one.kind === 'target-missed')).toEqual([]);
});

test('too few places are too few to judge', () => {
  const notes = improvise({
    chart,
    tempo: 96,
    choruses: 1,
    plan: { id: 'scale-per-chord' },
    seed: 5,
    profile: { meet: 0 },
  });
  expect(findings(notes, 1).filter((one) => one.kind === 'target-missed')).toEqual([]);
});

test('a tell-tale tone that never sounds in ten notes is change-ignored', () => {
  // over G7 only F, G and D: its B, which B flat blues lacks, never
  const notes = Array.from({ length: 12 }, (_, n) => ({
    onsetBeat: 28 + n * 0.3,
    durationBeats: 0.3,
    midi: [65, 67, 62][n % 3]!,
  }));
  const found = findings(notes, 1).find((one) => one.where.chord === 'G7');
  expect(found).toMatchObject({ kind: 'change-ignored', met: 0, of: 12, title: 'B over G7' });
  expect(found!.detail).toContain('home scale lacks');
});

test('no space: a line that never stops', () => {
  const notes = Array.from({ length: 192 }, (_, n) => ({
    onsetBeat: n * 0.5,
    durationBeats: 0.5,
    midi: 62 + [0, 3, 5, 8][n % 4]!,
  }));
  expect(findings(notes, 2).map((one) => one.kind)).toContain('no-space');
});

test('findings come with the heaviest first, and marks say the five marks of a landing', () => {
  const notes = improvise({
    chart,
    tempo: 96,
    choruses: 4,
    plan: { id: 'scale-per-chord' },
    seed: 8,
    profile: { meet: 0.3 },
  });
  const all = findings(notes);
  expect(all.map((one) => one.weight)).toEqual([...all.map((one) => one.weight)].sort((a, b) => b - a));
  const report = analyse({ chart, tempo: 96, notes, choruses: 4, plan: { id: 'scale-per-chord' } });
  const timeline = timelineOf(chart, 96);
  const marks = marksOf(report, planOf({ id: 'scale-per-chord' }, harmonyOf(chart, timeline)), chart, 96);
  expect(marks.filter((mark) => mark === 'target')).toHaveLength(report.summary.targetsMet);
  expect(marks.filter((mark) => mark === 'target-late')).toHaveLength(report.summary.targetsMetLate);
  expect(marks.filter((mark) => mark === 'rest')).toHaveLength(
    report.changes.filter((change) => change.landing.rest).length,
  );
});
