import type { Page } from '@playwright/test';
import { LIBRARY, readChart, timelineOf } from '@/core/chart';
import { writeLineMidi } from '@/core/formats';
import { unwrap } from '@/core/shared';
import { denseLine, orchard } from '../../scripts/benchLines';
import { expect, makeChart, test } from '../support/browser';

// From the press of Enter in the picker to the frame that shows the whole picture by the new home scale, in milliseconds.
const SCALES = ['C dorian', 'F minor pentatonic', 'Eb major', 'G phrygian', 'Bb blues', 'Ab lydian'];

async function changes(page: Page): Promise<number[]> {
  const times: number[] = [];
  await page.getByRole('button', { name: 'Home scale', exact: true }).first().click();
  for (const scale of [...SCALES, ...SCALES]) {
    const field = page.getByLabel('Scale by name or degrees');
    await field.fill(scale);
    times.push(
      await field.evaluate(
        (input) =>
          new Promise<number>((done) => {
            const started = performance.now();
            const key = { key: 'Enter', code: 'Enter', bubbles: true, cancelable: true };
            input.dispatchEvent(new KeyboardEvent('keydown', key));
            requestAnimationFrame(() => setTimeout(() => done(performance.now() - started)));
          }),
      ),
    );
    await page.waitForTimeout(400);
  }
  return times.sort((a, b) => a - b);
}

const said = (times: readonly number[]): string =>
  `median ${times[times.length >> 1]!.toFixed(0)} ms, longest ${times[times.length - 1]!.toFixed(0)} ms`;

test('@home a change of home scale: Study, and a review of ten choruses of 32 bars', async ({
  page,
  request,
  baseURL,
}) => {
  test.setTimeout(180_000);
  const study = await makeChart(request, baseURL!, LIBRARY.find(({ id }) => id === 'orchard')!.text);
  await page.goto(`/study/${study}`, { waitUntil: 'networkidle' });
  console.log(`Study: ${said(await changes(page))}`);
  const chart = await makeChart(request, baseURL!, orchard.text);
  const read = unwrap(readChart(orchard.text));
  const midi = writeLineMidi({
    chart: read,
    timeline: timelineOf(read, 120),
    tempo: 120,
    title: 'Long',
    notes: denseLine(orchard, 10).map((note) => ({ ...note, midi: Math.round(note.midi) })),
    choruses: 10,
    swing: null,
  });
  const made = await request.post(`/api/takes/import?chart=${chart}&tempo=120&name=Long`, {
    headers: { origin: baseURL!, 'content-type': 'application/octet-stream' },
    data: Buffer.from(midi),
  });
  const { id } = (await made.json()) as { id: string };
  await request.get(`/api/takes/${id}`);
  await page.goto(`/takes/${id}`, { waitUntil: 'networkidle' });
  const review = await changes(page);
  console.log(`Review of ten choruses: ${said(review)}`);
  expect(review.length).toBe(2 * SCALES.length);
});
