import { expect, test } from '@jest/globals';
import { KINDS } from './kinds';
import { stepSamples } from './nextStep';
import { STRENGTHS } from './strengths';

const MOST_WORDS = 20;
/** One, two, many, all and none done well, in few and in many cases. */
const COUNTS = [
  [0, 1],
  [1, 2],
  [1, 12],
  [2, 12],
  [5, 12],
  [12, 12],
  [0, 12],
  [0, 2],
] as const;

const sentencesOf = (text: string): string[] => text.split(/(?<=[.!?]) (?=[A-Z])/);
const wordsIn = (sentence: string): number => sentence.split(/\s+/).length;

/** What is wrong with a sentence as a reader would see it; an empty list where nothing is. */
function faultsOf(text: string): string[] {
  return [
    ...sentencesOf(text)
      .filter((sentence) => wordsIn(sentence) > MOST_WORDS)
      .map((sentence) => `${wordsIn(sentence)} words: ${sentence}`),
    ...(/^[A-Z\d]/.test(text) && /\.$/.test(text) ? [] : [`no sentence: ${text}`]),
    ...(/\b1 (changes|phrases|notes|beats|moves|times)\b/.test(text) ? [`one of many: ${text}`] : []),
    ...(/undefined|NaN|null|  |\b(wrong|bad|fail|mistake|error)\b/i.test(text) ? [`a slip: ${text}`] : []),
    ...(/[A-G](b|#)(?![a-z])/.test(text) ? [`plain accidentals: ${text}`] : []),
  ];
}

test('every kind of finding reads well at every count', () => {
  const rows = KINDS.flatMap((kind) =>
    COUNTS.map(([met, of]) => {
      const { sentence, detail, advice } = kind.sample(met, of, met % 2 === 0 ? ' in bars 2, 5 and 6' : '');
      return [kind.id, `${met} of ${of}`, [sentence, detail, advice].filter(Boolean).join(' ')] as const;
    }),
  );
  console.log(rows.map((row) => row.join(' | ')).join('\n'));
  expect(rows.flatMap(([kind, , text]) => faultsOf(text).map((fault) => `${kind}: ${fault}`))).toEqual([]);
});

test('every strength and every next step reads well', () => {
  const rows = [
    ...STRENGTHS.flatMap((strength) => strength.samples().map((text) => [strength.id, text] as const)),
    ...stepSamples(),
  ];
  console.log(rows.map((row) => row.join(' | ')).join('\n'));
  for (const { samples } of STRENGTHS) expect(samples().length).toBeGreaterThanOrEqual(3);
  expect(rows.flatMap(([kind, text]) => faultsOf(text).map((fault) => `${kind}: ${fault}`))).toEqual([]);
});

test('advice is one short imperative', () => {
  for (const kind of KINDS) {
    const { advice } = kind.sample(2, 12, ' in bar 5');
    expect([kind.id, sentencesOf(advice).length, wordsIn(advice) <= 14]).toEqual([kind.id, 1, true]);
  }
});

test('what contradicts or hides is a kind there is, and no kind hides itself', () => {
  const ids = KINDS.map(({ id }) => id);
  expect(new Set(ids).size).toBe(ids.length);
  for (const { id, hides = [], contradicts = [] } of KINDS)
    for (const other of [...hides, ...contradicts]) {
      expect([id, ids.includes(other)]).toEqual([id, true]);
      expect(other).not.toBe(id);
    }
});
