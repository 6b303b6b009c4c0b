import type { APIRequestContext } from '@playwright/test';
import { expect, test } from '../support/browser';
import { collisionsOn, openPage, takeOf } from '../support/engraving';
import { makeTake } from '../support/takes';

/** Triplets with their stems down, the lowest and the highest notes of a guitar, and a bend up a whole tone. */
async function hardToEngrave(request: APIRequestContext, origin: string): Promise<string> {
  const beat = 0.6;
  const line: [number, number, number][] = [
    [0, 1, 69],
    [1, 1 / 3, 76],
    [1 + 1 / 3, 1 / 3, 74],
    [1 + 2 / 3, 1 / 3, 72],
    [2, 1, 74],
    [3, 1, 40],
    [4, 0.5, 86],
    [4.5, 0.5, 84],
    [5, 2, 64],
  ];
  const notes = line.map(([onset, length, midi], index) => ({
    onsetSec: onset * beat,
    offsetSec: (onset + length) * beat,
    midi,
    ...(index === 8 ? { vibrato: { hz: 5, cents: 30 } } : {}),
    ...(index === 4
      ? {
          bend: [
            [0, -200],
            [0.2, 0],
          ] as [number, number][],
        }
      : {}),
  }));
  return takeOf(request, origin, {
    title: 'Hard to engrave',
    chartText: 'title: Hard to engrave\nkey: C\ntempo: 100\n\n| Am7 | D7 |\n',
    tempo: 100,
    choruses: 1,
    notes,
  });
}

test('the page: staff and tablature, its keys those of the form, and its bars in words', async ({
  page,
  request,
  baseURL,
}) => {
  const take = await makeTake(request, baseURL!);
  for (const width of [390, 1280]) {
    await page.setViewportSize({ width, height: 800 });
    await openPage(page, take);
    expect(await collisionsOn(page)).toEqual([]);
  }
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('region', { name: 'Selected' })).toBeVisible();
  await expect(page).toHaveURL(/at=note-1/);
  const triplets = page.getByRole('radio', { name: 'in triplets' });
  await triplets.click();
  await expect(triplets).toHaveAttribute('aria-checked', 'true');
  await expect(page.getByTestId('page').locator('.vf-tuplet').first()).toBeAttached();
  await page.getByText('tablature only').click();
  await expect(page.getByTestId('page').locator('.vf-keysignature')).toHaveCount(0);
  await expect(page.getByTestId('page').locator('.vf-tabnote').first()).toBeVisible();
  await page.getByText('The page as a list of bars').click();
  await expect(page.getByRole('listitem').filter({ hasText: /^Bar 1 \(/ })).toBeVisible();
});

test('triplets, the ends of the guitar’s range and a bend: nothing collides, and the bend is fretted where it starts', async ({
  page,
  request,
  baseURL,
}) => {
  await openPage(page, await hardToEngrave(request, baseURL!));
  expect(await collisionsOn(page)).toEqual([]);
  if (process.env.SHOTS) await page.screenshot({ path: `${process.env.SHOTS}/page-hard.png` });
  await expect(page.getByTestId('page').locator('.vf-tuplet rect')).not.toHaveCount(0);
  await expect(page.getByTestId('page').getByText('full')).toBeVisible();
  await page.getByText('The page as a list of bars').click();
  const bar = await page
    .getByRole('listitem')
    .filter({ hasText: /^Bar 1 \(/ })
    .textContent();
  const [, string, fret] = /D5 \(4\), string (\d) fret (\d+), quarter/.exec(bar!)!;
  // D5 sounds from C5, a whole tone lower: strings from the highest are tuned to these
  expect([64, 59, 55, 50, 45, 40][Number(string) - 1]! + Number(fret)).toBe(72);
});

test('where it was played is the player’s to say: by the fret or by keys, of a phrase or the take, kept and undone', async ({
  page,
  request,
  baseURL,
}) => {
  await openPage(page, await makeTake(request, baseURL!));
  await expect(page.getByText('likeliest fingering', { exact: false }).first()).toBeVisible();
  await page.getByRole('radio', { name: 'hand at fret 9', exact: true }).click();
  await expect(page.getByText('As you set it: your index finger at fret 9.')).toBeVisible();
  await expect(page.getByText(/places as you set them$/)).toBeVisible();
  await page.keyboard.press(']');
  await expect(page.getByText('As you set it: your index finger at fret 10.')).toBeVisible();
  await page.getByText('The page as a list of bars').click();
  const fretsOf = async () =>
    [
      ...(
        await page
          .getByRole('listitem')
          .filter({ hasText: /^Bar 1 \(/ })
          .innerText()
      ).matchAll(/fret (\d+)/g),
    ].map(([, fret]) => Number(fret));
  const frets = await fretsOf();
  expect(frets.length).toBeGreaterThan(1);
  for (const fret of frets) expect(fret).toBeGreaterThanOrEqual(9);
  await page.waitForResponse((answer) => answer.url().endsWith('/edits') && answer.ok());
  await page.reload();
  await expect(page.getByText('As you set it: your index finger at fret 10.')).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('0'); // this phrase again where it is likeliest
  await expect(page.getByText(/places as you set them, otherwise likeliest$/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/places as you set them$/)).toBeVisible();
});
