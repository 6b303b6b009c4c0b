import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { marked } from 'marked';

/** A part of a guide under one heading. */
export type GuideSection = {
  /** Its place in the address, after `#`. */
  readonly id: string;
  readonly guide: string;
  readonly title: string;
  readonly html: string;
  /** Its words, to be found by. */
  readonly text: string;
};

const GUIDES = ['guide-for-players.md', 'how-it-decides.md'] as const;

const OPENING = 'What this is';

let read: Promise<readonly GuideSection[]> | null = null;

/** The guides for players as they stand in `docs`, section by section. */
export const guideSections = (): Promise<readonly GuideSection[]> =>
  (read ??= Promise.all(
    GUIDES.map(async (file) => sectionsOf(await readFile(path.resolve('docs', file), 'utf8'))),
  ).then((all) => all.flat()));

/**
 * A guide cut at its headings of the second rank; what stands before the first of them is a section of its
 * own.
 * @param markdown with one heading of the first rank, the guide's title
 */
export function sectionsOf(markdown: string): GuideSection[] {
  const [head = '', ...parts] = markdown.split(/^## /m);
  const guide = /^# (.+)$/m.exec(head)?.[1] ?? 'Guide';
  const opening = head.replace(/^# .+$/m, '').trim();
  return [...(opening === '' ? [] : [`${OPENING}\n${opening}`]), ...parts].map((part) => {
    const [title = '', ...lines] = part.split('\n');
    const html = withoutLinks(marked.parse(lines.join('\n'), { async: false }));
    return { id: idOf(guide, title), guide, title, html, text: textOf(`${title} ${html}`) };
  });
}

/** Files of the documentation are no pages of the application: their names stay, as words. */
const withoutLinks = (html: string): string => html.replace(/<a href="(?!https?:)[^"]*">(.*?)<\/a>/g, '$1');

const ENTITIES: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', '#39': "'" };

const textOf = (html: string): string =>
  html
    .replace(/<[^>]+>/g, ' ')
    .replace(/&(amp|lt|gt|quot|#39);/g, (_, name: string) => ENTITIES[name] ?? ' ')
    .replace(/\s+/g, ' ')
    .trim();

const idOf = (guide: string, title: string): string =>
  `${guide} ${title}`
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
