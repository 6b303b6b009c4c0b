import { improvise } from '@/core/band';
import { LIBRARY, readChart, secondsAt, steady } from '@/core/chart';
import { DRILL_KINDS } from '@/core/drills';
import { seededRandom, unwrap } from '@/core/shared';
import { alive, expect, makeChart, test } from '../support/browser';
import { collisionsOn, openPage, takeOf } from '../support/engraving';

const TEMPO = 112;

/** A solo over a form of the library, as a take to be written on the page. */
function soloOver(text: string, seed: number) {
  const chart = unwrap(readChart(text));
  const notes = improvise({ chart, tempo: TEMPO, choruses: 1, plan: { id: 'scale-per-chord' }, seed });
  const pace = steady(TEMPO);
  const random = seededRandom(seed);
  return notes.map(({ onsetBeat, durationBeats, midi }) => ({
    attack: random() < 0.35 ? ('hammer' as const) : ('pick' as const),
    onsetSec: 1 + secondsAt(pace, onsetBeat),
    offsetSec: 1 + secondsAt(pace, onsetBeat + durationBeats),
    midi: Math.round(midi),
  }));
}

test('@engraving every form of the library, forty solos: nothing over anything, nothing outside the page', async ({
  page,
  request,
  baseURL,
}) => {
  test.setTimeout(1_200_000);
  const found: string[] = [];
  for (let seed = 0; seed < Math.max(40, LIBRARY.length); seed++) {
    const { id, text } = LIBRARY[seed % LIBRARY.length]!;
    await page.setViewportSize({ width: seed % 3 === 0 ? 390 : 1280, height: 800 });
    const take = await takeOf(request, baseURL!, {
      title: id,
      chartText: text,
      tempo: TEMPO,
      choruses: 1,
      notes: soloOver(text, seed + 1),
    });
    await openPage(page, take);
    const collisions = await collisionsOn(page);
    if (collisions.length > 0) console.log(`${id} ${seed + 1}: ${collisions.join('; ')}`);
    found.push(...collisions);
  }
  expect(found).toEqual([]);
});

test('@engraving the example of every drill', async ({ page, request, baseURL }) => {
  test.setTimeout(1_200_000);
  const chartId = await makeChart(request, baseURL!, LIBRARY.find(({ id }) => id === 'lamplight')!.text);
  await page.addInitScript(() => localStorage.setItem('idle-wander-line-as', 'both'));
  let shown = 0;
  for (const kind of DRILL_KINDS) {
    const made = await request.post('/api/drills', {
      data: { chartId, kind, tempo: 80 },
      headers: { origin: baseURL! },
    });
    if (!made.ok()) continue;
    const { id } = (await made.json()) as { id: string };
    await page.goto(`/drills/${id}`);
    await alive(page);
    const choice = page.getByRole('radio', { name: 'staff and tablature' });
    if ((await choice.count()) === 0) continue;
    await choice.first().click();
    await expect(page.getByTestId('page').locator('.vf-clef').first()).toBeVisible({ timeout: 15_000 });
    shown++;
    expect([kind, await collisionsOn(page)]).toEqual([kind, []]);
  }
  console.log(`examples engraved: ${shown} of ${DRILL_KINDS.length} kinds`);
  expect(shown).toBeGreaterThan(40);
});
