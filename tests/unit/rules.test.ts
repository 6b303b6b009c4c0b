import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';

const page = readFileSync('docs/theory.md', 'utf8');
const rules = new Map(
  [...page.matchAll(/^- \*\*(T\d+\.\d+)\*\* (\*planned\*)?/gm)].map(([, number, planned]) => [
    number as string,
    planned !== undefined,
  ]),
);

const files = execFileSync('git', ['ls-files', 'src', 'bin', 'scripts', 'tests', 'docs', '*.md'], {
  encoding: 'utf8',
})
  .split('\n')
  .filter((file) => /\.(ts|tsx|mjs|md)$/.test(file));
const texts = new Map(files.map((file) => [file, readFileSync(file, 'utf8')]));
const cited = new Map<string, string[]>();
for (const [file, text] of texts) {
  if (file === 'docs/theory.md') continue;
  for (const [number] of text.matchAll(/\bT\d{1,2}\.\d{1,2}\b/g))
    cited.set(number, [...(cited.get(number) ?? []), file]);
}

test('every rule that is cited stands on the page', () => {
  expect([...cited].filter(([number]) => !rules.has(number))).toEqual([]);
});

test('every rule is cited by the code that follows it, or marked planned', () => {
  const unused = [...rules]
    .filter(([number, planned]) => !planned && !cited.get(number)?.some((file) => !file.endsWith('.md')))
    .map(([number]) => number);
  expect(unused).toEqual([]);
});

test('nothing refers to a page outside the repository', () => {
  const outside =
    /\b[1-8]b?-(product|theory|interface|architecture|verification|style|platform|ears)\b|design hand[b]ook/;
  const own = 'tests/unit/rules.test.ts';
  expect(
    [...texts]
      .filter(([file, text]) => file !== own && outside.test(text.replace(/\d{4}-ears/g, '')))
      .map(([file]) => file),
  ).toEqual([]);
});

test('links between the pages of the repository lead somewhere', () => {
  const tracked = new Set(execFileSync('git', ['ls-files'], { encoding: 'utf8' }).split('\n'));
  const broken = [...texts].flatMap(([file, text]) => {
    if (!file.endsWith('.md')) return [];
    const links = [...text.matchAll(/\]\((?!https?:|#|mailto:)([^)#\s]+)/g)].map(
      ([, link]) => link as string,
    );
    const folder = file.includes('/') ? file.slice(0, file.lastIndexOf('/') + 1) : '';
    return links
      .map((link) => new URL(folder + link, 'file:///').pathname.slice(1))
      .filter((link) => !tracked.has(link) && ![...tracked].some((one) => one.startsWith(link)))
      .map((link) => `${file}: ${link}`);
  });
  expect(broken).toEqual([]);
});
