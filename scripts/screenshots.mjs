// npm run screenshots: pictures of the main views from the demo data into docs/screenshots. The demo must be running (PORT, 3000).
import { execFileSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { chromium } from '@playwright/test';
import { findChromium } from './chromium.mjs';

const base = `http://127.0.0.1:${process.env.PORT ?? 3000}`;
const folder = path.resolve('docs/screenshots');
mkdirSync('.tmp', { recursive: true });
mkdirSync(folder, { recursive: true });

// the microphone of the pictures hears the stand-in player
const charts = await (await fetch(`${base}/api/charts`)).json();
const lamplight = charts.find((chart) => chart.title === 'Lamplight Quarry');
writeFileSync('.tmp/shot.txt', lamplight.text);
execFileSync('node', ['bin/wander', 'play', '.tmp/shot.txt', '--seed', '4', '--choruses', '2', '--lead', '3', '--out', '.tmp/shot.wav']);

const browser = await chromium.launch({
  executablePath: findChromium(),
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--autoplay-policy=no-user-gesture-required', '--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream', `--use-file-for-fake-audio-capture=${path.resolve('.tmp/shot.wav')}%noloop`],
});
const takes = await (await fetch(`${base}/api/takes`)).json();
const review = `/takes/${takes.find((take) => take.title === 'Lamplight Quarry').id}`;

for (const theme of ['dusk', 'noon']) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, permissions: ['microphone'] });
  await context.addInitScript((name) => localStorage.setItem('theme', name), theme);
  const page = await context.newPage();
  const shoot = (name) => page.screenshot({ path: path.join(folder, `${name}-${theme}.png`) });
  for (const [name, place] of [['charts', `/charts/${lamplight.id}`], ['record', `/record?chart=${lamplight.id}`], ['takes', '/takes'], ['review', review]]) {
    await page.goto(base + place, { waitUntil: 'networkidle' });
    await shoot(name);
  }
  await page.getByRole('region', { name: 'Coverage' }).scrollIntoViewIfNeeded();
  await page.evaluate(() => window.scrollTo(0, document.body.scrollHeight));
  await shoot('review-boards');
  await page.goto(`${base}/record?chart=${lamplight.id}`, { waitUntil: 'networkidle' });
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Space');
  await page.getByTestId('bar').filter({ hasText: 'bar 3' }).waitFor({ timeout: 30_000 });
  await page.waitForTimeout(900);
  await shoot('stage');
  await page.keyboard.down('Space');
  await page.waitForTimeout(900);
  await page.keyboard.up('Space');
  await page.getByRole('button', { name: /Count me in/ }).waitFor();
  await context.close();
}
await browser.close();
