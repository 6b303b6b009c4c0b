// npm run screenshots: pictures of the main views from the demo data into docs/screenshots. The demo must
// be running (PORT, 3000).
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { chromium } from '@playwright/test';
import { findChromium } from './chromium.mjs';

const base = `http://127.0.0.1:${process.env.PORT ?? 3000}`;
const folder = path.resolve('docs/screenshots');
mkdirSync(folder, { recursive: true });

const charts = await (await fetch(`${base}/api/charts`)).json();
const lamplight = charts.find((chart) => chart.title === 'Lamplight Quarry');

const browser = await chromium.launch({
  executablePath: findChromium(),
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--autoplay-policy=no-user-gesture-required',
  ],
});
// the chart of the editor's picture: one chord is being mended
const typing = lamplight.text.replace(/F7 {2}\|/, 'F7b |');
const takes = await (await fetch(`${base}/api/takes`)).json();
const review = `/takes/${takes.find((take) => take.title === 'Lamplight Quarry').id}`;

// the stand-in sits in the player's place, its latency measured
const rig = {
  device: { kind: 'stand-in', character: 'bebop-student', delayMs: 23 },
  cautionsSeen: true,
  afterTake: 'roll',
};
async function visit(theme, size = { width: 1280, height: 800 }, change = {}) {
  const context = await browser.newContext({ viewport: size });
  await context.addInitScript(
    ([name, prefs]) => {
      localStorage.setItem('theme', name);
      localStorage.setItem('idle-wander-rig', prefs);
      localStorage.setItem(
        'idle-wander-latencies',
        JSON.stringify({ 'stand-in 23 44100': 0.0233, 'stand-in 23 48000': 0.0233 }),
      );
    },
    [theme, JSON.stringify({ ...rig, ...change })],
  );
  return context;
}
const playing = (page, bar) => page.getByTestId('bar').filter({ hasText: bar }).waitFor({ timeout: 60_000 });

for (const theme of ['dusk', 'noon']) {
  const context = await visit(theme);
  const page = await context.newPage();
  const shoot = (name) => page.screenshot({ path: path.join(folder, `${name}-${theme}.png`) });
  if (theme === 'dusk') {
    await reviewed(page, '');
    await shoot('review');
  } else {
    await reviewed(page, '?view=page&at=note-6');
    await page.locator('.vf-clef').first().waitFor();
    await shoot('page');
  }
  await shootCharts(page, shoot, theme);
  if (theme === 'dusk') {
    await page.goto(base + '/takes', { waitUntil: 'networkidle' });
    await shoot('takes');
    await shootPractice(page, shoot);
    await shootReview(page, shoot);
    await page.goto(base + '/settings', { waitUntil: 'networkidle' });
    await page.getByRole('button', { name: 'Measure with clicks' }).click();
    await page.getByText('agree within').waitFor({ timeout: 20_000 });
    await page.waitForTimeout(2_500);
    await shoot('settings');
  }
  await page.goto(`${base}/record?chart=${lamplight.id}`, { waitUntil: 'networkidle' });
  await page.getByRole('button', { name: 'Listen to the input' }).click();
  await page.getByText(/dBFS/).waitFor();
  if (theme === 'dusk') await shoot('record');
  await page.getByRole('button', { name: /^More/ }).click();
  await page.getByRole('textbox', { name: 'Count-in' }).fill('2');
  await page.getByRole('textbox', { name: 'Count-in' }).blur();
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Space');
  await playing(page, 'bar 9 of');
  await page.waitForTimeout(1_500);
  if (theme === 'dusk') await shoot('stage');
  if (theme === 'dusk') {
    await page.getByRole('timer').waitFor({ timeout: 120_000 });
    await page.getByText(/^Take \d+ kept$/).waitFor({ timeout: 20_000 });
    await shoot('finished');
    // the pictures leave no take behind
    await page.keyboard.press('Backspace');
  } else await page.keyboard.press('Backspace');
  await page
    .getByRole('button', { name: /Count me in|change the setup/ })
    .first()
    .waitFor({ timeout: 20_000 });
  await context.close();
}

// a take that was cut off: its page is gone before it ends
const gone = await visit('dusk');
const cut = await gone.newPage();
await cut.goto(`${base}/record?chart=${lamplight.id}`, { waitUntil: 'networkidle' });
await cut.getByRole('heading', { level: 1 }).click();
await cut.keyboard.press('Space');
await playing(cut, 'bar 11 of');
await cut.close({ runBeforeUnload: false });
const offer = await gone.newPage();
await offer.goto(`${base}/record?chart=${lamplight.id}`, { waitUntil: 'networkidle' });
await offer.getByText(/notes are in it/).waitFor({ timeout: 60_000 });
await offer.getByRole('button', { name: /throw it away/ }).click();
await offer.getByRole('button', { name: /Count me in/ }).waitFor({ timeout: 20_000 });
await gone.close();

// phone on a stand
const phone = await visit('dusk', { width: 390, height: 844 });
const small = await phone.newPage();
await small.goto(`${base}/record?chart=${lamplight.id}`, { waitUntil: 'networkidle' });
await small.getByRole('button', { name: /Count me in/ }).click();
await playing(small, 'bar 9 of');
await small.waitForTimeout(1_500);
await small.screenshot({ path: path.join(folder, 'stage-phone-dusk.png') });
await small.keyboard.press('Backspace');
await small.getByRole('button', { name: /Count me in/ }).waitFor({ timeout: 20_000 });
await phone.close();
await browser.close();
// what was recorded for the pictures goes again
const known = new Set(takes.map(({ id }) => id));
for (const { id } of await (await fetch(`${base}/api/takes`)).json())
  if (!known.has(id)) await fetch(`${base}/api/takes/${id}`, { method: 'DELETE', headers: { origin: base } });

/** A review with its notes drawn. */
async function reviewed(page, query) {
  await page.goto(base + review + query, { waitUntil: 'networkidle' });
  await page.getByRole('heading', { level: 1 }).waitFor();
}

/** The boards, a note under the hand, two takes, and the view from two metres away. */
async function shootReview(page, shoot) {
  await reviewed(page, '?view=boards');
  await shoot('review-boards');
  await reviewed(page, '?view=correct&at=note-9');
  await page.keyboard.press('ArrowRight');
  await page.waitForTimeout(800);
  await shoot('review-correct');
  await reviewed(page, '?view=compare');
  await page.getByText('you met a target in').waitFor();
  await shoot('review-compare');
  await reviewed(page, '?view=far');
  for (let press = 0; press < 7; press++) await page.keyboard.press('ArrowRight');
  await page.getByText('sounding').first().waitFor({ timeout: 10_000 });
  await page.waitForTimeout(900);
  await shoot('review-far');
}

/** The editor with an error, a phrase, Study by two schools, one place, and the sheet. */
async function shootCharts(page, shoot, theme) {
  const open = async (place) => {
    await page.goto(base + place, { waitUntil: 'load' });
    await page.waitForTimeout(600);
  };
  await open(`/charts/${lamplight.id}`);
  await page.getByRole('textbox', { name: 'Chart text' }).fill(typing);
  await page.getByTestId('chart-problem').waitFor();
  if (theme === 'dusk') await shoot('charts');
  // what was typed for the picture is taken back before the page is left
  await page.getByRole('textbox', { name: 'Chart text' }).fill(lamplight.text);
  await page.locator('footer').getByText('Saved').waitFor();
  const plan = theme === 'dusk' ? { id: 'scale-per-chord' } : { id: 'pentatonic-per-chord' };
  await open(`/study/${lamplight.id}?at=8&plan=${encodeURIComponent(JSON.stringify(plan))}`);
  if (theme === 'dusk') await shoot('study');
  if (theme === 'dusk') {
    const { phrases } = await (await fetch(`${base}/api/phrases`)).json();
    await open(`/phrases/${phrases.find(({ name }) => name === 'Around the third of home').id}`);
    await page.getByText('In none of your takes').waitFor();
    await shoot('phrase');
  }
}

/** What is due, a drill in the middle of an attempt, and the weeks behind it. */
async function shootPractice(page, shoot) {
  await page.goto(base + '/', { waitUntil: 'networkidle' });
  await shoot('today');
  await page.goto(base + '/week', { waitUntil: 'networkidle' });
  await shoot('week');
  await page.goto(`${base}/progress?tune=${encodeURIComponent('Lamplight Quarry')}`, {
    waitUntil: 'networkidle',
  });
  await shoot('progress');
  const { drills } = await (await fetch(`${base}/api/drills`)).json();
  await page.goto(`${base}/drills/${drills.find(({ drill }) => drill.name.includes('F7')).id}`, {
    waitUntil: 'networkidle',
  });
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Space');
  await page.getByText(/[5-9] of \d+ \w+ so far/).waitFor({ timeout: 60_000 });
  await page.waitForTimeout(600);
  await shoot('drill');
  // stopped in the middle: the attempt goes
  await page.keyboard.press('Space');
  await page.getByText(/an attempt, about/).waitFor();
}
