import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { fleschKincaid } from 'flesch-kincaid';
import { syllable } from 'syllable';
import ts from 'typescript';

// Flesch–Kincaid grade: Kincaid, Fishburne, Rogers, Chissom, “Derivation of new readability formulas” (1975).
const MOST = 7;
const FOLDERS = [
  'src/features',
  'src/presentation',
  'src/ui',
  'src/core/findings',
  'src/core/drills/rules',
  'src/core/plan',
];
/** Terms of the trade (docs/glossary.md): their syllables are not the interface's. */
const TERMS =
  /\b(pentatonic|chromatic|diminished|dominants?|intervals?|arpeggios?|enclosures?|approach(?:es)?|substitutes?|substitutions?|resolutions?|landings?|melody|harmony|harmonic|melodic|tablature|latency|tempos?|major|minor|chorus(?:es)?|superimposed|guitar|recording|positions?)\b/gi;

function* filesUnder(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const place = path.join(folder, entry.name);
    if (entry.isDirectory()) yield* filesUnder(place);
    else if (/\.tsx?$/.test(entry.name) && !/\.test\./.test(entry.name)) yield place;
  }
}

/** What a file says in whole sentences: text between tags, and strings that end like one. */
function sentencesIn(file: string): string[] {
  const source = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true);
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isJsxText(node) || ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) {
      const said = node.text.replace(/\s+/g, ' ').trim();
      for (const [sentence] of said.matchAll(/[A-Z][^.?!]*[.?!]/g))
        if (sentence.split(' ').length >= 4) found.push(sentence);
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

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
  const sentences = FOLDERS.flatMap((folder) => [...filesUnder(folder)]).flatMap(sentencesIn);
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
