import { expect, makeChart, test } from '../support/browser';

test('a chart is typed with live errors, mended by one key, and kept without saving', async ({ page, request, baseURL }) => {
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

test('a pasted chart is read at once; a huge one is refused with a way out', async ({ page, request, baseURL }) => {
  const id = await makeChart(request, baseURL!, '| C |');
  await page.goto(`/charts/${id}`);
  const paste = (text: string) => page.getByRole('textbox', { name: 'Chart text' }).evaluate((element, pasted) => {
    element.focus();
    const data = new DataTransfer();
    data.setData('text/plain', pasted);
    document.getSelection()?.selectAllChildren(element);
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
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
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { level: 1, name: 'New chart' })).toBeVisible();
  await expect(page.getByRole('navigation', { name: 'Library' }).getByRole('link', { name: /New chart/ }).first()).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page).toHaveURL(/\/record\?chart=/);
});
