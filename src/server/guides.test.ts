import { expect, test } from '@jest/globals';
import { sectionsFound } from '@/features/guide/guideSearch';
import { guideSections, sectionsOf } from './guides';

test('a guide is cut at its headings, its tables and marks kept, its links to other files left as words', () => {
  const sections = sectionsOf(
    '# Guide\n\nBefore all. See [the rules](theory.md).\n\n## Write a chart\nPress **H**.\n\n| you | it |\n| --- | --- |\n| `N.C.` | no chord |\n\n## Read\nR & D\n',
  );
  expect(sections.map(({ id, title }) => [id, title])).toEqual([
    ['guide-what-this-is', 'What this is'],
    ['guide-write-a-chart', 'Write a chart'],
    ['guide-read', 'Read'],
  ]);
  expect(sections[0]!.html).toBe('<p>Before all. See the rules.</p>\n');
  expect(sections[1]!.html).toContain('<strong>H</strong>');
  expect(sections[1]!.html).toContain('<td><code>N.C.</code></td>');
  expect(sections[1]!.text).toBe('Write a chart Press H . you it N.C. no chord');
  expect(sections[2]!.text).toBe('Read R & D');
});

test('the guides in docs: every section under its own place, found by words in any order, titles first', async () => {
  const sections = await guideSections();
  expect(new Set(sections.map(({ id }) => id)).size).toBe(sections.length);
  expect(new Set(sections.map(({ guide }) => guide))).toEqual(
    new Set(['Guide for players', 'How it decides']),
  );
  for (const { html } of sections) expect(html).not.toMatch(/href="(?!https?:)/);
  expect(sectionsFound(sections, '  ')).toEqual(sections);
  const first = sectionsFound(sections, 'take RECORD')[0]!;
  expect(first.title).toBe('Record a take');
  expect(sectionsFound(sections, 'no such word anywhere')).toEqual([]);
});
