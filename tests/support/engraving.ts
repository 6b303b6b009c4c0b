import type { APIRequestContext, Page } from '@playwright/test';
import { packTake, TAKE_SCHEMA } from '@/core/formats';
import type { Attack } from '@/core/shared';
import { alive, expect } from './browser';

type Box = { readonly left: number; readonly right: number; readonly top: number; readonly bottom: number };
type Kind = 'stroke' | 'degree' | 'chord' | 'head' | 'fret' | 'arc' | 'letter' | 'bend';
type Drawn = { readonly kind: Kind; readonly box: Box };

/** Opens a take on the page, once its clefs are drawn. */
export async function openPage(page: Page, take: string): Promise<void> {
  await page.goto(`/takes/${take}?view=page`);
  await alive(page);
  await expect(page.getByTestId('page').locator('.vf-clef').first()).toBeVisible({ timeout: 15_000 });
}

/** What each line of the page draws, every line scrolled to. */
async function linesOf(
  page: Page,
): Promise<readonly { readonly box: Box; readonly drawn: readonly Drawn[] }[]> {
  await page.evaluate(async () => {
    for (let y = 0; y < document.body.scrollHeight; y += 400) {
      window.scrollTo(0, y);
      await new Promise(requestAnimationFrame);
    }
    // one line is drawn a frame, and one that was scrolled past too fast waits until it is in sight again
    const isEmpty = (line: Element) => line.childElementCount === 0;
    for (;;) {
      const left = [...document.querySelectorAll('[data-testid="page"] .engraved')].find(isEmpty);
      if (!left) break;
      left.scrollIntoView();
      await new Promise(requestAnimationFrame);
    }
  });
  return page
    .getByTestId('page')
    .first()
    .evaluate((host) => {
      const boxOf = (element: Element): Box => {
        const { left, right, top, bottom } = element.getBoundingClientRect();
        return { left, right, top: top + window.scrollY, bottom: bottom + window.scrollY };
      };
      const context = document.createElement('canvas').getContext('2d')!;
      // the box of a text is that of its font, which for musical signs is several staves high: ink is measured
      const inkOf = (text: SVGTextElement): Box => {
        const style = getComputedStyle(text);
        context.font = `${style.fontWeight} ${style.fontSize} ${style.fontFamily}`;
        const ink = context.measureText(text.textContent ?? '');
        const { x, y } = text.getStartPositionOfChar(0);
        const { a, d, e, f } = text.getScreenCTM()!;
        return {
          left: e + a * (x - ink.actualBoundingBoxLeft),
          right: e + a * (x + ink.actualBoundingBoxRight),
          top: f + d * (y - ink.actualBoundingBoxAscent) + window.scrollY,
          bottom: f + d * (y + ink.actualBoundingBoxDescent) + window.scrollY,
        };
      };
      const drawnBoxOf = (element: Element): Box => {
        const text = element instanceof SVGTextElement ? element : element.querySelector('text');
        const isWritten = text instanceof SVGTextElement && (text.textContent ?? '') !== '';
        return isWritten ? inkOf(text) : boxOf(element);
      };
      const kinds: readonly (readonly [Kind, string])[] = [
        ['stroke', '.vf-stem path, .vf-beam path, .vf-tuplet rect'],
        ['degree', 'svg[role="img"] g > rect[rx]'],
        ['chord', '[data-chord]'],
        ['head', '.vf-notehead'],
        ['fret', '.vf-tabnote text'],
        ['arc', '.vf-slur path'],
        ['letter', '.vf-tabslur > text'],
        ['bend', '.vf-bend text'],
      ];
      return [...host.children].map((line) => ({
        box: boxOf(line),
        drawn: kinds.flatMap(([kind, selector]) =>
          [...line.querySelectorAll(selector)].map((element) => ({ kind, box: drawnBoxOf(element) })),
        ),
      }));
    });
}

const meets = (a: Box, b: Box): boolean =>
  a.left < b.right - 1 && b.left < a.right - 1 && a.top < b.bottom - 1 && b.top < a.bottom - 1;

/** Pairs that may not lie over one another. */
const APART: readonly (readonly [Kind, Kind])[] = [
  ['degree', 'stroke'],
  ['degree', 'head'],
  ['degree', 'fret'],
  ['degree', 'degree'],
  ['chord', 'chord'],
  ['chord', 'stroke'],
  ['chord', 'head'],
  ['fret', 'fret'],
  ['arc', 'chord'],
  ['arc', 'degree'],
  ['letter', 'letter'],
  ['letter', 'fret'],
  ['letter', 'degree'],
  ['letter', 'bend'],
];

/** What lies over something else, or outside of its line, in words. */
export async function collisionsOn(page: Page): Promise<string[]> {
  const lines = await linesOf(page);
  expect(lines.flatMap(({ drawn }) => drawn.filter(({ kind }) => kind === 'degree')).length).toBeGreaterThan(
    6,
  );
  return lines.flatMap(({ box, drawn }, line) => {
    const of = (kind: Kind) => drawn.filter((one) => one.kind === kind).map((one) => one.box);
    const over = APART.flatMap(([one, other]) =>
      of(one).flatMap((a, index) =>
        of(other)
          .filter((b, at) => (one !== other || at > index) && meets(a, b))
          .map(
            (b) => `line ${line + 1}: ${one} over ${other} at ${Math.round(a.left)}, ${Math.round(b.left)}`,
          ),
      ),
    );
    const outside = drawn
      .filter(
        ({ box: { left, right, top, bottom } }) =>
          left < box.left || right > box.right + 1 || top < box.top || bottom > box.bottom,
      )
      .map(({ kind }) => `line ${line + 1}: ${kind} outside`);
    return [...over, ...outside];
  });
}

export type PageNote = {
  readonly onsetSec: number;
  readonly offsetSec: number;
  readonly midi: number;
  readonly vibrato?: { readonly hz: number; readonly cents: number };
  readonly bend?: [number, number][];
  readonly attack?: Attack;
};

/** A take without sound, brought in as an archive. @returns its id */
export async function takeOf(
  request: APIRequestContext,
  origin: string,
  {
    title,
    chartText,
    tempo,
    choruses,
    notes,
  }: {
    title: string;
    chartText: string;
    tempo: number;
    choruses: number;
    notes: readonly PageNote[];
  },
): Promise<string> {
  const archive = packTake(
    {
      schema: TAKE_SCHEMA,
      title,
      chartText,
      tempo,
      choruses,
      plan: { id: 'scale-per-chord' },
      pace: null,
      offsetSec: 0,
      source: 'file',
      device: null,
      latencySec: null,
      createdAt: Date.now(),
      heard: { notes: notes.map((note) => ({ ...note, confidence: 1 })) },
      edits: [],
      words: { stars: 0, tags: [], remarks: [] },
    },
    null,
  );
  const made = await request.post('/api/takes/import', {
    headers: { origin, 'content-type': 'application/octet-stream' },
    data: Buffer.from(archive),
  });
  expect(made.status()).toBe(200);
  return ((await made.json()) as { id: string }).id;
}
