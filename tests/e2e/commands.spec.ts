import { alive, expect, makeChart, test } from '../support/browser';
import { makeTake } from '../support/takes';

test('anything is found by a few letters: a chart, a screen, what can be done here; Escape leaves it', async ({
  page,
  request,
  baseURL,
}) => {
  await makeChart(request, baseURL!, 'title: Palisade Blues\n| C7 | F7 |\n');
  const take = await makeTake(request, baseURL!);
  await page.goto(`/takes/${take}`);
  await alive(page);
  const find = page.getByRole('combobox', { name: 'Find' });
  await page.keyboard.press('Control+k');
  await find.fill('stand back');
  await expect(page.getByRole('option', { name: 'Stand back' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('stand-back')).toBeVisible();
  await page.keyboard.press('Control+k');
  await find.fill('palisade');
  await expect(page.getByRole('option', { name: 'Palisade Blues' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Palisade Blues' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await find.fill('progress');
  await page.keyboard.press('Escape');
  await expect(find).toBeHidden();
  await page.keyboard.press('Control+k');
  await find.fill('go to progress');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/progress/);
});

test('a key that is taken is given all the same, who had it is said, and one key takes it back', async ({
  page,
}) => {
  await page.goto('/settings');
  await alive(page);
  const zoom = page.getByRole('button', { name: /^Change the key of: Four bars wide/ });
  await zoom.click();
  await page.keyboard.press('x');
  await expect(zoom).toHaveText('X');
  await expect(
    page.getByText('X was the key of “Hear the one-note fix”', { exact: false }).first(),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: /^Change the key of: Hear the one-note fix/ })).toHaveText(
    'none',
  );
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('Four bars wide');
  await page.keyboard.press('Escape');
  await page.keyboard.press('z');
  await expect(zoom).toHaveText('Z');
  await page.getByRole('link', { name: 'their names and licences' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Third-party notices' })).toBeVisible();
  await expect(page.getByRole('cell', { name: 'cmdk' })).toBeVisible();
});

test('the words of a screen are explained on one key, with an example to hear', async ({
  page,
  request,
  baseURL,
}) => {
  const id = await makeChart(request, baseURL!, 'title: Explained\nkey: C\n| C7 | F7 |\n');
  await page.goto(`/study/${id}`);
  await alive(page);
  await page.keyboard.press('F1');
  const words = page.getByRole('dialog', { name: 'Words on this screen' });
  await expect(words).toContainText('The two notes that say which kind of chord it is.');
  await words.getByRole('button', { name: 'Hear Third and seventh' }).click();
  await expect(words.getByRole('button', { name: 'Hear Third and seventh' })).toHaveText('stop', {
    timeout: 15_000,
  });
  await page.keyboard.press('Escape');
  await expect(words).toBeHidden();
  await page.goto('/diary');
  await alive(page);
  await page.getByRole('searchbox', { name: 'Find in the diary' }).fill('no such tune');
  await expect(page.getByText('No day of the diary has these words.')).toBeVisible();
});

test('the guide is opened from the words of a screen, and a word finds its sections', async ({ page }) => {
  await page.goto('/takes');
  await alive(page);
  await page.keyboard.press('F1');
  await page
    .getByRole('dialog', { name: 'Words on this screen' })
    .getByRole('link', { name: 'guide' })
    .click();
  await expect(page.getByRole('heading', { level: 1, name: 'Guide' })).toBeVisible();
  await page.keyboard.press('/');
  const find = page.getByRole('searchbox', { name: 'Find in the guide' });
  await expect(find).toBeFocused();
  await find.fill('metronome latency');
  await expect(page.getByText('Nothing holds these words.')).toBeVisible();
  await find.fill('grace');
  const sections = page.getByRole('heading', { level: 2 });
  await expect(sections.first()).toBeVisible();
  expect(await sections.count()).toBeLessThan(5);
  await expect(page.getByRole('heading', { name: 'What is a note of yours?' })).toBeVisible();
});
