import { rmSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { alive } from '../support/browser';
import { OwnServer } from '../support/ownServer';

// A server of its own: what is restored and deleted here is nobody else's.
const FILE = '.tmp/e2e-backup.db';
const server = new OwnServer(3221, FILE);
test.beforeAll(async () => {
  rmSync(`${FILE.replace('.db', '')}-backups`, { recursive: true, force: true });
  await server.start();
});
test.afterAll(() => server.kill());

const add = (page: Page, title: string) =>
  page.evaluate(async (name) => {
    const text = `title: ${name}\nkey: C\ntempo: 120\n\n| Dm7 | G7 | Cmaj7 | % |\n`;
    const { ok } = await fetch('/api/charts', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ text }),
    });
    if (!ok) throw new Error('the chart was not stored');
  }, title);
const settings = async (page: Page) => {
  await page.goto(`${server.url}/settings`);
  await alive(page);
};

test('a backup is saved, kept elsewhere, brought back and restored from Settings; everything is deleted by its words', async ({
  page,
}) => {
  await settings(page);
  await add(page, 'Kept');
  const backup = page.getByRole('region', { name: 'Backup' });
  await backup.getByRole('button', { name: 'Save a backup now' }).click();
  await expect(backup.getByRole('status')).toHaveText('Saved and proven.');
  await expect(backup.getByRole('listitem')).toContainText('0 takes, 1 chart, 0 drills');

  const download = page.waitForEvent('download');
  await backup.getByRole('link', { name: /^Download/ }).click();
  const file = await (await download).path();
  await backup.getByRole('button', { name: /^Remove/ }).click();
  await expect(backup.getByRole('listitem')).toHaveCount(0);
  await backup.getByLabel('Backup file').setInputFiles('package.json');
  await expect(backup.getByRole('status')).toContainText('not a backup');
  await backup.getByLabel('Backup file').setInputFiles(file);
  await expect(backup.getByRole('listitem')).toContainText('brought in');

  await add(page, 'Later');
  await backup.getByRole('button', { name: /^Restore/ }).click();
  await backup.getByRole('button', { name: 'Restore it' }).click();
  await page.waitForURL(`${server.url}/`, { timeout: 30_000 });
  await page.goto(`${server.url}/charts`);
  await expect(page.getByText('Kept').first()).toBeVisible();
  await expect(page.getByText('Later')).toHaveCount(0);

  await settings(page);
  const everything = page.getByRole('region', { name: 'Delete everything' });
  const button = everything.getByRole('button', { name: 'Delete everything' });
  await everything.getByRole('textbox').fill('delete');
  await expect(button).toBeDisabled();
  await everything.getByRole('textbox').fill('delete everything');
  await everything.getByLabel('The backups too').check();
  await button.click();
  await page.waitForURL(`${server.url}/`, { timeout: 30_000 });
  await settings(page);
  await expect(page.getByRole('region', { name: 'Backup' }).getByRole('listitem')).toHaveCount(0);
  await page.goto(`${server.url}/charts`);
  await expect(page.getByText('Kept')).toHaveCount(0);
});
