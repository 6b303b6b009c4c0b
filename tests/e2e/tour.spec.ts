import AxeBuilder from '@axe-core/playwright';
import { alive, expect, test } from '../support/browser';
import { OwnServer } from '../support/ownServer';

// A first visit needs an empty database: a server of its own.
const server = new OwnServer(3223, '.tmp/e2e-tour.db');
test.beforeAll(() => server.start());
test.afterAll(() => server.kill());

test('with no chart yet, Record asks what to play over', async ({ page }) => {
  await page.goto(`${server.url}/record`);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('What do you play over?');
  await expect(page.getByRole('main').getByRole('button')).toHaveCount(4);
  await expect(page.getByRole('link', { name: /All forms/ })).toHaveAttribute('href', '/charts');
});

test('a first visit is shown round by one key: from nothing to a judged take in four presses, then its drill, and the take is removed', async ({
  page,
}) => {
  test.setTimeout(120_000);
  await page.goto(server.url);
  await alive(page);
  const step = page.getByRole('dialog');
  const title = (words: string) =>
    expect(step.getByText(words, { exact: true })).toBeVisible({ timeout: 60_000 });
  const goOn = (words: string) => expect(step.getByRole('button', { name: words })).toBeFocused();
  const started = Date.now();
  await page.getByRole('button', { name: 'Show me round' }).click();
  await title('Choose a form');
  await goOn('Hear it');
  const { violations } = await new AxeBuilder({ page }).include('.driver-popover').analyze();
  expect(violations.map(({ id }) => id)).toEqual([]);
  await page.keyboard.press('Enter');
  await title('Hear the band');
  await goOn('Play over it');
  // a reload in the middle goes on where it was
  await page.reload();
  await title('Hear the band');
  await goOn('Play over it');
  await page.keyboard.press('Space');
  await title('Let the stand-in play');
  await goOn('Let it play');
  await page.keyboard.press('Enter');
  await title('Read what it says');
  expect(Date.now() - started).toBeLessThan(60_000);
  await expect(page).toHaveURL(/\/takes\//);
  await goOn('Drill it');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/drills\//, { timeout: 20_000 });
  await title('Drill it');
  await goOn('Understood');
  await page.keyboard.press('Enter');
  await title('That is all of it');
  await step.getByRole('button', { name: 'Remove it' }).click();
  await expect(step).toHaveCount(0);
  await page.goto(`${server.url}/settings`);
  await expect(page.getByRole('region', { name: 'Trash' })).toContainText('Take 1');
});

test('the tour is ended by Escape and begins anew from Settings and from the palette', async ({ page }) => {
  await page.goto(`${server.url}/settings`);
  await alive(page);
  await page.getByRole('button', { name: 'Show me round', exact: true }).click();
  await expect(page.getByRole('dialog')).toContainText('1 of 5');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.reload();
  await alive(page);
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox').fill('show me round');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toContainText('Choose a form');
});

test('the application can be installed; while its server is stopped it says so, and what to do', async ({
  page,
  allowConsole,
}) => {
  // a request may be under way when the server is stopped
  allowConsole(/ERR_CONNECTION_(REFUSED|RESET)/);
  const own = new OwnServer(3225, '.tmp/e2e-installed.db');
  await own.start();
  try {
    await page.goto(own.url);
    const manifest = await (await page.request.get(`${own.url}/manifest.webmanifest`)).json();
    expect(manifest).toMatchObject({ name: 'Idle Wander', display: 'standalone', start_url: '/' });
    for (const { src, sizes } of manifest.icons as { src: string; sizes: string }[]) {
      const width = await page.evaluate(async (address) => {
        const image = new Image();
        image.src = address;
        await image.decode();
        return image.naturalWidth;
      }, src);
      expect(`${width}x${width}`).toBe(sizes);
    }
    await page.evaluate(() => navigator.serviceWorker.ready);
    await page.reload();
    own.kill();
    await page.goto(`${own.url}/takes`).catch(() => undefined);
    await expect(page.getByRole('heading', { name: 'Idle Wander is not running.' })).toBeVisible();
    await own.start();
    await page.getByRole('link', { name: 'Try again' }).click();
    await expect(page.getByRole('link', { name: 'Takes' })).toBeVisible();
  } finally {
    own.kill();
  }
});
