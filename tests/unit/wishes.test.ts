import { expect, test } from '@jest/globals';
import { readChart } from '@/core/chart';
import { unwrap } from '@/core/shared';
import { drillOf, exampleFor, judgeDrill, partsOf, readOwnWords, ruleWords } from '@/core/drills';
import { WISHES } from '../corpora/wishes';

const BLUES = unwrap(
  readChart('key: Bb\n| Bb7 | Eb7 | Bb7 | Bb7 |\n| Eb7 | Eb7 | Bb7 | G7 |\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |'),
);
const kindsOf = (wish: string): string => {
  const read = readOwnWords(wish, 12);
  if (!read.ok) return read.problems[0].message;
  return partsOf(read.value.rule)
    .map(({ kind }) => kind)
    .join('+');
};

test('a hundred and fifty wishes as players write them are read', () => {
  expect(WISHES.length).toBeGreaterThanOrEqual(150);
  expect(WISHES.map(([wish]) => [wish, kindsOf(wish)])).toEqual(WISHES);
});

test('each of them is said back in a sentence, which is read as the same rule or said plainly', () => {
  for (const [wish] of WISHES) {
    const { rule } = unwrap(readOwnWords(wish, 12));
    expect([wish, ruleWords(rule)]).toEqual([wish, expect.stringMatching(/^[A-Z].{10,}\.$/)]);
  }
});

test('what is read can be played: every wish has a line that passes it', () => {
  const without = WISHES.filter(([wish]) => {
    const { rule } = unwrap(readOwnWords(wish, 12));
    const drill = drillOf({ kind: 'own', name: wish, reason: '', rule }, { chart: BLUES, tempo: 96 });
    const made = exampleFor(drill, 1);
    return !made || !judgeDrill(drill, made.line, made.passes).passed;
  });
  expect(without.map(([wish]) => wish)).toEqual([]);
});

test('what cannot be judged from sound is answered with the nearest that can', () => {
  for (const wish of [
    'more feeling',
    'play like you mean it',
    'use vibrato on every note',
    'only downstrokes',
  ]) {
    const read = readOwnWords(wish, 12);
    expect([wish, read.ok ? '' : read.problems[0].suggestion]).toEqual([wish, expect.stringMatching(/.+/)]);
  }
});
