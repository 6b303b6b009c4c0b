import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { chromium, type Locator, type Page } from '@playwright/test';
import { improvise, perform } from '@/core/band';
import { readChart } from '@/core/chart';
import { writeWav } from '@/core/formats';
import { unwrap } from '@/core/shared';
import { CHROMIUM } from '../../playwright.config';
import { alive, browserWithMicrophone, expect, makeChart, rigOf, test } from '../support/browser';
import { OwnServer } from '../support/ownServer';

/**
 * What a person takes for one thing on a screen: to make up the mind, to point, to press.
 * Source: the keystroke-level model (Card, Moran and Newell, 1980): 1.35 + 1.1 + 0.2 s.
 */
const ACTION_MS = 2_650;
/** Words read a minute, silently (Brysbaert, 2019). */
const WORDS_A_MINUTE = 238;
const RATE = 44_100;
const BLUES =
  'title: First Evening\nkey: Bb\ntempo: 152\nfeel: swing\n\n| Bb7 | Eb7 | Bb7 | % |\n| Eb7 | % | Bb7 | G7 |\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |\n';

/** A player in front of a screen: reads what is said, then does one thing. */
class Person {
  actions = 0;
  private readonly began = Date.now();
  constructor(private readonly page: Page) {}
  get seconds(): number {
    return (Date.now() - this.began) / 1000;
  }
  async reads(what: Locator): Promise<void> {
    const words = (await what.innerText()).split(/\s+/).length;
    await this.page.waitForTimeout((words / WORDS_A_MINUTE) * 60_000);
  }
  async presses(what: Locator): Promise<void> {
    await this.page.waitForTimeout(ACTION_MS);
    await what.click();
    this.actions++;
  }
  async key(name: string): Promise<void> {
    await this.page.waitForTimeout(ACTION_MS);
    await this.page.keyboard.press(name);
    this.actions++;
  }
}

test('@evening with a guitar, from an empty database: set-up and first take', async () => {
  mkdirSync('.tmp', { recursive: true });
  const wav = path.resolve('.tmp', 'evening.wav');
  const request = {
    chart: unwrap(readChart(BLUES)),
    tempo: 152,
    choruses: 12,
    plan: { id: 'outline' } as const,
  };
  const loud = perform({ notes: improvise({ ...request, seed: 3 }), tempo: 152, rate: RATE, seed: 3 });
  // the gain is turned so that the loudest note has room above it
  const sound = loud.map((value) => value * 0.4);
  writeFileSync(wav, writeWav([sound], RATE));
  const server = new OwnServer(3241, '.tmp/evening.db');
  await server.start();
  const browser = await browserWithMicrophone(wav);
  try {
    const context = await browser.newContext({
      baseURL: server.url,
      viewport: { width: 1280, height: 800 },
      permissions: ['microphone'],
    });
    const page = await context.newPage();
    await page.goto('/');
    await alive(page);
    const person = new Person(page);
    const main = page.locator('main');
    await person.reads(main);
    await person.presses(page.getByRole('link', { name: /set up/i }).first());
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Set up');
    await person.reads(main);
    const step = (number: number) => page.locator('main ol > li').nth(number - 1);
    await person.presses(step(1).getByRole('button', { name: 'Listen to the input' }));
    await expect(step(1).getByRole('img', { name: 'done' })).toBeVisible({ timeout: 30_000 });
    await person.reads(step(1).getByRole('status').first());
    await person.presses(step(2).getByRole('radio', { name: 'headphones' }));
    await person.reads(step(2).getByRole('status').first());
    // the input is open: the tuner listens already
    await person.reads(step(4).getByRole('status').first());
    const setUp = person.seconds;
    await person.presses(page.getByRole('link', { name: 'Record a first take' }));
    await expect(page).toHaveURL(/\/record/);
    // an empty database has no chart yet: a form of the library
    await person.reads(page.getByRole('heading', { level: 1 }));
    await person.presses(page.getByRole('button', { name: /12 bars/ }).first());
    await expect(page).toHaveURL(/\/record\?chart=/);
    await person.reads(page.getByRole('heading', { level: 1 }));
    await page.getByRole('heading', { level: 1 }).click();
    await person.key('Space');
    await expect(page.getByTestId('chord-now')).toBeVisible({ timeout: 30_000 });
    const start = person.seconds;
    // the take goes on to its end by itself; its one sentence stands while the next is counted in
    await expect(page.getByRole('timer')).toBeVisible({ timeout: 170_000 });
    await expect(page.getByRole('heading', { level: 1 })).toContainText(/\w+\./);
    await person.reads(page.getByRole('heading', { level: 1 }));
    console.log(
      `set up after ${setUp.toFixed(0)} s, playing after ${start.toFixed(0)} s, the first sentence read after ${person.seconds.toFixed(0)} s; ${person.actions} actions`,
    );
    expect(person.seconds).toBeLessThan(180);
  } finally {
    await browser.close();
    server.kill();
  }
});

test('@evening five takes with their one sentence read, by one pedal', async ({ request, baseURL }) => {
  const chart = await makeChart(request, baseURL!, BLUES);
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--autoplay-policy=no-user-gesture-required'],
  });
  try {
    const context = await browser.newContext({ baseURL: baseURL!, viewport: { width: 1280, height: 800 } });
    const device = { kind: 'stand-in', character: 'steady', delayMs: 0 };
    await context.addInitScript(rigOf({ device, afterTake: 'roll' }));
    const page = await context.newPage();
    await page.goto(`/record?chart=${chart}`);
    await alive(page);
    await page.getByRole('heading', { level: 1 }).click();
    const person = new Person(page);
    await person.key('Space');
    const sentences: string[] = [];
    while (sentences.length < 5) {
      await expect(page.getByRole('timer')).toBeVisible({ timeout: 90_000 });
      const sentence = page.getByRole('heading', { level: 1 });
      await expect(sentence).toContainText(/you met|your/i, { timeout: 10_000 });
      sentences.push(await sentence.innerText());
      const words = sentences.at(-1)!.split(/\s+/).length;
      const stood = Date.now();
      await expect(page.getByRole('timer')).toHaveCount(0, { timeout: 60_000 });
      // it goes on standing on the stage of the next take
      await expect(page.getByText(/^Take \d+:/)).toBeVisible({ timeout: 5_000 });
      await expect(page.getByText(/^Take \d+:/)).toHaveCount(0, { timeout: 30_000 });
      console.log(
        `take ${sentences.length}: ${sentences.at(-1)!.replaceAll('\n', ' ')} (${words} words, stood ${((Date.now() - stood) / 1000).toFixed(1)} s)`,
      );
      // it stood long enough to be read
      expect(Date.now() - stood).toBeGreaterThan((words / WORDS_A_MINUTE) * 60_000);
    }
    console.log(`five takes after ${person.seconds.toFixed(0)} s, ${person.actions} press of the pedal`);
    expect(person.seconds).toBeLessThan(600);
    await page.keyboard.press('Backspace');
  } finally {
    await browser.close();
  }
});
