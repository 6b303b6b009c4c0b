import { alive, choose, expect, makeChart, test } from '../support/browser';
import { makeTake } from '../support/takes';

const form = (title: string) => `title: ${title}\nkey: C\ntempo: 110\n\n| Dm7 | G7 | Cmaj7 | A7 |\n`;

test('a phrase is kept out of a review, carried over a form, varied, ended, moved as a cell and found again', async ({
  page,
  request,
  baseURL,
}, { retry }) => {
  const title = `Quay Steps ${retry}`;
  await makeChart(request, baseURL!, form(title));
  const take = await makeTake(request, baseURL!);
  const { report } = (await (await request.get(`/api/takes/${take}`)).json()) as {
    report: { phrases: { noteIndices: number[] }[] };
  };
  const at = report.phrases.findIndex(({ noteIndices }) => noteIndices.length >= 4);
  await page.goto(`/takes/${take}?at=phrase-${at + 1}`);
  await alive(page);
  await expect(page.getByRole('region', { name: 'Selected' })).toBeVisible();
  await page.keyboard.press('k');
  await page.getByRole('button', { name: /Open it/ }).click();
  await expect(page.getByRole('region', { name: 'The phrase' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Where you played it' })).toContainText('Played ');
  await choose(page.getByRole('combobox', { name: 'Over' }), title);
  // a list that has the focus takes letters for itself
  await page.getByRole('heading', { level: 1 }).click();
  const over = page.getByRole('region', { name: `Over ${title}` });
  await expect(over).toContainText('The same degrees of every chord');
  await page.keyboard.press('t');
  await expect(over).toContainText('The same way through each chord’s own scale');
  await page.keyboard.press('f');
  await expect(over.getByRole('button', { name: 'stop' })).toBeVisible({ timeout: 20_000 });
  await page.keyboard.press('f');
  await page.keyboard.press('v');
  await expect(page.getByText('backwards', { exact: true })).toBeVisible();
  await page.keyboard.press('v');
  await expect(page.getByRole('table')).toContainText('comes home');
  await page.keyboard.press('v');
  await expect(page.getByRole('region', { name: 'A moving cell' })).toBeVisible();
  await page.keyboard.press('Shift+V');
  await page.keyboard.press('Shift+V');
  await page.getByRole('button', { name: 'Keep it: backwards' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('backwards');
  await page.getByRole('link', { name: 'all phrases' }).click();
  await expect(page.getByRole('list').getByRole('link')).not.toHaveCount(0);
});

test('a phrase is typed, refused with its column where it cannot be read, removed and brought back', async ({
  page,
}) => {
  await page.goto('/phrases');
  await alive(page);
  await page.getByLabel('Name', { exact: true }).fill('Typed in');
  await page.getByLabel('Chords', { exact: true }).fill('Cm7');
  await page.getByLabel('Notes', { exact: true }).fill('C4:1/2 Eb X');
  await expect(page.getByRole('status').filter({ hasText: 'Column 11' })).toContainText('is no note');
  await page.getByLabel('Notes', { exact: true }).fill('C4:1/2 Eb G b7');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Typed in' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Tags' }).fill('minor, start');
  await page.getByRole('textbox', { name: 'Tags' }).press('Enter');
  await expect(page.getByText('Saved.')).toBeVisible();
  // pressed as a drill over a form: the drill asks for its degrees on every chord
  await page.getByRole('button', { name: /drill it/ }).click();
  await expect(page).toHaveURL(/\/drills\//);
  await page.goto('/phrases');
  await alive(page);
  await expect(page.getByText('minor, start')).toBeVisible();
  await page.getByRole('button', { name: 'Remove Typed in' }).click();
  await expect(page.getByRole('link', { name: /Typed in/ })).toBeHidden();
  await page.keyboard.press('z');
  await expect(page.getByRole('link', { name: /Typed in/ })).toBeVisible();
});
