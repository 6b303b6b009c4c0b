import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import { chromium, type Browser, type Page } from '@playwright/test';
import { readWav, writeWav } from '@/core/formats';
import { unwrap } from '@/core/shared';
import { CHROMIUM } from '../../playwright.config';
import {
  choose,
  browserWithMicrophone,
  expect,
  listen,
  makeChart,
  rigOf,
  SHORT_CHART,
  takesBegunIn,
  test,
} from '../support/browser';
import { OwnServer } from '../support/ownServer';

const RATE = 44_100;
const STAND_IN = { kind: 'stand-in', character: 'bebop-student', delayMs: 0 };

let begun: ReturnType<typeof takesBegunIn> | null = null;
test.afterEach(async ({ request, baseURL }, { status, expectedStatus }) => {
  if (status !== expectedStatus) await begun?.drop(request, baseURL!);
  begun = null;
});

async function corner(
  browser: Browser,
  baseURL: string,
  where: string,
  rig: Record<string, unknown>,
): Promise<Page> {
  const context = await browser.newContext({
    baseURL,
    viewport: { width: 1280, height: 800 },
    permissions: ['microphone'],
  });
  await context.addInitScript(rigOf(rig));
  const page = await context.newPage();
  begun = takesBegunIn(page);
  await page.goto(where);
  await page.locator('main').click({ position: { x: 2, y: 2 } });
  return page;
}
const plain = (): Promise<Browser> =>
  chromium.launch({
    executablePath: CHROMIUM,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--autoplay-policy=no-user-gesture-required',
    ],
  });
const status = (page: Page) => page.locator('footer').getByRole('status').first();
const oneChorus = async (page: Page) => {
  await page.getByLabel('Choruses', { exact: true }).fill('1');
  await page.getByLabel('Choruses', { exact: true }).blur();
  await page.getByRole('heading', { level: 1 }).click();
};

test('hands free: the stand-in sits in, the take ends by itself, its result stands while the next is counted in, and the pedal stays with it', async ({
  request,
  baseURL,
}) => {
  const chart = await makeChart(request, baseURL!, SHORT_CHART);
  const browser = await plain();
  try {
    const page = await corner(browser, baseURL!, `/record?chart=${chart}`, {
      device: STAND_IN,
      afterTake: 'roll',
    });
    const complaints = listen(page);
    await oneChorus(page);
    await page.keyboard.press('Space');
    await expect(status(page)).toHaveText('Recording', { timeout: 20_000 });
    // help is hidden step by step
    await expect(page.getByTestId('chord-now')).not.toBeEmpty();
    await page.keyboard.press('h');
    await page.keyboard.press('h');
    await expect(page.getByTestId('chord-now')).toHaveCount(0);
    await page.keyboard.press('h');
    await page.keyboard.press('h');
    await expect(page.getByRole('timer')).toContainText(/Again from the top in \d seconds?/, {
      timeout: 20_000,
    });
    await expect(page.locator('[data-counting="true"]')).toBeVisible({ timeout: 5_000 });
    await page.keyboard.press('PageDown');
    await expect(page.getByRole('timer')).toHaveCount(0);
    await expect(page.getByText(/^Take \d+ kept$/)).toBeVisible({ timeout: 10_000 });
    await expect(page.getByRole('heading', { level: 1 })).toContainText(/you met/);
    for (const theme of ['noon', 'dusk']) {
      await page.evaluate((name) => {
        document.documentElement.dataset.theme = name;
      }, theme);
      const { violations } = await new AxeBuilder({ page }).analyze();
      expect(violations.map((one) => `${theme} ${one.id}: ${one.nodes[0]?.html}`)).toEqual([]);
    }
    await page.keyboard.press('l'); // the weakest two bars, round and round
    await expect(page.getByTestId('bar')).toHaveText(/of 2$/, { timeout: 20_000 });
    await expect(status(page)).toHaveText(/Counting in|Recording/, { timeout: 20_000 });
    await page.keyboard.press('Backspace');
    await expect(page.getByText(/set: bars \d+–\d+/)).toBeVisible();
    await page.getByRole('button', { name: /^More/ }).click();
    await expect(page.getByLabel('Loop bars')).toHaveValue(/\d–\d/);
    expect(complaints()).toEqual([]);
  } finally {
    await browser.close();
  }
});

test('a planted latency is measured through the browser’s own clock; a key is changed and works', async ({
  baseURL,
}) => {
  const browser = await plain();
  try {
    const page = await corner(browser, baseURL!, '/settings', { device: { ...STAND_IN, delayMs: 81 } });
    const complaints = listen(page);
    await page.getByRole('button', { name: 'Measure with clicks' }).click();
    await expect(page.getByText('kept for this device')).toBeVisible({ timeout: 30_000 });
    expect(Math.abs(Number(await page.getByTestId('latency').textContent()) - 81)).toBeLessThan(1);
    await page.getByRole('button', { name: /Hide help step by step/ }).click();
    await page.keyboard.press('j');
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog')).toContainText('J');
    await page.keyboard.press('Escape');
    await choose(page.getByRole('combobox', { name: 'Keep it' }), 'a month');
    await expect(page.getByRole('alert').filter({ hasText: 'deleted after thirty days' })).toBeVisible();
    expect(complaints()).toEqual([]);
  } finally {
    await browser.close();
  }
});

test('the tuner tells a string through the microphone', async ({ baseURL }) => {
  mkdirSync('.tmp', { recursive: true });
  const file = path.resolve('.tmp/string.wav');
  // the D string, 7 cents flat: 146.83 Hz less 7 cents
  const hz = 146.83 * 2 ** (-7 / 1200);
  writeFileSync(
    file,
    writeWav(
      [
        Float32Array.from({ length: RATE * 12 }, (_, n) =>
          [1, 2, 3, 4].reduce((sum, k) => sum + (0.2 / k) * Math.sin((2 * Math.PI * hz * k * n) / RATE), 0),
        ),
      ],
      RATE,
    ),
  );
  const browser = await browserWithMicrophone(file);
  try {
    const page = await corner(browser, baseURL!, '/settings', {});
    await page.getByRole('button', { name: 'Listen to the strings' }).click();
    const tuner = page.getByRole('region', { name: 'Tuner' });
    await expect(tuner).toContainText(/string 4, [67]\.\d cents flat/, { timeout: 10_000 });
    await expect(tuner).toContainText('wants 146.8');
  } finally {
    await browser.close();
  }
});

test('a backing of the player’s own: its tempo is heard, confirmed and played over', async ({
  request,
  baseURL,
}) => {
  const chart = await makeChart(request, baseURL!, SHORT_CHART);
  const clicks = Float32Array.from({ length: RATE * 16 }, (_, n) => {
    const into = (n / RATE - 0.4) % 0.4;
    return n / RATE >= 0.4 && into < 0.03 ? Math.sin(n * 0.3) * Math.exp(-into * 120) * 0.8 : 0;
  }); // 150 beats a minute from 0.4 s on
  const browser = await plain();
  try {
    const page = await corner(browser, baseURL!, `/record?chart=${chart}`, {
      device: STAND_IN,
      afterTake: 'stay',
    });
    await page.getByRole('button', { name: /^More/ }).click();
    await page.getByLabel('Backing of your own').setInputFiles({
      name: 'my-backing.wav',
      mimeType: 'audio/wav',
      buffer: Buffer.from(writeWav([clicks], RATE)),
    });
    const dialog = page.getByRole('dialog');
    await expect(dialog).toContainText(/Heard: (149\.[5-9]|150\.\d|7[45]\.\d) beats a minute/, {
      timeout: 20_000,
    });
    if (Number(await dialog.getByLabel('Tempo').inputValue()) < 100)
      await dialog.getByRole('button', { name: 'double' }).click();
    expect(Math.abs(Number(await dialog.getByLabel('Tempo').inputValue()) - 150)).toBeLessThan(1);
    await dialog.getByRole('button', { name: 'Play over it' }).click();
    await expect(page.getByRole('combobox', { name: 'Played by' })).not.toHaveText('the band');
    await page.getByRole('heading', { level: 1 }).click();
    await page.keyboard.press('Space');
    await expect(status(page)).toHaveText('Recording', { timeout: 20_000 });
    // a take that is stopped before its first note is no take
    await expect(page.getByTestId('bar')).toHaveText('bar 2 of 4', { timeout: 10_000 });
    await page.keyboard.press('Space');
    await expect(page.getByText(/^Take \d+ kept$/)).toBeVisible({ timeout: 30_000 });
  } finally {
    await browser.close();
  }
});

test('the server killed in the middle of a take: recording goes on, says so, and every frame is there when it is back', async () => {
  test.setTimeout(120_000);
  const server = new OwnServer(3228, '.tmp/killed.db');
  await server.start();
  const browser = await plain();
  try {
    const made = await fetch(`${server.url}/api/charts`, {
      method: 'POST',
      headers: { origin: server.url, 'content-type': 'application/json' },
      body: JSON.stringify({ text: SHORT_CHART }),
    });
    const { id } = (await made.json()) as { id: string };
    const page = await corner(browser, server.url, `/record?chart=${id}`, {
      device: STAND_IN,
      afterTake: 'stay',
    });
    await page.getByLabel('Choruses', { exact: true }).fill('3');
    await page.getByLabel('Choruses', { exact: true }).blur();
    await page.getByRole('heading', { level: 1 }).click();
    await page.keyboard.press('Space');
    await expect(status(page)).toHaveText('Recording', { timeout: 20_000 });
    await page.waitForTimeout(1_500);
    server.kill();
    await expect(page.getByText('The server is away; recording goes on here and catches up.')).toBeVisible({
      timeout: 10_000,
    });
    await server.start();
    await expect(page.getByText(/^Take \d+ kept$/)).toBeVisible({ timeout: 30_000 });
    const [take] = (await (await fetch(`${server.url}/api/takes`)).json()) as {
      id: string;
      frames: number;
      rate: number;
    }[];
    const sound = unwrap(
      readWav(new Uint8Array(await (await fetch(`${server.url}/api/takes/${take!.id}/audio`)).arrayBuffer())),
    );
    expect(sound.channels[0]!.length).toBe(take!.frames);
    // 3 choruses of 4 bars at 180, a bar of count-in and the tail, whole
    expect(take!.frames / take!.rate).toBeGreaterThan(13 * (240 / 180));
  } finally {
    server.kill();
    await browser.close();
  }
});
