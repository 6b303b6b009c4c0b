import { choose, alive, expect, makeChart, test } from '../support/browser';

const CHART =
  'title: Read first\nkey: Bb\ntempo: 160\nfeel: swing\n\n| Bb7 | Eb7 | Bb7 | G7 |\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |\n';

test('Study reads the form, follows the keys and keeps its place in the address', async ({
  page,
  request,
  baseURL,
}) => {
  const id = await makeChart(request, baseURL!, CHART);
  await page.goto(`/study/${id}`);
  await alive(page);
  await expect(page.getByRole('heading', { level: 1 })).toContainText(
    'Your home scale lacks four of the five thirds.',
  );
  const chosen = page.getByRole('region', { name: 'Selected chord' });
  await expect(chosen).toContainText('In a blues the tonic carries its own minor seventh');
  for (let presses = 0; presses < 4; presses++) await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('region', { name: 'What changes' })).toContainText('B♭ falls to A, one fret.');
  await expect(chosen).toContainText('the two are a ii–V');
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText('frets 6 to 10')).toBeVisible();
  await page.getByRole('button', { name: 'outline', exact: true }).click();
  await expect(chosen).toContainText('Plan plays');
  await expect(page).toHaveURL(/at=4.*position=6.*outline/);
  await page.reload();
  await alive(page);
  await expect(chosen).toContainText('bar 5');
  await expect(page.getByRole('button', { name: 'outline', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
});

test('a mixed plan goes with the player to the take', async ({ page, request, baseURL }) => {
  const id = await makeChart(request, baseURL!, CHART);
  await page.goto(`/study/${id}`);
  await alive(page);
  const panel = page.getByRole('region', { name: 'Plan for the next take' });
  await choose(panel.getByRole('combobox', { name: 'For', exact: true }), 'every I');
  await page.getByRole('button', { name: 'major–minor blend' }).click();
  await expect(page.getByRole('button', { name: 'Remove Major–minor blend on every I' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Record a take' }).click();
  await expect(page).toHaveURL(/\/record\?chart=/);
  await expect(page.getByText('Scale per chord; major–minor blend on every I.')).toBeVisible();
});

test('one place, shapes, and another guitar', async ({ page, request, baseURL }) => {
  const id = await makeChart(request, baseURL!, CHART);
  await page.goto(`/study/${id}`);
  await alive(page);
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('2');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('The whole form fits under one hand');
  await page.keyboard.press('3');
  await expect(page.getByText('frets 4 to 9', { exact: true })).toBeVisible();
  await page.getByRole('radio', { name: 'Triads' }).click();
  await expect(page.getByText('strings 1 2 3')).toBeVisible();
  await page.getByRole('button', { name: 'Your guitar' }).click();
  const strings = page.getByLabel('Open strings, low to high');
  await strings.fill('E4 B3 G3 D3 A2 E2');
  await expect(page.getByText('Strings are named from low to high')).toBeVisible();
  await page.getByRole('button', { name: 'Take E2 A2 D3 G3 B3 E4' }).click();
  await choose(page.getByRole('combobox', { name: 'Tuning' }), 'Seven strings');
  await page.getByLabel('left-handed').check();
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByText('strings 5 6 7')).toBeVisible();
  await page.reload();
  await alive(page);
  await page.getByRole('radio', { name: 'Triads' }).click();
  await expect(page.getByText('strings 5 6 7')).toBeVisible();
});

test('the player’s own reading stands, everything follows, and it is kept', async ({
  page,
  request,
  baseURL,
}) => {
  const id = await makeChart(request, baseURL!, 'title: Two ways\nkey: C\n\n| Cmaj7 | A7 | Dm7 | G7 |\n');
  await page.goto(`/study/${id}?at=1`);
  await alive(page);
  const chosen = page.getByRole('region', { name: 'Selected chord' });
  await expect(chosen).toContainText('A fifth mode of harmonic minor');
  await page.keyboard.press('o');
  await expect(chosen).toContainText('You read it so.');
  await chosen.getByRole('button', { name: 'read it my way' }).click();
  await choose(chosen.getByRole('combobox', { name: 'scale' }), 'altered');
  await expect(chosen).toContainText('A altered');
  await page.reload();
  await alive(page);
  await expect(chosen).toContainText('A altered');
  const { text } = (await (await request.get(`/api/charts/${id}`)).json()) as { text: string };
  expect(text).toContain('reading: 2 = , altered');
  await chosen.getByRole('button', { name: 'as it was found' }).click();
  await expect(chosen).toContainText('that chord’s own dominant');
});

test('everything Study shows can be heard on a key, and stops on the same one', async ({
  page,
  request,
  baseURL,
}) => {
  const id = await makeChart(
    request,
    baseURL!,
    'title: Heard\nkey: C\ntempo: 200\n| Dm7 | G7 | Cmaj7 | % |\n',
  );
  await page.goto(`/study/${id}`);
  await alive(page);
  const said = page.locator('footer').getByRole('status');
  for (const key of ['Space', 's', 't', 'b']) {
    await page.keyboard.press(key);
    await expect(said).toContainText('Sounding', { timeout: 20_000 });
    await page.keyboard.press(key);
    await expect(said).toHaveText('');
  }
});

test('a chart that cannot be read yet leads to its editor; sheets print on white', async ({
  page,
  request,
  baseURL,
}) => {
  const wrong = await makeChart(request, baseURL!, 'title: Torn\n| C | H7 |\n');
  await page.goto(`/study/${wrong}`);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Torn cannot be read yet.');
  await page.getByRole('link', { name: 'Fix the chart' }).click();
  await expect(page).toHaveURL(new RegExp(`/charts/${wrong}`));
  const id = await makeChart(request, baseURL!, CHART);
  await page.goto(`/study/${id}/sheet?position=5&part=place`);
  await expect(page.getByRole('heading', { name: /One place: position 5/ })).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
});
