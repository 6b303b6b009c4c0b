import { expect, test } from '@jest/globals';
import { LIBRARY, readChart } from '../chart';
import { lineFaults, lineWorth } from '../lines';
import { elementAt, unwrap } from '../shared';
import { DRILL_KINDS, drillFor, examplesOf, judgeDrill } from '.';

const chart = unwrap(readChart(LIBRARY.find(({ id }) => id === 'lamplight')!.text));
const plan = { id: 'scale-per-chord' as const };

test('eight different lines for a drill, every one passes, the best first', () => {
  const short: string[] = [];
  for (const kind of DRILL_KINDS.filter((_, place) => place % 3 === 0)) {
    const drill = drillFor({ kind, chart, tempo: 92, plan, span: [1, 12] });
    const lines = examplesOf(drill, 8);
    if (lines.length < 8) short.push(`${kind} ${lines.length}`);
    const spelled = lines.map(({ line }) =>
      JSON.stringify(line.map(({ onsetBeat, midi }) => [onsetBeat, midi])),
    );
    expect([kind, new Set(spelled).size]).toEqual([kind, lines.length]);
    for (const { line, passes } of lines)
      expect([kind, judgeDrill(drill, line, passes).passed]).toEqual([kind, true]);
    lines
      .slice(1)
      .forEach(({ worth }, place) => expect(worth).toBeLessThanOrEqual(elementAt(lines, place).worth));
  }
  // some drills say one thing only, as roots on the beat do
  console.log(`fewer than eight: ${short.join(', ') || 'none'}`);
  expect(short.length).toBeLessThanOrEqual(2);
}, 120_000);

test('a line that swings between two notes or stops short is worth less than one that moves and comes to rest', () => {
  const eighths = (pitches: readonly number[], lastBeats = 2) =>
    pitches.map((midi, index) => ({
      onsetBeat: index / 2,
      durationBeats: index === pitches.length - 1 ? lastBeats : 0.5,
      midi,
    }));
  const good = eighths([60, 62, 64, 67, 65, 64, 69, 67, 65, 62, 64]);
  const swings = eighths([60, 62, 60, 62, 60, 62, 60, 62, 60, 62, 60]);
  const stops = eighths([60, 62, 64, 67, 65, 64, 69, 67, 65, 62, 64], 0.5);
  expect(lineFaults(swings, 8)).toContain('swings-between-two');
  expect(lineWorth(good, 8, [4])).toBeGreaterThan(lineWorth(stops, 8, [4]));
  expect(lineWorth(stops, 8, [4])).toBeGreaterThan(lineWorth(swings, 8, [4]));
  // into the change at beat 2 by a leap of a fifth, and by a step
  const leaps = eighths([60, 62, 64, 60, 67, 65, 64, 62, 64]);
  const steps = eighths([60, 62, 64, 65, 67, 65, 64, 62, 64]);
  expect(lineWorth(steps, 8, [2])).toBeGreaterThan(lineWorth(leaps, 8, [2]));
  expect(lineWorth([], 8, [])).toBe(0);
});
