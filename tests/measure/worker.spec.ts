import { buildSync } from 'esbuild';
import { improvise, perform } from '@/core/band';
import { readChart } from '@/core/chart';
import { unwrap } from '@/core/shared';
import { expect, test } from '../support/browser';

const RATE = 44_100;
const CHART =
  'title: Long Walk\nkey: Bb\ntempo: 96\nfeel: swing\n\n| Bb7 | Eb7 | Bb7 | % |\n| Eb7 | % | Bb7 | G7 |\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |\n';

/** The ears as a worker of their own: samples in, seconds spent out. */
const WORKER = `
import { transcribe } from './src/core/transcribe';
self.onmessage = ({ data: { samples, rate } }) => {
  transcribe(samples.subarray(0, rate), rate);
  const started = performance.now();
  const { notes } = transcribe(samples, rate);
  self.postMessage({ seconds: (performance.now() - started) / 1000, notes: notes.length });
};`;

test('the speed of the ears in a worker of the browser', async ({ page }) => {
  const notes = improvise({
    chart: unwrap(readChart(CHART)),
    tempo: 96,
    choruses: 2,
    plan: { id: 'scale-per-chord' },
    seed: 21,
  });
  const samples = perform({ notes, tempo: 96, rate: RATE, seed: 21, leadSeconds: 0.5 });
  const [bundle] = buildSync({
    stdin: { contents: WORKER, resolveDir: process.cwd(), loader: 'ts' },
    bundle: true,
    write: false,
    format: 'iife',
    alias: { '@': './src' },
  }).outputFiles;
  const result = await page.evaluate(
    async ({ code, values, rate }) => {
      const worker = new Worker(URL.createObjectURL(new Blob([code], { type: 'text/javascript' })));
      const answer = new Promise<{ seconds: number; notes: number }>((resolve) => {
        worker.onmessage = ({ data }) => resolve(data);
      });
      worker.postMessage({ samples: new Float32Array(values), rate });
      return answer;
    },
    { code: bundle!.text, values: [...samples], rate: RATE },
  );
  console.log(
    `${(samples.length / RATE).toFixed(0)} s heard in ${result.seconds.toFixed(2)} s: ${(samples.length / RATE / result.seconds).toFixed(1)} × real time, ${result.notes} notes of ${notes.length}`,
  );
  expect(result.notes).toBeGreaterThan(notes.length * 0.9);
});
