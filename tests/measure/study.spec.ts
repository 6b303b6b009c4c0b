import { expect, makeChart, test } from '../support/browser';
import { LIBRARY } from '@/core/chart';

/** How long Study takes from the click to the whole picture, and to answer a change of plan or chord. Printed, not judged. */
test('Study: from click to picture, and from key to picture', async ({ page, request, baseURL }) => {
  const form = LIBRARY.find(({ id }) => id === 'orchard')!;
  const id = await makeChart(request, baseURL!, form.text);
  const open = async () => {
    await page.goto(`/charts/${id}`, { waitUntil: 'networkidle' });
    return page.evaluate(async () => {
      const start = performance.now();
      [...document.querySelectorAll('button')]
        .find((button) => button.textContent === 'Study this chart')!
        .click();
      while (!document.querySelector('[aria-label="What changes"] + svg, [aria-label="What changes"] ~ svg'))
        await new Promise(requestAnimationFrame);
      await new Promise(requestAnimationFrame);
      return performance.now() - start;
    });
  };
  const [first, opened] = [await open(), await open()];
  const answers = async (act: string) =>
    page.evaluate(async (what) => {
      const times: number[] = [];
      const buttons = [...document.querySelectorAll<HTMLButtonElement>('[aria-label="Schools"] button')];
      for (let round = 0; round < 20; round++) {
        const start = performance.now();
        if (what === 'plan') buttons[round % buttons.length]!.click();
        else window.dispatchEvent(new KeyboardEvent('keydown', { key: what, code: what, bubbles: true }));
        await new Promise(requestAnimationFrame);
        await new Promise((done) => setTimeout(done));
        times.push(performance.now() - start);
      }
      return times.sort((a, b) => a - b)[9]!;
    }, act);
  const [plan, chord, position] = [
    await answers('plan'),
    await answers('ArrowRight'),
    await answers('ArrowUp'),
  ];
  console.log(
    `Study of ${form.text.split('\n')[0]}: first opening ${first.toFixed(0)} ms, second ${opened.toFixed(0)} ms; median of 20: plan ${plan.toFixed(0)} ms, chord ${chord.toFixed(0)} ms, position ${position.toFixed(0)} ms`,
  );
  expect(opened).toBeGreaterThan(0);
});
