import { writeFileSync, mkdirSync } from 'node:fs';
import path from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { writeWav } from '@/core/formats';
import { improvise, perform } from '@/core/band';
import { readChart } from '@/core/chart';
import { unwrap } from '@/core/shared';
import {
  browserWithMicrophone,
  cutOffIn,
  expect,
  makeChart,
  rigOf,
  SHORT_CHART,
  takesBegunIn,
  test,
} from '../support/browser';

const RATE = 44_100;

function fileOf(name: string, samples: Float32Array): string {
  mkdirSync('.tmp', { recursive: true });
  const file = path.resolve('.tmp', name);
  writeFileSync(file, writeWav([samples], RATE));
  return file;
}

function soloFile(): string {
  const notes = improvise({
    chart: unwrap(readChart(SHORT_CHART)),
    tempo: 180,
    choruses: 3,
    plan: { id: 'outline' },
    seed: 8,
  });
  return fileOf('troubles.wav', perform({ notes, tempo: 180, rate: RATE, seed: 8 }));
}

let begun: ReturnType<typeof takesBegunIn> | null = null;
test.afterEach(async ({ request, baseURL }, { status, expectedStatus }) => {
  if (status !== expectedStatus) await begun?.drop(request, baseURL!);
  begun = null;
});

async function openRecord(
  browser: Browser,
  baseURL: string,
  chart: string,
  permissions: string[] = ['microphone'],
): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL, permissions });
  await context.addInitScript(rigOf({}));
  const page = await context.newPage();
  begun = takesBegunIn(page);
  await page.goto(`/record?chart=${chart}`);
  await page.getByRole('heading', { level: 1 }).click();
  return page;
}

const start = async (page: Page) => {
  await page.keyboard.press('Space');
  await expect(page.locator('footer').getByRole('status').first()).toHaveText('Recording', {
    timeout: 15_000,
  });
};
const stopAndReview = async (page: Page) => {
  await page.keyboard.press('Space');
  await page.waitForURL(/\/takes\/[\w-]+$/, { timeout: 20_000 });
};
const trouble = (page: Page) => page.getByRole('alert').filter({ hasText: /\w/ }).first();

test('the microphone refused: said plainly, the other ways in stay open', async ({ request, baseURL }) => {
  const chart = await makeChart(request, baseURL!, SHORT_CHART);
  const browser = await browserWithMicrophone(null);
  try {
    const page = await openRecord(browser, baseURL!, chart, []);
    await page.keyboard.press('Space');
    await expect(trouble(page)).toContainText('The microphone stays closed');
    await expect(page.getByRole('button', { name: /^2 A recording/ })).toBeVisible();
    // under its number the stand-in sits down in the player's place, and the choice is remembered
    await page.keyboard.press('3');
    await expect(page.locator('footer').getByRole('status').first()).toHaveText('Recording', {
      timeout: 20_000,
    });
    await page.keyboard.press('Backspace');
    await expect(page.getByRole('button', { name: /Count me in/ })).toBeVisible();
    await expect(page.getByRole('combobox', { name: 'Input', exact: true })).toHaveText(/steady hand/);
  } finally {
    await browser.close();
  }
});

test('an input that gives nothing is told before the count-in; played all the same, the take is offered to be thrown away', async ({
  request,
  baseURL,
}) => {
  const chart = await makeChart(request, baseURL!, SHORT_CHART);
  const browser = await browserWithMicrophone(fileOf('silence.wav', new Float32Array(RATE * 20)));
  try {
    const page = await openRecord(browser, baseURL!, chart);
    await page.keyboard.press('Space');
    await expect(trouble(page)).toContainText('Nothing comes in', { timeout: 15_000 });
    await expect(trouble(page)).toContainText('The count-in waits.');
    await start(page);
    await expect(page.getByTestId('bar')).toHaveText('bar 2 of 4', { timeout: 15_000 });
    await page.keyboard.press('PageDown'); // a pedal
    await expect(page.getByText('No note was heard.')).toBeVisible();
    const before = ((await (await request.get('/api/takes')).json()) as unknown[]).length;
    await page.getByRole('button', { name: /throw it away, try again/ }).click();
    await expect(page.getByRole('button', { name: /Count me in/ })).toBeVisible();
    await expect
      .poll(async () => ((await (await request.get('/api/takes')).json()) as unknown[]).length)
      .toBe(before - 1);
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
    await page.evaluate(() => {
      const ask = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
      navigator.mediaDevices.getUserMedia = async (constraints) => {
        const stream = await ask(constraints);
        (window as unknown as { track: MediaStreamTrack }).track = stream.getAudioTracks()[0]!;
        return stream;
      };
    });
    await start(page);
    await page.waitForTimeout(1_500);
    // a device that goes away ends its track without stop() being called: the event is what the page hears of it
    await page.evaluate(() =>
      (window as unknown as { track: MediaStreamTrack }).track.dispatchEvent(new Event('ended')),
    );
    await page.waitForURL(/\/takes\/[\w-]+\?cut=1$/, { timeout: 20_000 });
    await expect(page.getByText('The input was disconnected during this take.')).toBeVisible();
  } finally {
    await browser.close();
  }
});

test('an input plugged in again is listened to again by itself', async ({ baseURL }) => {
  const browser = await browserWithMicrophone(soloFile());
  try {
    const page = await (
      await browser.newContext({ baseURL: baseURL!, permissions: ['microphone'] })
    ).newPage();
    await page.addInitScript(() => {
      const ask = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
      navigator.mediaDevices.getUserMedia = async (constraints) => {
        const stream = await ask(constraints);
        (window as unknown as { track: MediaStreamTrack }).track = stream.getAudioTracks()[0]!;
        return stream;
      };
    });
    await page.goto('/settings', { waitUntil: 'networkidle' });
    await page.getByRole('button', { name: 'Listen to the input' }).click();
    const level = page.getByText(/dBFS/);
    await expect(level).toBeVisible({ timeout: 10_000 });
    await page.evaluate(() =>
      (window as unknown as { track: MediaStreamTrack }).track.dispatchEvent(new Event('ended')),
    );
    await expect(page.getByText('It was unplugged.')).toBeVisible();
    await page.evaluate(() => navigator.mediaDevices.dispatchEvent(new Event('devicechange')));
    await expect(level).toBeVisible({ timeout: 10_000 });
    await expect(page.getByText('It was unplugged.')).toBeHidden();
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
    await expect(cutOffIn(second)).toHaveCount(0);
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

test('the tab closed while recording: the next start offers what is safe, and it becomes a review', async ({
  request,
  baseURL,
}) => {
  const chart = await makeChart(request, baseURL!, SHORT_CHART);
  const browser = await browserWithMicrophone(soloFile());
  try {
    const page = await openRecord(browser, baseURL!, chart);
    await start(page);
    await page.waitForTimeout(5_500);
    await page.close({ runBeforeUnload: false });
    const next = await openRecord(browser, baseURL!, chart);
    const offer = next.getByRole('alert').filter({ hasText: 'Your last take was cut off.' });
    await expect(offer).toContainText(/Short Walk, at 180/);
    await expect(offer).toContainText(/[4-9] seconds of it are safe\./);
    await expect(offer).toContainText(/notes are in it/, { timeout: 20_000 });
    await next.keyboard.press('Space');
    await next.waitForURL(/\/takes\/[\w-]+$/, { timeout: 20_000 });
    await expect(next.getByRole('heading', { level: 1 })).toContainText(/\w+\./);
  } finally {
    await browser.close();
  }
});

test('holding the pedal throws the take away; one key brings it back out of the trash', async ({
  request,
  baseURL,
}) => {
  const chart = await makeChart(request, baseURL!, SHORT_CHART);
  const browser = await browserWithMicrophone(soloFile());
  try {
    const page = await openRecord(browser, baseURL!, chart);
    await start(page);
    const before = ((await (await request.get('/api/takes')).json()) as unknown[]).length;
    const hold = async () => {
      await page.keyboard.down('Space');
      await page.waitForTimeout(900);
      await page.keyboard.up('Space');
    };
    const trashed = page.getByText(/The take is in the trash/).first();
    await page.waitForTimeout(3_000);
    await hold();
    await expect(page.getByRole('button', { name: /Count me in/ })).toBeVisible();
    await expect(trashed).toBeVisible();
    await page.keyboard.press('z');
    await expect(cutOffIn(page)).toBeVisible({ timeout: 20_000 });
    await expect(trashed).toBeHidden();
    await hold();
    await expect(trashed).toBeVisible();
    await page.reload();
    await expect(cutOffIn(page)).toHaveCount(0);
    expect((await (await request.get('/api/takes')).json()) as unknown[]).toHaveLength(before);
  } finally {
    await browser.close();
  }
});

test('the browser stops the sound in the middle of a take: it is said, and one click goes on', async ({
  request,
  baseURL,
}) => {
  const chart = await makeChart(request, baseURL!, SHORT_CHART);
  const browser = await browserWithMicrophone(soloFile());
  try {
    const page = await openRecord(browser, baseURL!, chart);
    await page.evaluate(() => {
      const held = window as unknown as { contexts: AudioContext[]; isHeld: boolean };
      held.contexts = [];
      const { resume } = AudioContext.prototype;
      AudioContext.prototype.resume = function (this: AudioContext) {
        held.contexts.push(this);
        return held.isHeld ? Promise.reject(new Error('not now')) : resume.call(this);
      };
    });
    await start(page);
    await expect(page.getByTestId('bar')).toHaveText('bar 2 of 4', { timeout: 15_000 });
    await page.evaluate(() => {
      const held = window as unknown as { contexts: AudioContext[]; isHeld: boolean };
      held.isHeld = true;
      return Promise.all(held.contexts.map((context) => context.suspend()));
    });
    const said = page.getByText('The browser has stopped the sound');
    await expect(said).toBeVisible();
    await page.evaluate(() => ((window as unknown as { isHeld: boolean }).isHeld = false));
    await page.getByTestId('bar').click();
    await expect(said).toBeHidden();
    await stopAndReview(page);
  } finally {
    await browser.close();
  }
});

test('a browser whose storage never answers keeps no count-in waiting', async ({ request, baseURL }) => {
  const chart = await makeChart(request, baseURL!, SHORT_CHART);
  const browser = await browserWithMicrophone(soloFile());
  try {
    const page = await openRecord(browser, baseURL!, chart);
    await page.addInitScript(() => {
      IDBFactory.prototype.open = () => new EventTarget() as IDBOpenDBRequest;
    });
    await page.reload();
    await page.getByRole('heading', { level: 1 }).click();
    await start(page);
    await expect(page.getByText('This browser stores nothing for this page')).toBeVisible();
    await expect(page.getByTestId('bar')).toHaveText('bar 2 of 4', { timeout: 15_000 });
    await stopAndReview(page);
  } finally {
    await browser.close();
  }
});
