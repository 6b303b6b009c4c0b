import { readFileSync } from 'node:fs';
import { choose, alive, expect, makeChart, test } from '../support/browser';

test('a chart is typed with live errors, mended by one key, and kept without saving', async ({
  page,
  request,
  baseURL,
}) => {
  const id = await makeChart(request, baseURL!, 'title: Typed\nkey: F\n\n| F7 | Bb7 | F7 | % |\n');
  await page.goto(`/charts/${id}`);
  await expect(page.getByRole('heading', { level: 1, name: 'Typed' })).toBeVisible();
  const editor = page.getByRole('textbox', { name: 'Chart text' });
  await editor.click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('| Gm7 | C7b | F7 | C7 |');
  const problem = page.getByTestId('chart-problem');
  await expect(problem).toContainText('Bar 6: The ♭ after C7 has no number.');
  await expect(problem).toContainText('Line 5, column 11.');
  await expect(page.getByRole('button', { name: 'Record over it' })).toBeDisabled();
  await page.keyboard.press('F8');
  await expect(page.getByRole('button', { name: 'Study this chart' })).toBeDisabled();
  await page.keyboard.press('Tab');
  await expect(problem).toBeHidden();
  await expect(page.getByText('8 bars read')).toBeVisible();
  await expect(page.locator('footer').getByRole('status')).toHaveText('Saved');
  await page.reload();
  await expect(editor).toContainText('C7b9');
  await editor.click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type(' oops');
  await expect(problem).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(problem).toBeHidden();
});

test('a pasted chart is read at once; a huge one is refused with a way out', async ({
  page,
  request,
  baseURL,
}) => {
  const id = await makeChart(request, baseURL!, '| C |');
  await page.goto(`/charts/${id}`);
  const paste = (text: string) =>
    page.getByRole('textbox', { name: 'Chart text' }).evaluate((element, pasted) => {
      element.focus();
      const data = new DataTransfer();
      data.setData('text/plain', pasted);
      document.getSelection()?.selectAllChildren(element);
      element.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      );
    }, text);
  await paste('title: Pasted\nkey: Am\n\n| Am7 | D7 |: Gmaj7 | % :| E7 | Am7 |');
  await expect(page.getByRole('heading', { level: 1, name: 'Pasted' })).toBeVisible();
  await expect(page.getByText('8 bars read')).toBeVisible();
  await page.getByRole('textbox', { name: 'Chart text' }).press('Control+a');
  await paste('| C '.repeat(2000) + '|');
  await expect(page.getByTestId('chart-problem')).toContainText('bars; 512 are the most');
});

test('a new chart begins with one key and opens in the library', async ({ page }) => {
  await page.goto('/charts');
  await alive(page);
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { level: 1, name: 'New chart' })).toBeVisible();
  await expect(
    page
      .getByRole('navigation', { name: 'Library' })
      .getByRole('link', { name: /New chart/ })
      .first(),
  ).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page).toHaveURL(/\/study\//);
});

test('a form of the library is seen, heard and started from by keys', async ({ page }) => {
  await page.goto('/charts');
  await alive(page);
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).toHaveText('Lamplight Quarry');
  await page.keyboard.press('ArrowDown');
  await expect(heading).toHaveText('Low Lantern');
  await page.keyboard.press('h');
  await expect(page.locator('footer').getByRole('button', { name: /stop/ })).toBeVisible({ timeout: 20_000 });
  await page.keyboard.press('h');
  await expect(page.locator('footer').getByRole('button', { name: /hear it/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/charts\/[\w-]+$/);
  await expect(page.getByRole('textbox', { name: 'Chart text' })).toContainText('title: Low Lantern');
});

test('a chart is transposed and turned back by undo, taken out as MusicXML and brought in again', async ({
  page,
  request,
  baseURL,
}) => {
  const id = await makeChart(
    request,
    baseURL!,
    'title: Carried\nkey: Bb\ntempo: 90\n\n| Bb7 | Eb7 . . N.C. |: Cm7 | F7 :|\n',
  );
  await page.goto(`/charts/${id}`);
  const editor = page.getByRole('textbox', { name: 'Chart text' });
  await choose(page.getByLabel('Transpose to'), 'E');
  await expect(editor).toContainText('| E7 | A7 . . N.C. |: F#m7 | B7 :|');
  await editor.click();
  await page.keyboard.press('Control+z');
  await expect(editor).toContainText('| Bb7 | Eb7 . . N.C.');
  await page.getByRole('button', { name: 'export', exact: true }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'MusicXML' }).click();
  const file = await (await download).path();
  expect((await download).suggestedFilename()).toBe('Carried.musicxml');
  await page.goto('/charts');
  await alive(page);
  await page
    .getByLabel('Chart file')
    .setInputFiles({ name: 'Carried.musicxml', mimeType: 'application/xml', buffer: readFileSync(file) });
  await expect(page).toHaveURL(/\/charts\/[\w-]+$/);
  await expect(page.getByRole('heading', { level: 1, name: 'Carried' })).toBeVisible();
  await expect(page.getByText('6 bars read')).toBeVisible();
});

test('hostile and foreign files are refused with a sentence; nothing is made', async ({ page }) => {
  await page.goto('/charts');
  await alive(page);
  const bring = (name: string, text: string) =>
    page.getByLabel('Chart file').setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
  await bring('bomb.xml', '<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "b">]><score-partwise/>');
  await expect(page.getByRole('alert').first()).toContainText('defines its own entities');
  await bring('letter.txt', 'Dear all, no bars here.');
  await expect(page.getByRole('alert').first()).toContainText('holds no bars');
  await bring('scan.mxl', 'PK\u0003\u0004');
  await expect(page.getByRole('alert').first()).toContainText('compressed score');
  await expect(page).toHaveURL(/\/charts$/);
});

test('versions: what stood before comes back, and the change can be undone', async ({
  page,
  request,
  baseURL,
}) => {
  const id = await makeChart(request, baseURL!, 'title: First words\n| C |\n');
  const put = (text: string) =>
    request.put(`/api/charts/${id}`, { headers: { origin: baseURL! }, data: { text } });
  await put('title: Second words\n| F |\n');
  expect(await (await request.get(`/api/charts/${id}/versions`)).json()).toEqual([]); // it stood for less than a minute
  await page.goto(`/charts/${id}`);
  await page.getByRole('button', { name: 'versions' }).click();
  await expect(page.getByRole('dialog')).toContainText('None yet');
  await page.getByRole('button', { name: 'Done' }).click();
});

test('a chart is removed, brought back at once, and later out of the trash', async ({
  page,
  request,
  baseURL,
}) => {
  const id = await makeChart(request, baseURL!, 'title: Thrown away\n| C | F |\n');
  await page.goto(`/charts/${id}`);
  await alive(page);
  const remove = page.getByRole('button', { name: 'remove', exact: true });
  await remove.click();
  await expect(page).toHaveURL(/\/charts$/);
  await expect(page.getByRole('link', { name: /Thrown away/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(page).toHaveURL(new RegExp(`/charts/${id}$`));
  await remove.click();
  await expect(page).toHaveURL(/\/charts$/);
  await page.goto('/settings');
  await alive(page);
  await page.getByRole('button', { name: 'Bring back the chart Thrown away' }).click();
  await expect(page.getByText('Thrown away is back.')).toBeVisible();
  await page.goto(`/charts/${id}`);
  await expect(page.getByRole('heading', { level: 1, name: 'Thrown away' })).toBeVisible();
});
