import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { certificateFor } from '@/server/lan/certificate';
import { lanFront } from '@/server/lan/front';
import { alive, expect, rigOf, test } from '../support/browser';
import { OwnServer } from '../support/ownServer';

// Another device of the house: a phone that comes in by TLS and the passphrase.
const APP = 3233;
const FRONT = 3234;
const PASSPHRASE = 'lamp-post-kiln-4';
const server = new OwnServer(APP, '.tmp/e2e-lan.db', { IDLE_WANDER_LAN: 'yes' });
let front: ReturnType<typeof lanFront> | null = null;
test.beforeAll(async () => {
  await server.start();
  const names = ['127.0.0.1'];
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'wander-lan-')), 'certificate.json');
  front = lanFront({
    certificate: await certificateFor(names, file),
    passphrase: PASSPHRASE,
    port: APP,
    names,
  });
  await new Promise<void>((done) => front?.listen(FRONT, '127.0.0.1', done));
});
test.afterAll(() => {
  front?.closeAllConnections();
  front?.close();
  server.kill();
});

/** Notes when each bar came onto a page, by the clock both pages share. */
async function noteBars(page: Page): Promise<void> {
  await page.evaluate(() => {
    const seen: Record<string, number> = {};
    Object.assign(window, { barsSeen: seen });
    setInterval(() => {
      const bar = document.querySelector('[data-testid="bar"]')?.textContent;
      if (bar) seen[bar] ??= performance.timeOrigin + performance.now();
    }, 4);
  });
}
const barsOf = (page: Page) =>
  page.evaluate(() => (window as unknown as { barsSeen: Record<string, number> }).barsSeen);

test('a phone comes in by the passphrase, follows the take that runs on the computer, and is its pedal', async ({
  browser,
  page: computer,
  request,
}) => {
  test.setTimeout(90_000);
  const text = 'title: Long enough\ntempo: 160\n| Dm7 | G7 | Cmaj7 | A7 | Dm7 | G7 | C6 | % |\n';
  const made = await request.post(`${server.url}/api/charts`, {
    data: { text },
    headers: { origin: server.url },
  });
  expect(made.status()).toBe(201);
  const phone = await (
    await browser.newContext({ ignoreHTTPSErrors: true, viewport: { width: 390, height: 844 } })
  ).newPage();
  await phone.goto(`https://127.0.0.1:${FRONT}/stage`);
  await phone.getByLabel('Passphrase').fill('not this one at all');
  await phone.keyboard.press('Enter');
  await expect(phone.getByRole('alert')).toContainText('That is not the passphrase');
  await phone.getByLabel('Passphrase').fill(PASSPHRASE);
  await phone.keyboard.press('Enter');
  await expect(phone).toHaveURL(`https://127.0.0.1:${FRONT}/`);
  await phone.goto(`https://127.0.0.1:${FRONT}/stage`);
  await expect(phone.getByRole('heading', { name: 'No take is running.' })).toBeVisible();

  await computer.addInitScript(rigOf({ device: { kind: 'stand-in', character: 'steady', delayMs: 0 } }));
  await computer.goto(`${server.url}/record`);
  await alive(computer);
  const pedal = phone.getByRole('button', { name: 'Count me in' });
  await expect(pedal).toBeEnabled();
  await expect(phone.getByRole('heading', { name: 'Ready.' })).toBeVisible();
  for (const page of [phone, computer]) await noteBars(page);
  await pedal.click();
  await expect(phone.getByTestId('bar')).toContainText('bar 4 of 8', { timeout: 30_000 });
  const [here, there] = [await barsOf(computer), await barsOf(phone)];
  const late = Object.keys(here).flatMap((bar) => (there[bar] ? [there[bar] - here[bar]!] : []));
  console.log(
    `the phone shows a bar ${late.map((ms) => `${ms.toFixed(0)} ms`).join(', ')} after the computer`,
  );
  expect(late.length).toBeGreaterThan(2);
  await phone.getByRole('button', { name: 'Stop and save the take' }).click();
  await expect(phone.getByTestId('bar')).toHaveCount(0, { timeout: 20_000 });
  await expect(computer.getByTestId('bar')).toHaveCount(0);
  await computer.close();
  await expect(phone.getByRole('heading', { name: 'No take is running.' })).toBeVisible({ timeout: 15_000 });
});
