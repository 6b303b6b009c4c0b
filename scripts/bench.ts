import { PitchDetector } from 'pitchy';
import { analyse } from '../src/core/analyse';
import { improvise, perform } from '../src/core/band';
import { readChart } from '../src/core/chart';
import { NormalisedDifference } from '../src/core/sound';
import { Transcriber, transcribe } from '../src/core/transcribe';
import { certain } from '../src/core/vocabulary';
import { DEMO_CHARTS } from './demo/charts';
import { earsTable, neuralTable } from './ears/table';

const RATE = 44_100;
const chart = certain(readChart(DEMO_CHARTS.lamplight));
const tempo = 96;
const notes = improvise({ chart, tempo, choruses: 6, plan: { id: 'scale-per-chord' }, seed: 5 });
const take = perform({ notes, tempo, rate: RATE, seed: 5 });
const seconds = take.length / RATE;

/** Best of three runs, in seconds. */
function time(work: () => void): number {
  return Math.min(...[1, 2, 3].map(() => {
    const started = performance.now();
    work();
    return (performance.now() - started) / 1000;
  }));
}

const row = (name: string, ...cells: (string | number)[]) => console.log([name.padEnd(52), ...cells.map((cell) => String(cell).padStart(14))].join(''));
const ratio = (value: number) => `${value.toFixed(1)} ×`;

console.log(`\nA take of ${seconds.toFixed(0)} s at ${RATE} Hz, ${notes.length} notes; one thread, Node ${process.version}\n`);
row('transcription', 'real time', 'to the peer');
const own = time(() => void transcribe(take, RATE));
// pitchy (MIT): a McLeod pitch tracker. It gives a pitch a frame and no notes; asked at the same hop of 5.8 ms on a 2048 window.
const detector = PitchDetector.forFloat32Array(2048);
const peer = time(() => { for (let at = 0; at + 2048 <= take.length; at += 256) detector.findPitch(take.subarray(at, at + 2048), RATE); });
row('Idle Wander: notes', ratio(seconds / own), ratio(peer / own));
row('pitchy: pitch track only', ratio(seconds / peer), ratio(1));

console.log('');
row('after the last block of a 3-minute take', 'ms');
const long = new Transcriber(RATE);
const threeMinutes = 180 * RATE;
for (let at = 0; at < threeMinutes; at += 2048) long.push(take.subarray(at % take.length, (at % take.length) + 2048));
const started = performance.now();
const heard = long.finish();
row(`finish, ${heard.notes.length} notes`, (performance.now() - started).toFixed(0));

console.log('');
row('difference function of one frame', 'to the plain form');
const difference = new NormalisedDifference(620, 362);
const fast = time(() => { for (let n = 0; n < 2000; n++) difference.compute(take, 10_000 + n * 64); });
const plain = time(() => { for (let n = 0; n < 200; n++) plainDifference(take, 10_000 + n * 64, 620, 362); }) * 10;
row('by FFT', ratio(plain / fast));

console.log('');
row('analysis of the whole take', 'ms');
row(`${notes.length} notes, ${6} choruses`, (time(() => void analyse({ chart, tempo, notes, plan: { id: 'outline' } })) * 1000).toFixed(1));

await earsTable();
await neuralTable();

function plainDifference(samples: Float32Array, from: number, window: number, maxLag: number): number {
  let total = 0;
  for (let lag = 1; lag <= maxLag; lag++)
    for (let j = 0; j < window; j++) total += (samples[from + j]! - samples[from + j + lag]!) ** 2;
  return total;
}
