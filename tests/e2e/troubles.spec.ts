import { writeFileSync, mkdirSync } from 'node:fs';
import path from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { writeWav } from '@/core/formats';
import { improvise, perform } from '@/core/band';
import { readChart } from '@/core/chart';
import { certain } from '@/core/vocabulary';
import { browserWithMicrophone, expect, makeChart, SHORT_CHART, test } from '../support/browser';

const RATE = 44_100;

function fileOf(name: string, samples: Float32Array): string {
  mkdirSync('.tmp', { recursive: true });
  const file = path.resolve('.tmp', name);
  writeFileSync(file, writeWav([samples], RATE));
  return file;
}

function soloFile(): string {
  const notes = improvise({ chart: certain(readChart(SHORT_CHART)), tempo: 180, choruses: 3, plan: { id: 'outline' }, seed: 8 });
  return fileOf('troubles.wav', perform({ notes, tempo: 180, rate: RATE, seed: 8 }));
}

async function openRecord(browser: Browser, baseURL: string, chart: string, permissions: string[] = ['microphone']): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL, permissions });
  const page = await context.newPage();
  await page.goto(`/record?chart=${chart}`);
  await page.getByRole('heading', { level: 1 }).click();
  return page;
}

const start = async (page: Page) => {
  await page.keyboard.press('Space');
  await expect(page.locator('footer').getByRole('status').first()).toHaveText('Recording');
};
const trouble = (page: Page) => page.getByRole('alert').filter({ hasText: /\w/ }).first();

test('the microphone refused: said plainly, the other ways in stay open', async ({ request, baseURL }) => {
  const chart = await makeChart(request, baseURL!, SHORT_CHART);
  const browser = await browserWithMicrophone(null);
  try {
    const page = await openRecord(browser, baseURL!, chart, []);
    await page.keyboard.press('Space');
    await expect(trouble(page)).toContainText('The microphone stays closed');
    await expect(page.getByRole('button', { name: 'Bring a recording' })).toBeVisible();
    await expect(page.getByRole('button', { name: /Count me in/ })).toBeVisible();
  } finally {
    await browser.close();
  }
});

test('an input that delivers silence is told while it plays, and offered to be thrown away', async ({ request, baseURL }) => {
  const chart = await makeChart(request, baseURL!, SHORT_CHART);
  const browser = await browserWithMicrophone(fileOf('silence.wav', new Float32Array(RATE * 20)));
  try {
    const page = await openRecord(browser, baseURL!, chart);
    await start(page);
    await expect(trouble(page)).toContainText('Nothing comes in', { timeout: 15_000 });
    await page.keyboard.press('PageDown'); // a pedal
    await expect(page.getByText('No note was heard in this take.')).toBeVisible();
    const before = ((await (await request.get('/api/takes')).json()) as unknown[]).length;
    await page.getByRole('button', { name: 'Throw it away, try again' }).click();
    await expect(page.getByRole('button', { name: /Count me in/ })).toBeVisible();
    expect((await (await request.get('/api/takes')).json()) as unknown[]).toHaveLength(before - 1);
  } finally {
    await browser.close();
  }
});

test('the input unplugged midway: what was played is kept and judged', async ({ request, baseURL }) => {
  const chart = await makeChart(request, baseURL!, SHORT_CHART);
  const browser = await browserWithMicrophone(soloFile());
  try {
    const page = await openRecord(browser, baseURL!, chart);
    // a device that goes away ends its track without stop() being called: the event is what the page hears of it
    await page.evaluate(() => {
      const ask = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
      navigator.mediaDevices.getUserMedia = async (constraints) => {
        const stream = await ask(constraints);
        setTimeout(() => stream.getAudioTracks()[0]!.dispatchEvent(new Event('ended')), 4_000);
        return stream;
      };
    });
    await start(page);
    await page.waitForURL(/\/takes\/[\w-]+\?cut=1$/, { timeout: 20_000 });
    await expect(page.getByText('The input went away during this take.')).toBeVisible();
  } finally {
    await browser.close();
  }
});

test('two takes at once: the second tab says so and the first goes on', async ({ request, baseURL }) => {
  const chart = await makeChart(request, baseURL!, SHORT_CHART);
  const browser = await browserWithMicrophone(soloFile());
  try {
    const page = await openRecord(browser, baseURL!, chart);
    await start(page);
    const second = await page.context().newPage();
    await second.goto(`/record?chart=${chart}`);
    await expect(second.getByRole('alert', { name: 'Cut-off take' })).toHaveCount(0);
    await second.getByRole('heading', { level: 1 }).click();
    await second.keyboard.press('Space');
    await expect(trouble(second)).toContainText('Another take is being recorded in another tab');
    await page.bringToFront();
    await page.keyboard.press('Space');
    await page.waitForURL(/\/takes\/[\w-]+$/);
  } finally {
    await browser.close();
  }
});

test('the tab closed while recording: the next start offers what is safe, and it becomes a review', async ({ request, baseURL }) => {
  const chart = await makeChart(request, baseURL!, SHORT_CHART);
  const browser = await browserWithMicrophone(soloFile());
  try {
    const page = await openRecord(browser, baseURL!, chart);
    await start(page);
    await page.waitForTimeout(5_500);
    await page.close({ runBeforeUnload: false });
    const next = await openRecord(browser, baseURL!, chart);
    const offer = next.getByRole('alert', { name: 'Cut-off take' });
    await expect(offer).toContainText(/Your last take of Short Walk was cut off\. [3-9] seconds of it are safe\./);
    await offer.getByRole('button', { name: 'Keep and review it' }).click();
    await next.waitForURL(/\/takes\/[\w-]+$/, { timeout: 20_000 });
    await expect(next.getByRole('heading', { level: 1 })).toContainText('chords are still heard');
  } finally {
    await browser.close();
  }
});

test('holding the pedal throws the take away', async ({ request, baseURL }) => {
  const chart = await makeChart(request, baseURL!, SHORT_CHART);
  const browser = await browserWithMicrophone(soloFile());
  try {
    const page = await openRecord(browser, baseURL!, chart);
    await start(page);
    const before = ((await (await request.get('/api/takes')).json()) as unknown[]).length;
    await page.keyboard.down('Space');
    await page.waitForTimeout(900);
    await page.keyboard.up('Space');
    await expect(page.getByRole('button', { name: /Count me in/ })).toBeVisible();
    await page.reload();
    await expect(page.getByRole('alert', { name: 'Cut-off take' })).toHaveCount(0);
    expect((await (await request.get('/api/takes')).json()) as unknown[]).toHaveLength(before);
  } finally {
    await browser.close();
  }
});
