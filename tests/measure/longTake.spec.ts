import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { writeWav } from '@/core/formats';
import { improvise, perform } from '@/core/band';
import { readChart } from '@/core/chart';
import { unwrap } from '@/core/shared';
import { browserWithMicrophone, expect, makeChart, test } from '../support/browser';

const RATE = 44_100;
const TEMPO = 96;
const CHART =
  'title: Long Walk\nkey: Bb\ntempo: 96\nfeel: swing\n\n| Bb7 | Eb7 | Bb7 | % |\n| Eb7 | % | Bb7 | G7 |\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |\n';

test('a three-minute take: from the stop to the review on the screen', async ({ request, baseURL }) => {
  const notes = improvise({
    chart: unwrap(readChart(CHART)),
    tempo: TEMPO,
    choruses: 6,
    plan: { id: 'scale-per-chord' },
    seed: 21,
  });
  mkdirSync('.tmp', { recursive: true });
  const file = path.resolve('.tmp/long.wav');
  writeFileSync(
    file,
    writeWav([perform({ notes, tempo: TEMPO, rate: RATE, seed: 21, leadSeconds: 0.5 })], RATE),
  );
  const chart = await makeChart(request, baseURL!, CHART);
  const browser = await browserWithMicrophone(file);
  try {
    const page = await (
      await browser.newContext({
        baseURL: baseURL!,
        viewport: { width: 1280, height: 800 },
        permissions: ['microphone'],
      })
    ).newPage();
    await page.goto(`/record?chart=${chart}`);
    await page.getByLabel('Choruses', { exact: true }).fill('6');
    await page.getByLabel('Choruses', { exact: true }).blur();
    await page.getByRole('heading', { level: 1 }).click();
    await page.keyboard.press('Space');
    await expect(page.locator('footer').getByRole('status').first()).toHaveText('Recording', {
      timeout: 20_000,
    });
    await page.waitForTimeout(178_000);
    const stopped = Date.now();
    await page.keyboard.press('Space');
    await expect(page.getByRole('heading', { level: 1 })).toContainText('chords are still heard', {
      timeout: 30_000,
    });
    const seconds = (Date.now() - stopped) / 1000;
    console.log(`from the stop to the review on the screen: ${seconds.toFixed(2)} s`);
    expect(seconds).toBeLessThan(4);
  } finally {
    await browser.close();
  }
});
