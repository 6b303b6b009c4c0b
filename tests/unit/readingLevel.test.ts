import { expect, test } from '@jest/globals';
import { fleschKincaid } from 'flesch-kincaid';
import { syllable } from 'syllable';
import { interfaceSentences } from '../support/interfaceWords';

// Flesch–Kincaid grade: Kincaid, Fishburne, Rogers, Chissom, “Derivation of new readability formulas” (1975).
const MOST = 7;
/** Terms of the trade (docs/glossary.md): their syllables are not the interface's. */
const TERMS =
  /\b(pentatonic|chromatic|diminished|dominants?|intervals?|arpeggios?|enclosures?|approach(?:es)?|substitutes?|substitutions?|resolutions?|landings?|melody|harmony|harmonic|melodic|tablature|latency|tempos?|major|minor|chorus(?:es)?|superimposed|guitar|recording|positions?)\b/gi;

/** The grade of sentences together, terms of the trade counted as words of one syllable. */
function gradeOf(sentences: readonly string[]): number {
  const plain = sentences.map((sentence) => sentence.replace(TERMS, 'word'));
  const words = plain.flatMap((sentence) => sentence.match(/[\p{L}’'-]+/gu) ?? []);
  return fleschKincaid({
    sentence: plain.length,
    word: words.length,
    syllable: words.reduce((sum, word) => sum + Math.max(1, syllable(word)), 0),
  });
}

test('what the interface says is plain: Flesch–Kincaid grade at most seven, no sentence far above', () => {
  const sentences = interfaceSentences();
  expect(sentences.length).toBeGreaterThan(300);
  const hardest = [...new Set(sentences)]
    .map((sentence) => [gradeOf([sentence]), sentence] as const)
    .sort(([a], [b]) => b - a);
  console.log(
    `grade ${gradeOf(sentences).toFixed(1)} over ${sentences.length} sentences; hardest:\n${hardest
      .slice(0, 15)
      .map(([grade, sentence]) => `${grade.toFixed(1)} ${sentence}`)
      .join('\n')}`,
  );
  expect(gradeOf(sentences)).toBeLessThanOrEqual(MOST);
  expect(hardest.filter(([grade]) => grade > 2 * MOST)).toEqual([]);
});

// Both made up.
test('the measure tells plain words from hard ones', () => {
  expect(gradeOf(['The cat sat on the mat.', 'It saw a big dog.'])).toBeLessThan(2);
  expect(
    gradeOf([
      'Notwithstanding considerable organisational uncertainty, administrative reconsideration necessitates additional documentation.',
    ]),
  ).toBeGreaterThan(20);
});
