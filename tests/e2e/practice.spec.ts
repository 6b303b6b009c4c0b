import { chromium, type Page } from '@playwright/test';
import { CHROMIUM } from '../../playwright.config';
import { violationsIn } from '../support/axe';
import { alive, expect, listen, makeChart, rigOf, test } from '../support/browser';
import { makeTake } from '../support/takes';

const CHART = 'title: Little Turn\nkey: Bb\ntempo: 208\nfeel: swing\n\n| Cm7 | F7 |\n';
const STAND_IN = { kind: 'stand-in', character: 'steady', delayMs: 0 };

async function withStandIn(
  baseURL: string,
  work: (page: Page, complaints: () => string[]) => Promise<void>,
): Promise<void> {
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--autoplay-policy=no-user-gesture-required',
    ],
  });
  try {
    const context = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 } });
    await context.addInitScript(rigOf({ device: STAND_IN }));
    const page = await context.newPage();
    await work(page, listen(page));
  } finally {
    await browser.close();
  }
}
const status = (page: Page) => page.locator('footer').getByRole('status').first();

// real time on a machine that may be busy: the third try decides
test.describe('hands free', () => {
  test.describe.configure({ retries: 2 });
  test('a drill from the catalogue runs hands free: attempts are counted, the ladder climbs, it ends with a date; on purpose it is missed', async ({
    request,
    baseURL,
  }) => {
    test.setTimeout(300_000);
    const chart = await makeChart(request, baseURL!, CHART);
    await withStandIn(baseURL!, async (page, complaints) => {
      await page.goto(`/drills?chart=${chart}`);
      await alive(page);
      await page
        .getByRole('region', { name: 'The ladder' })
        .getByRole('button', { name: /^Thirds at every change/ })
        .click();
      await expect(page.getByRole('heading', { level: 1 })).toContainText('Thirds at every change');
      await expect(page.getByRole('region', { name: 'An example' }).locator('svg').first()).toBeVisible();
      // close to its goal, so that the ladder has little to climb
      await page.getByLabel('Now at').fill('192');
      await page.getByLabel('Now at').blur();
      await expect(page.getByRole('heading', { level: 1 })).toContainText('at 192');
      await page.getByRole('heading', { level: 1 }).click();
      await page.keyboard.press('Space');
      await expect(status(page)).toHaveText(/Attempt 1 at 192/, { timeout: 30_000 });
      await expect(page.getByTestId('so-far')).toContainText(/\d+ of \d+ thirds so far/, { timeout: 30_000 });
      // the next one comes by itself
      await expect(status(page)).toHaveText(/Attempt 2 at 192/, { timeout: 60_000 });
      const ladder = page.getByRole('region', { name: 'Tempo ladder' });
      await expect(ladder.getByTitle(/of 11, passed$/)).toHaveCount(1);
      // two passes in a row: a rung up
      await expect(status(page)).toHaveText(/Attempt 1 at 208/, { timeout: 60_000 });
      await page.keyboard.press(',');
      await expect(status(page)).toHaveText(/at 192$/, { timeout: 30_000 });
      await page.keyboard.press('PageDown');
      await expect(page.getByRole('heading', { level: 1 })).toContainText(/of 11 at 192/, {
        timeout: 20_000,
      });
      await expect(page.getByText(/It comes back/)).toBeVisible();
      // missed on purpose
      await page.getByLabel('it misses on purpose').check();
      await page.getByRole('button', { name: /Once more/ }).click();
      await expect(status(page)).toHaveText(/Attempt 3 at 192/, { timeout: 30_000 });
      await expect(status(page)).toHaveText(/Attempt 4 at 192/, { timeout: 60_000 });
      await expect(ladder.getByTitle(/not passed$/)).not.toHaveCount(0);
      await page.keyboard.press('Space');
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      expect(complaints()).toEqual([]);
    });
    // attempts are kept with their sound, but are no solos
    const { drills } = (await (await request.get('/api/drills')).json()) as {
      drills: { id: string; title: string }[];
    };
    const { id } = drills.find(({ title }) => title === 'Little Turn')!;
    const { runs } = (await (await request.get(`/api/drills/${id}`)).json()) as {
      runs: { passed: boolean; takeId: string; tempo: number }[];
    };
    expect(runs.length).toBeGreaterThanOrEqual(3);
    expect(runs[0]).toMatchObject({ passed: true, tempo: 192 });
    expect(runs[runs.length - 1]!.passed).toBe(false);
    expect((await request.get(`/api/takes/${runs[0]!.takeId}/audio`)).status()).toBe(200);
    const listed = (await (await request.get('/api/takes/lines')).json()) as { rows: { id: string }[] };
    expect(JSON.stringify(listed)).not.toContain(runs[0]!.takeId);
  });
});

test('Today starts what is due on one key; a goal is set, spread and taken back; the diary keeps words; every screen passes axe in both themes', async ({
  page,
  request,
  baseURL,
}) => {
  test.setTimeout(240_000);
  const chart = await makeChart(request, baseURL!, CHART.replace('Little Turn', 'Due Today'));
  await request.post('/api/drills', {
    headers: { origin: baseURL! },
    data: { chartId: chart, words: 'roots, bars 1-2, at 96' },
  });
  await page.goto('/');
  await alive(page);
  await page.keyboard.press('g');
  await page.getByLabel('What', { exact: true }).fill('the Tuesday session');
  const day = new Date(Date.now() + 6 * 86_400_000).toISOString().slice(0, 10);
  await page.getByLabel('On', { exact: true }).fill(day);
  // tried once more, there are two of that name
  await page.getByRole('checkbox', { name: 'Due Today' }).first().check();
  await page.getByRole('button', { name: 'Be ready for it' }).click();
  await expect(page.getByText(/The Tuesday session is in \d days/)).toBeVisible();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(
    /Roots, bars 1-2, at 96 at \d+|A take of Due Today/,
  );
  await page.locator('main').click({ position: { x: 3, y: 3 } });
  await page.keyboard.press('g');
  await page.getByRole('button', { name: 'No goal' }).click();
  await expect(page.getByText('Name something to be ready for')).toBeVisible();

  await page.goto('/drills');
  await alive(page);
  const own = page.getByLabel('Or in your own words');
  await own.fill('land on the thrid');
  await expect(page.getByText(/is no rule that can be heard/)).toBeVisible();
  await own.fill('land on the third from a half step below, at 72');
  await expect(
    page.getByText('Over every chord lead into the third from a half step below.').first(),
  ).toBeVisible();

  await page.goto('/diary');
  await alive(page);
  const words = page.getByRole('textbox').first();
  await words.fill('Slow is fine.');
  await page.waitForResponse((response) => response.url().includes('/api/diary/') && response.ok());
  await page.reload();
  await expect(page.getByRole('textbox').first()).toHaveValue('Slow is fine.');

  const { drills } = (await (await request.get('/api/drills')).json()) as { drills: { id: string }[] };
  for (const where of [
    '/',
    '/drills',
    `/drills/${drills[0]!.id}`,
    '/progress',
    '/progress?tune=',
    '/diary',
    '/week',
  ]) {
    await page.goto(where);
    await alive(page);
    expect(await violationsIn(page, where)).toEqual([]);
  }
});

test('a finding in a review becomes a drill; bad drills are refused with a reason', async ({
  page,
  request,
  baseURL,
  allowConsole,
}) => {
  allowConsole(/404/);
  const chart = await makeChart(request, baseURL!, CHART);
  const bad = async (data: unknown) => {
    const response = await request.post('/api/drills', { headers: { origin: baseURL! }, data });
    return [response.status(), ((await response.json()) as { error: { message: string } }).error.message];
  };
  expect(await bad({ chartId: chart, words: 'play better' })).toEqual([
    422,
    expect.stringContaining('no rule that can be heard'),
  ]);
  expect(await bad({ chartId: chart, kind: 'ladder-thirds', span: [1, 9] })).toEqual([
    422,
    'Bars from 1 to 2 are meant.',
  ]);
  expect((await bad({ chartId: chart, kind: 'nothing' }))[0]).toBe(422);
  expect((await bad({ takeId: 'none', finding: { kind: 'target-missed' } }))[0]).toBe(404);
  await page.goto('/drills/nothing-here');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
});

test('Progress: rows by keys, then and now heard one after the other, and a kind of change becomes a drill', async ({
  request,
  baseURL,
}) => {
  for (const seed of [4, 9]) await makeTake(request, baseURL!, (one) => one, seed);
  await withStandIn(baseURL!, async (page, complaints) => {
    await page.goto('/progress?tune=Short%20Walk');
    await alive(page);
    const rows = page.getByRole('table').getByRole('row');
    await expect(rows.nth(1)).toHaveAttribute('aria-current', 'true');
    await page.keyboard.press('ArrowDown');
    await expect(rows.nth(2)).toHaveAttribute('aria-current', 'true');
    const both = page.getByRole('region', { name: 'Then and now' });
    await both.getByRole('button', { name: 'one after the other' }).click();
    const buttons = both.locator('li button');
    await expect(buttons.nth(0)).toHaveAttribute('aria-pressed', 'true', { timeout: 15_000 });
    await expect(buttons.nth(1)).toHaveAttribute('aria-pressed', 'true', { timeout: 20_000 });
    await expect(buttons.nth(0)).toHaveAttribute('aria-pressed', 'false');
    await page.getByRole('tab', { name: 'Weeks' }).click();
    await expect(page.getByRole('region', { name: 'Places on the neck' })).toBeVisible();
    await page.getByRole('tab', { name: 'Kinds of change' }).click();
    await page.keyboard.press('d');
    await expect(page).toHaveURL(/\/drills\//);
    await expect(page.getByRole('heading', { level: 1 })).toContainText('into');
    expect(complaints()).toEqual([]);
  });
});
