import { alive, expect, test } from '../support/browser';
import { makeTake } from '../support/takes';

type Box = { readonly left: number; readonly right: number; readonly top: number; readonly bottom: number };

test('the page: staff and tablature, its signs apart, its keys those of the form, and its bars in words', async ({
  page,
  request,
  baseURL,
}) => {
  const take = await makeTake(request, baseURL!);
  for (const width of [1280, 390]) {
    await page.setViewportSize({ width, height: 800 });
    await page.goto(`/takes/${take}?view=page`);
    await alive(page);
    await expect(page.getByTestId('page').locator('.vf-clef').first()).toBeVisible({ timeout: 15_000 });
    // what is below comes when it is scrolled to
    await page.evaluate(async () => {
      for (let y = 0; y < document.body.scrollHeight; y += 400) {
        window.scrollTo(0, y);
        await new Promise(requestAnimationFrame);
      }
    });
    const found = await page.getByTestId('page').evaluate((host) => {
      const boxOf = (element: Element): Box => {
        const { left, right, top, bottom } = element.getBoundingClientRect();
        return { left, right, top: top + window.scrollY, bottom: bottom + window.scrollY };
      };
      const lines = [...host.children];
      return lines.map((line) => ({
        box: boxOf(line),
        strokes: [...line.querySelectorAll('.vf-stem path, .vf-beam path')].map(boxOf),
        degrees: [...line.querySelectorAll('svg[role="img"] g > rect[rx]')].map(boxOf),
      }));
    });
    const meets = (a: Box, b: Box) =>
      a.left < b.right - 1 && b.left < a.right - 1 && a.top < b.bottom - 1 && b.top < a.bottom - 1;
    expect(found.flatMap(({ degrees }) => degrees).length).toBeGreaterThan(10);
    for (const { box, strokes, degrees } of found) {
      expect(degrees.filter((degree) => strokes.some((stroke) => meets(degree, stroke)))).toEqual([]);
      expect(
        [...strokes, ...degrees].filter(({ left, right }) => left < box.left || right > box.right + 1),
      ).toEqual([]);
      expect(
        [...strokes, ...degrees].filter(({ top, bottom }) => top < box.top || bottom > box.bottom),
      ).toEqual([]);
    }
  }
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('region', { name: 'Selected' })).toBeVisible();
  await expect(page).toHaveURL(/at=note-1/);
  await page.getByText('tablature only').click();
  await expect(page.getByTestId('page').locator('.vf-keysignature')).toHaveCount(0);
  await expect(page.getByTestId('page').locator('.vf-tabnote').first()).toBeVisible();
  await page.getByText('The page as a list of bars').click();
  await expect(page.getByRole('listitem').filter({ hasText: /^Bar 1 \(/ })).toBeVisible();
});
