import type { APIRequestContext, Page } from '@playwright/test';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { TextItem } from 'pdfjs-dist/types/src/display/api';
import { LIBRARY } from '@/core/chart';
import { expect, makeChart, test } from '../support/browser';

// Sheets as they come out of the printer: PDF pages of the browser, read by pdf.js.
const PAPERS = ['A4', 'Letter'] as const;
/** The margin of a sheet is 12 mm, in points. */
const MARGIN = (12 / 25.4) * 72;

type Printed = { readonly pages: number; readonly text: string; readonly outside: readonly string[] };

/** The page on paper: how many sheets, their words, and words that reach past the margins. */
async function printed(page: Page, format: (typeof PAPERS)[number]): Promise<Printed> {
  const pdf = await page.pdf({ format, printBackground: true });
  const document = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;
  const [words, outside]: [string[], string[]] = [[], []];
  for (let number = 1; number <= document.numPages; number++) {
    const sheet = await document.getPage(number);
    const [, , width, height] = sheet.view as [number, number, number, number];
    const { items } = await sheet.getTextContent();
    for (const item of items as TextItem[]) {
      if (!item.str.trim()) continue;
      words.push(item.str);
      const [x, y] = [item.transform[4] as number, item.transform[5] as number];
      const isInside =
        x >= MARGIN - 1 &&
        x + item.width <= width - MARGIN + 1 &&
        y >= MARGIN - 1 &&
        y <= height - MARGIN + 1;
      if (!isInside) outside.push(`${item.str} at ${x.toFixed(0)}, ${y.toFixed(0)}`);
    }
  }
  return { pages: document.numPages, text: words.join(' '), outside };
}

const blues = LIBRARY.find(({ id }) => id === 'lamplight')!.text;
const song = LIBRARY.find(({ id }) => id === 'orchard')!.text;

async function lessonPath(request: APIRequestContext, baseURL: string): Promise<string> {
  const made = await request.post('/api/drills', {
    headers: { origin: baseURL },
    data: { chartId: await makeChart(request, baseURL, blues), kind: 'enclosures' },
  });
  return `/drills/${((await made.json()) as { id: string }).id}/sheet`;
}

/** A week with more than a page of an ordinary one: twelve drills, all of them due. */
async function weekPath(request: APIRequestContext, baseURL: string): Promise<string> {
  const chartId = await makeChart(request, baseURL, blues);
  for (const tempo of [60, 64, 68, 72, 76, 80, 84, 88, 92, 96, 100, 104])
    await request.post('/api/drills', {
      headers: { origin: baseURL },
      data: { chartId, words: `roots, at ${tempo}` },
    });
  return '/week';
}

/** Its name, the most sheets it may take, words of it, and where it is. */
type Sheet = readonly [
  string,
  number,
  RegExp,
  (request: APIRequestContext, baseURL: string) => Promise<string>,
];
const STUDY_WORDS = {
  form: /Orchard/i,
  place: /One place: position 5/,
  runs: /B♭ blues|Bb blues/,
  grid: /Quarry/,
};

const SHEETS: readonly Sheet[] = [
  [
    'a chart of 32 bars',
    1,
    /Orchard/i,
    async (request, base) => `/charts/${await makeChart(request, base, song)}/print`,
  ],
  ...(['form', 'place', 'runs', 'grid'] as const).map((part): Sheet => [
    `a study sheet, ${part}`,
    1,
    STUDY_WORDS[part],
    async (request, base) =>
      `/study/${await makeChart(request, base, part === 'form' ? song : blues)}/sheet?part=${part}`,
  ]),
  ['a lesson sheet', 1, /What you noticed/, lessonPath],
  ['the week ahead', 1, /The week ahead/, weekPath],
  // as long as what was done
  ['the diary', 12, /Diary|What you did/i, () => Promise.resolve('/diary')],
];

for (const [name, most, words, pathOf] of SHEETS)
  test(`${name} on A4 and on Letter: no more sheets than it should be, nothing past the margins, dark on white`, async ({
    page,
    request,
    baseURL,
  }) => {
    await page.goto(await pathOf(request, baseURL!));
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await page.waitForLoadState('networkidle');
    for (const format of PAPERS) {
      const { pages, text, outside } = await printed(page, format);
      expect([format, pages <= most]).toEqual([format, true]);
      expect(text).toMatch(words);
      expect([format, outside]).toEqual([format, []]);
    }
    await page.emulateMedia({ media: 'print' });
    const [ground, ink] = await page.evaluate(() => {
      const style = getComputedStyle(document.querySelector('h1')!);
      return [getComputedStyle(document.documentElement).getPropertyValue('--bg').trim(), style.color];
    });
    expect(ground).toMatch(/^#fff(fff)?$/);
    expect(Math.max(...ink.match(/\d+/g)!.slice(0, 3).map(Number))).toBeLessThan(90);
  });
