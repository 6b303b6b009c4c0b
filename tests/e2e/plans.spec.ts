import type { Page } from '@playwright/test';
import type { PlanWords } from '../../src/core/plan';
import { alive, choose, expect, makeChart, test } from '../support/browser';
import { makeTake } from '../support/takes';

// Ten ways of playing as teachers give them, each made by hand in Study. What they mean is tested in the core.
const BLUES = 'title: Harbour Rung\nkey: A\nfeel: blues\ntempo: 100\n\n| A7 | D7 | A7 | E7 |\n';
const MINOR = 'title: Harbour Low\nkey: Am\ntempo: 100\n\n| Am7 | Em7 | Dm7 | E7 |\n';
const MAJOR = 'title: Harbour High\nkey: C\ntempo: 100\n\n| Dm7 | G7alt | Cmaj7 | Am7 |\n';

type Step =
  readonly ['for' | 'school' | 'home' | 'land on' | 'mode' | 'chorus' | 'over', string] | readonly ['tonic'];
const panel = (page: Page) => page.getByRole('region', { name: 'Plan for the next take' });

const STEPS: Record<Step[0], (page: Page, value: string) => Promise<void>> = {
  for: (page, value) => choose(panel(page).getByRole('combobox', { name: 'For', exact: true }), value),
  school: (page, value) =>
    panel(page)
      .getByRole('list', { name: 'Schools' })
      .getByRole('button', { name: value, exact: true })
      .click(),
  home: async (page, value) => {
    await panel(page).getByRole('button', { name: 'Home scale', exact: true }).click();
    const field = page.getByLabel('Scale by name or degrees');
    await field.fill(value);
    await field.press('Enter');
    await page.keyboard.press('Escape');
  },
  'land on': (page, value) => choose(panel(page).getByRole('combobox', { name: 'Land on' }), value),
  mode: (page, value) => choose(panel(page).getByRole('combobox', { name: 'Mode' }), value),
  chorus: (page, value) => choose(panel(page).getByRole('combobox', { name: 'Chorus' }), value),
  over: async (page, key) => {
    await panel(page).getByRole('button', { name: 'lay changes over' }).click();
    await page.keyboard.press(key);
    await page.getByRole('button', { name: 'Use these chords' }).click();
  },
  tonic: (page) => panel(page).getByLabel('tonic = 6').check(),
};

const SCHEMES: [string, string, Step[], PlanWords][] = [
  [
    'one pentatonic, and what each chord adds',
    BLUES,
    [
      ['school', 'home + tell-tale'],
      ['home', 'A minor pentatonic'],
    ],
    { id: 'home-tell-tale', home: 'A minor pentatonic' },
  ],
  [
    'pentatonics on i and iv, natural minor elsewhere',
    MINOR,
    [
      ['school', 'parallel mode'],
      ['mode', 'natural minor'],
      ['for', 'every i'],
      ['school', 'home scale'],
      ['home', 'A minor pentatonic'],
    ],
    {
      id: 'parallel-mode',
      mode: 'natural minor',
      parts: [{ where: { degree: 'i' }, plan: { id: 'home-scale', home: 'A minor pentatonic' } }],
    },
  ],
  [
    'Dorian on each chord',
    MINOR,
    [
      ['school', 'parallel mode'],
      ['mode', 'dorian'],
    ],
    { id: 'parallel-mode', mode: 'dorian' },
  ],
  ['harmonic minor on the dominant', MINOR, [['school', 'minor dominant']], { id: 'minor-dominant' }],
  [
    'blend on I alone',
    BLUES,
    [
      ['school', 'outline'],
      ['for', 'every I'],
      ['school', 'major–minor blend'],
    ],
    { id: 'outline', parts: [{ where: { degree: 'I' }, plan: { id: 'major-minor-blend' } }] },
  ],
  [
    'each chorus by another school',
    BLUES,
    [
      ['school', 'outline'],
      ['for', 'one chorus'],
      ['chorus', '2'],
      ['school', 'home scale'],
      ['chorus', '3'],
      ['school', 'superimposed'],
      ['over', '1'],
      ['chorus', '4'],
      ['school', 'free'],
    ],
    {
      id: 'outline',
      overlay: '| Eb7 | D7 | A7 | E7 |',
      parts: [
        { where: { chorus: 2 }, plan: { id: 'home-scale' } },
        { where: { chorus: 3 }, plan: { id: 'superimposed' } },
        { where: { chorus: 4 }, plan: { id: 'free' } },
      ],
    },
  ],
  [
    'a pentatonic for the ii',
    MAJOR,
    [
      ['school', 'outline'],
      ['for', 'every ii'],
      ['school', 'home scale'],
      ['home', 'A minor pentatonic'],
    ],
    {
      id: 'outline',
      parts: [{ where: { degree: 'ii' }, plan: { id: 'home-scale', home: 'A minor pentatonic' } }],
    },
  ],
  [
    'sixth-diminished, tonic = 6',
    MAJOR,
    [['school', 'sixth-diminished'], ['tonic']],
    { id: 'sixth-diminished' },
  ],
  [
    'Lydian on the tonic throughout',
    MAJOR,
    [
      ['school', 'scale per chord'],
      ['home', 'C lydian'],
    ],
    { id: 'scale-per-chord', home: 'C lydian' },
  ],
  [
    'one scale, a target of its own on a chord',
    MAJOR,
    [
      ['school', 'home scale'],
      ['for', 'every vi'],
      ['school', 'home scale'],
      ['land on', 'the third'],
    ],
    { id: 'home-scale', parts: [{ where: { degree: 'vi' }, plan: { id: 'home-scale', aims: ['3'] } }] },
  ],
];

test('ten ways of playing are each made in Study, and stand in its address', async ({
  page,
  request,
  baseURL,
}) => {
  test.setTimeout(180_000);
  const charts = new Map<string, string>();
  for (const text of [BLUES, MINOR, MAJOR]) charts.set(text, await makeChart(request, baseURL!, text));
  for (const [name, text, steps, plan] of SCHEMES) {
    const degree = plan.parts?.[0]?.where.degree;
    const at = { vi: 3 }[degree ?? ''] ?? 0;
    await page.goto(`/study/${charts.get(text)}?at=${at}`);
    await alive(page);
    for (const [what, value = ''] of steps) await STEPS[what](page, value);
    await expect
      .poll(() => [name, JSON.parse(new URL(page.url()).searchParams.get('plan') ?? '{}') as PlanWords])
      .toEqual([name, plan]);
  }
});

test('the grid, a kept plan, and changes laid over by one key', async ({ page, request, baseURL }) => {
  const id = await makeChart(request, baseURL!, MAJOR);
  await page.goto(`/study/${id}?at=1`);
  await alive(page);
  await page.keyboard.press('4');
  const grid = page.getByRole('region', { name: 'Home scale against the chords' });
  await expect(grid.getByRole('button', { name: 'E over Am7: 5, chord tone' })).toBeVisible();
  await page.getByRole('button', { name: 'keep this plan' }).click();
  await expect(page.getByRole('button', { name: 'forget this plan' })).toBeVisible();
  await page.getByRole('button', { name: 'lay changes over' }).click();
  await page.keyboard.press('1');
  await expect(page.getByLabel('Overlay as chart text')).toHaveValue('| Dm7 | Db7 | Cmaj7 | Am7 |');
  await page.getByRole('button', { name: 'Use these chords' }).click();
  await expect(page).toHaveURL(/overlay/);
});

test('a take is judged by another home scale at once, and it stays', async ({ page, request, baseURL }) => {
  const take = await makeTake(request, baseURL!);
  await page.goto(`/takes/${take}`);
  await alive(page);
  const picker = page.getByRole('button', { name: 'Home scale', exact: true });
  await picker.click();
  await page.getByRole('button', { name: /^lydian/ }).click();
  await page.keyboard.press('Escape');
  await expect(picker).toContainText('lydian');
  await page.reload();
  await alive(page);
  await expect(picker).toContainText('lydian');
});
