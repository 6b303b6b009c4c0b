import type { Edit, SecondsNote } from '@/core/correct';
import { alive, expect, rigOf, test } from '../support/browser';
import { makeTake } from '../support/takes';

const STAND_IN = { kind: 'stand-in', character: 'steady', delayMs: 0 };
type Replay = Extract<Edit, { kind: 'again' }>;
type Stored = { readonly edits: readonly Edit[]; readonly heard: readonly SecondsNote[] };

test('a bar is played again with the band: only its notes are replaced, by one key, and one undo brings them back', async ({
  page,
  request,
  baseURL,
}) => {
  test.setTimeout(120_000);
  await page.addInitScript(rigOf({ device: STAND_IN }));
  const id = await makeTake(request, baseURL!);
  const stored = async () => (await (await request.get(`/api/takes/${id}`)).json()) as Stored;
  const { heard } = await stored();
  const takes = async () => ((await (await request.get('/api/takes')).json()) as unknown[]).length;
  const takesBefore = await takes();
  await page.goto(`/takes/${id}?view=correct&at=note-9`);
  await alive(page);
  const status = page.getByText(/edits? in this take/);
  await expect(status).toContainText('0 edits in this take, saved');
  await page.keyboard.press('p');
  await expect(page.getByText(/^Bar \d+, chorus \d+, again$/)).toBeVisible();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/Counting in|The bar before|Now/, {
    timeout: 30_000,
  });
  // the stand-in plays what stands in the take
  const bar = page.getByRole('img', { name: /^in the take: .*; just played: (?!not yet)/ });
  await expect(bar).toBeVisible({ timeout: 30_000 });
  const [, before, now] = /^in the take: (.*); just played: (.*)$/.exec(
    (await bar.getAttribute('aria-label'))!,
  )!;
  expect(now).toBe(before);
  // kept by the pedal
  await page.keyboard.press('Space');
  await expect(status).toContainText('1 edit in this take, saved');
  await expect(status).toContainText('a bar played again from');
  const replay = (await stored()).edits[0] as Replay;
  const inBar = heard.filter(({ onsetSec }) => onsetSec >= replay.fromSec && onsetSec < replay.toSec);
  expect(replay.notes.map(({ midi }) => midi)).toEqual(inBar.map(({ midi }) => midi));
  for (const [index, { onsetSec }] of replay.notes.entries())
    expect(Math.abs(onsetSec - inBar[index]!.onsetSec)).toBeLessThan(0.06);
  // nothing of it was kept as a take
  expect(await takes()).toBe(takesBefore);
  await page.keyboard.press('Control+z');
  await expect(status).toContainText('0 edits in this take, saved');
  expect((await stored()).heard).toEqual(heard);
  // left without keeping: nothing has changed
  await page.keyboard.press('p');
  await expect(page.getByText(/^Bar \d+, chorus \d+, again$/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(status).toContainText('0 edits in this take, saved');
});
