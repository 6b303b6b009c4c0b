import { expect, test } from '@jest/globals';
import { analyse } from '@/core/analyse';
import { improvise } from '@/core/band';
import { homeOf, readChart, timelineOf, transposeText, writeChart } from '@/core/chart';
import { exampleOf } from '@/core/drills';
import { drillOfFinding, findingsOf } from '@/core/findings';
import { readScale } from '@/core/music';
import { planFromWords, planOn, readPlan, transposePlan, type PlanWords } from '@/core/plan';
import { unwrap } from '@/core/shared';
import { studyOf } from '@/features/study/studyView';

// A home scale that no default would give: D dorian over a song in C. Every place that speaks of a home scale is
// asked; where one still took the key's default, C major, it would name B over the wrong chords or miss F#.
const TEXT = 'key: C\ntempo: 120\n\n| Cmaj7 | A7 | Dm7 | G7 |\n';
const OTHER = 'G minor pentatonic';
const WITH = TEXT.replace('tempo', `home: ${OTHER}\ntempo`);
const own = unwrap(readScale(OTHER));

const chart = (text: string) => unwrap(readChart(text));
const note = (onsetBeat: number, midi: number) => ({ onsetBeat, durationBeats: 1, midi });
// Bb, of the home scale alone, over Cmaj7; B, which it lacks, over G7
const NOTES = [note(0, 70), note(2, 72), note(4, 69), note(8, 74), note(12, 71)];
const judged = (text: string, plan: PlanWords) =>
  analyse({ chart: chart(text), tempo: 120, notes: NOTES, plan: unwrap(planFromWords(plan)) });

/** Told by the chart, or by the plan: both must say the same. */
const WAYS: [string, string, PlanWords][] = [
  ['by the chart', WITH, { id: 'scale-per-chord' }],
  ['by the plan', TEXT, { id: 'scale-per-chord', home: OTHER }],
];

test.each(WAYS)('%s it is the one of every chord', (_, text, words) => {
  const timeline = timelineOf(chart(text), 120);
  const { plan, harmony } = planOn(chart(text), timeline, unwrap(planFromWords(words)));
  expect(plan.homeScales.map(({ name }) => name)).toEqual(Array(4).fill(OTHER));
  expect(harmony.homeScales).toEqual(plan.homeScales);
});

test.each(WAYS)('%s it decides tell-tale and avoid notes', (_, text, words) => {
  const planned = readPlan(chart(text), timelineOf(chart(text), 120), unwrap(planFromWords(words)));
  expect(planned.map(({ tellTale }) => tellTale.map(({ name }) => name).join(' '))).toEqual([
    'E B',
    'A C# E',
    'A',
    'B',
  ]);
  expect(planned.map(({ avoid }) => avoid.map(({ name }) => name).join(' '))).toEqual([
    'F Bb',
    'C D',
    '',
    'Bb C',
  ]);
});

test.each(WAYS)('%s it decides tension levels and what of it was used', (_, text, words) => {
  const plain = judged(TEXT, { id: 'scale-per-chord' });
  const report = judged(text, words);
  // Bb over Cmaj7: in neither scale by the key, of the home scale by the player's choice
  expect([plain.notes[0]!.tier, report.notes[0]!.tier]).toEqual(['outside', 'scale']);
  expect(
    [...report.coverageOverall.homeUsed, ...report.coverageOverall.homeUnused].sort((a, b) => a - b),
  ).toEqual([...own.pcs].sort((a, b) => a - b));
});

test.each(WAYS)('%s it decides findings, their drills and the lines of these', (_, text, words) => {
  const form = chart(text);
  const plan = unwrap(planFromWords({ ...words, id: 'scale-per-chord' }));
  // four choruses of the home scale alone
  const notes = Array.from({ length: 64 }, (__, beat) => note(beat, [67, 70, 72, 74, 77][beat % 5]!));
  const report = analyse({ chart: form, tempo: 120, notes, plan });
  const found = findingsOf({ chart: form, tempo: 120, plan, report });
  const home = found.find(({ kind }) => kind === 'home-scale-only');
  expect(home).toBeDefined();
  const drill = drillOfFinding(home!, form, words)!;
  const laid = planOn(
    chart(drill.chartText),
    timelineOf(chart(drill.chartText), 100),
    unwrap(planFromWords(drill.plan)),
  );
  expect(laid.plan.homeScales[0]!.name).toBe(OTHER);
  expect(exampleOf(drill, 1, 1)).not.toBeNull();
});

test.each(WAYS)('%s the stand-in plays it', (_, text, words) => {
  const plan = unwrap(planFromWords({ ...words, id: 'home-scale' }));
  const line = improvise({
    chart: chart(text),
    tempo: 120,
    choruses: 4,
    seed: 3,
    plan,
    profile: { meet: 1 },
  });
  const inside = line.filter(({ midi }) => own.pcs.includes(midi % 12)).length;
  expect(inside / line.length).toBeGreaterThan(0.6);
});

test.each(WAYS)('%s Study shows it', (_, text, words) => {
  const study = studyOf(chart(text), unwrap(planFromWords(words)));
  expect(study.meta.join(' ')).toContain('home scale G minor pentatonic: G B♭ C D F');
  expect(study.cells[0]!.lacks).toEqual(['E', 'B']);
  expect(study.grid[0]!.cells.map(({ name }) => name)).toEqual(['G', 'Bb', 'C', 'D', 'F']);
});

test('it goes with the chart through writing and transposing', () => {
  expect(homeOf(chart(writeChart(chart(WITH)))).name).toBe(OTHER);
  expect(homeOf(chart(unwrap(transposeText(WITH, { by: 2 })))).name).toBe('A minor pentatonic');
});

test('a plan moves to another key with its home scales and the chords it names', () =>
  expect(
    transposePlan(
      {
        id: 'home-scale',
        home: 'A minor pentatonic',
        parts: [{ where: { chord: 'D7' }, plan: { id: 'home-scale', home: 'D 1 b3 4 5 6' } }],
      },
      5,
    ),
  ).toEqual({
    id: 'home-scale',
    home: 'D minor pentatonic',
    parts: [{ where: { chord: 'G7' }, plan: { id: 'home-scale', home: 'G 1 b3 4 5 6' } }],
  }));

test.each([
  ['home: E minor pentatonik', 'E minor pentatonic', 9],
  ['home: H dorian', 'C major', 7],
  ['key: A dorain', 'A dorian', 6],
])('%s is refused with its column and what was meant', (line, suggestion, column) => {
  const read = readChart(`${line}\n| C |\n`);
  expect(read.ok ? null : [read.problems[0].suggestion, read.problems[0].line]).toEqual([suggestion, 1]);
  expect(read.ok ? 0 : read.problems[0].column).toBe(column);
});
