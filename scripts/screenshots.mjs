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
// the chart of the editor's picture: one chord is being mended
const typing = lamplight.text.replace(/F7 {2}\|/, 'F7b |');
const takes = await (await fetch(`${base}/api/takes`)).json();
const review = `/takes/${takes.find((take) => take.title === 'Lamplight Quarry').id}`;

for (const theme of ['dusk', 'noon']) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, permissions: ['microphone'] });
  await context.addInitScript((name) => localStorage.setItem('theme', name), theme);
  const page = await context.newPage();
  const shoot = (name) => page.screenshot({ path: path.join(folder, `${name}-${theme}.png`) });
  for (const [name, place] of [['record', `/record?chart=${lamplight.id}`], ['takes', '/takes'], ['review', review]]) {
    await page.goto(base + place, { waitUntil: 'networkidle' });
    await shoot(name);
  }
  await shootCharts(page, shoot, theme);
  await page.goto(base + review, { waitUntil: 'networkidle' });
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

// phone on a stand
const phone = await browser.newContext({ viewport: { width: 390, height: 844 } });
const small = await phone.newPage();
await small.goto(`${base}/study/${lamplight.id}?at=8`, { waitUntil: 'load' });
await small.waitForTimeout(600);
await small.screenshot({ path: path.join(folder, 'study-phone-dusk.png') });
await phone.close();
await browser.close();

/** The editor with an error, the library, Study by two schools, one place, and the sheet. */
async function shootCharts(page, shoot, theme) {
  const open = async (place) => { await page.goto(base + place, { waitUntil: 'load' }); await page.waitForTimeout(600); };
  await open(`/charts/${lamplight.id}`);
  await page.getByRole('textbox', { name: 'Chart text' }).fill(typing);
  await page.getByTestId('chart-problem').waitFor();
  await shoot('charts');
  // what was typed for the picture is taken back before the page is left
  await page.getByRole('textbox', { name: 'Chart text' }).fill(lamplight.text);
  await page.locator('footer').getByText('Saved').waitFor();
  const plan = theme === 'dusk' ? { id: 'scale-per-chord' } : { id: 'pentatonic-per-chord' };
  await open(`/study/${lamplight.id}?at=8&plan=${encodeURIComponent(JSON.stringify(plan))}`);
  await shoot('study');
  if (theme === 'dusk') {
    await open('/charts');
    await shoot('library');
    await open(`/study/${lamplight.id}?at=9&view=place`);
    await shoot('place');
  } else {
    await page.setViewportSize({ width: 1000, height: 1180 });
    await open(`/study/${lamplight.id}/sheet`);
    await shoot('sheet');
    await page.setViewportSize({ width: 1280, height: 800 });
  }
}
