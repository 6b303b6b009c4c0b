import { writeLineMidi } from '@/core/formats';
import { readChart, timelineOf } from '@/core/chart';
import { unwrap } from '@/core/shared';
import { denseLine, orchard } from '../../scripts/benchLines';
import { expect, makeChart, test } from '../support/browser';

// A long take under review: ten choruses of 32 bars, four thousand notes and more. Times in the page itself, in milliseconds.
const chartText = orchard.text;

test('@review a take of ten choruses of 32 bars: opening, stepping, correcting, scrolling', async ({
  page,
  request,
  baseURL,
}) => {
  test.setTimeout(180_000);
  const chart = await makeChart(request, baseURL!, chartText);
  const read = unwrap(readChart(chartText));
  const notes = denseLine(orchard, 10).map((note) => ({ ...note, midi: Math.round(note.midi) }));
  const midi = writeLineMidi({
    chart: read,
    timeline: timelineOf(read, 120),
    tempo: 120,
    title: 'Long',
    notes,
    choruses: 10,
    swing: null,
  });
  const made = await request.post(`/api/takes/import?chart=${chart}&tempo=120&name=Long`, {
    headers: { origin: baseURL!, 'content-type': 'application/octet-stream' },
    data: Buffer.from(midi),
  });
  expect(made.status()).toBe(200);
  const { id } = (await made.json()) as { id: string };
  await request.get(`/api/takes/${id}`);
  await page.addInitScript(() => {
    const kept = window as unknown as { longTasks: number[] };
    kept.longTasks = [];
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) kept.longTasks.push(Math.round(entry.duration));
    }).observe({ entryTypes: ['longtask'] });
  });
  const opened: number[] = [];
  for (let round = 0; round < 5; round++) {
    await page.goto('/takes', { waitUntil: 'networkidle' });
    const shown = page.evaluate(
      (take) =>
        new Promise<number>((done) => {
          const link = document.querySelector<HTMLAnchorElement>(`a[href="/takes/${take}"]`)!;
          // from the click itself, by a hand that points, presses and lets go
          link.addEventListener(
            'click',
            () => {
              const started = performance.now();
              const look = () => {
                const rows = document.querySelectorAll('[data-testid="form"] svg');
                if (
                  rows.length >= 2 &&
                  document.querySelector('section[aria-label="Landings by change"] svg')
                )
                  requestAnimationFrame(() =>
                    setTimeout(() => done(Math.round(performance.now() - started))),
                  );
                else requestAnimationFrame(look);
              };
              requestAnimationFrame(look);
            },
            { once: true },
          );
        }),
      id,
    );
    await page.locator(`a[href="/takes/${id}"]`).click({ delay: 80 });
    opened.push(await shown);
  }
  console.log(`click to complete picture, ${notes.length} notes: ${opened.join(', ')} ms`);
  const timed = (what: string, key: string, times: number, probe: 'card' | 'edits') =>
    page
      .evaluate(
        async ({ pressed, count, watched }) => {
          const said = () =>
            watched === 'card'
              ? `${document.querySelector('section[aria-label="Selected"]')?.textContent} ${location.search}`
              : /(\d+) edits? in this take/.exec(document.body.textContent)?.[1];
          const taken: number[] = [];
          for (let time = 0; time < count; time++) {
            const before = said();
            const started = performance.now();
            window.dispatchEvent(
              new KeyboardEvent('keydown', { key: pressed, bubbles: true, cancelable: true }),
            );
            await new Promise<void>((done) => {
              const look = () => {
                if (said() !== before || performance.now() - started > 3000) done();
                else requestAnimationFrame(look);
              };
              look();
            });
            taken.push(Math.round(performance.now() - started));
            await new Promise((next) => setTimeout(next, 120));
          }
          return taken;
        },
        { pressed: key, count: times, watched: probe },
      )
      .then((taken) => console.log(`${what}: ${taken.join(', ')} ms`));
  await page.waitForTimeout(1000);
  await timed('key to moved selection and its card', 'ArrowRight', 12, 'card');
  await page.evaluate(() => ((window as unknown as { longTasks: number[] }).longTasks = []));
  for (let at = 0; at <= 4000; at += 200) {
    await page.mouse.wheel(0, 200);
    await page.waitForTimeout(40);
  }
  console.log(
    `long tasks while scrolling the whole form: ${JSON.stringify(await page.evaluate(() => (window as unknown as { longTasks: number[] }).longTasks))}`,
  );
  await page.evaluate(() => {
    window.scrollTo(0, 0);
    (window as unknown as { longTasks: number[] }).longTasks = [];
  });
  await page.keyboard.press('Space');
  await page.waitForTimeout(15_000);
  console.log(
    `long tasks while playing: ${JSON.stringify(await page.evaluate(() => (window as unknown as { longTasks: number[] }).longTasks))}`,
  );
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Correct', exact: true }).click();
  await page.waitForTimeout(2_000);
  await timed('correction to the line judged anew', 'ArrowUp', 8, 'edits');
});
