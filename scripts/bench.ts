import { denseLine, orchard } from './benchLines';
import { libraryBench, remoteBench } from './libraryBench';
import { PitchDetector } from 'pitchy';
import { analyse, type PlayedNote } from '../src/core/analyse';
import { improvise, perform } from '../src/core/band';
import { readChart, soundingAt, timelineOf, type Chart } from '../src/core/chart';
import { hasTone } from '../src/core/music';
import { NormalisedDifference } from '../src/core/sound';
import { Transcriber, transcribe } from '../src/core/transcribe';
import { unwrap, modulo } from '../src/core/shared';
import { DEMO_CHARTS } from './demo/charts';
import { earsTable, neuralTable } from './ears/table';
import { elementAt } from '@/core/shared';

const RATE = 44_100;
const chart = unwrap(readChart(DEMO_CHARTS.lamplight));
const tempo = 96;
const notes = improvise({ chart, tempo, choruses: 6, plan: { id: 'scale-per-chord' }, seed: 5 });
const take = perform({ notes, tempo, rate: RATE, seed: 5 });
const seconds = take.length / RATE;

/** Best of three runs, in seconds. */
function time(work: () => void): number {
  return Math.min(
    ...[1, 2, 3].map(() => {
      const started = performance.now();
      work();
      return (performance.now() - started) / 1000;
    }),
  );
}

/** Best of many once the engine has seen the code: what a slider that re-judges pays. */
function warm(work: () => void): number {
  const until = performance.now() + 5000;
  let best = Infinity;
  do best = Math.min(best, time(work));
  while (performance.now() < until);
  return best;
}

const row = (name: string, ...cells: (string | number)[]) =>
  console.log([name.padEnd(52), ...cells.map((cell) => String(cell).padStart(14))].join(''));
const ratio = (value: number) => `${value.toFixed(1)} ×`;

// npm run bench: everything; npm run bench -- analysis (transcription, ears, library, remote): one part; library 5000: so many takes
const PARTS: Record<string, () => Promise<void> | void> = {
  transcription,
  analysis,
  library: () => libraryBench(Number(process.argv[3] ?? 1000)),
  remote: () => remoteBench(Number(process.argv[3] ?? 200)),
  ears: async () => {
    await earsTable(process.argv[3]);
    await neuralTable();
  },
};
const asked = process.argv[2];
if (asked !== undefined && !PARTS[asked])
  throw new Error(`There is no part “${asked}”. Parts: ${Object.keys(PARTS).join(', ')}.`);
for (const [name, measure] of Object.entries(PARTS))
  if (asked === undefined || asked === name) await measure();

function transcription(): void {
  console.log(
    `\nA take of ${seconds.toFixed(0)} s at ${RATE} Hz, ${notes.length} notes; one thread, Node ${process.version}\n`,
  );
  row('transcription', 'real time', 'to the peer');
  const own = time(() => void transcribe(take, RATE));
  // pitchy (MIT): a McLeod pitch tracker. It gives a pitch a frame and no notes; asked at the same hop of
  // 5.8 ms on a 2048 window.
  const detector = PitchDetector.forFloat32Array(2048);
  const peer = time(() => {
    for (let at = 0; at + 2048 <= take.length; at += 256)
      detector.findPitch(take.subarray(at, at + 2048), RATE);
  });
  row('Idle Wander: notes', ratio(seconds / own), ratio(peer / own));
  row('pitchy: pitch track only', ratio(seconds / peer), ratio(1));

  console.log('');
  row('after the last block of a 3-minute take', 'ms');
  const long = new Transcriber(RATE);
  const threeMinutes = 180 * RATE;
  for (let at = 0; at < threeMinutes; at += 2048)
    long.push(take.subarray(at % take.length, (at % take.length) + 2048));
  const started = performance.now();
  const heard = long.finish();
  row(`finish, ${heard.notes.length} notes`, (performance.now() - started).toFixed(0));

  console.log('');
  row('difference function of one frame', 'to the plain form');
  const difference = new NormalisedDifference(620, 362);
  const fast = time(() => {
    for (let n = 0; n < 2000; n++) difference.compute(take, 10_000 + n * 64);
  });
  const plain =
    time(() => {
      for (let n = 0; n < 200; n++) plainDifference(take, 10_000 + n * 64, 620, 362);
    }) * 10;
  row('by FFT', ratio(plain / fast));
}

function analysis(): void {
  console.log('');
  row('the whole report over 10 choruses of 32 bars', 'ms', 'to plain pass', 'us a note');
  for (const choruses of [10, 50, 250]) {
    const played = denseLine(orchard, choruses);
    // every part read: a report works its parts out when they are asked for
    const whole = warm(
      () =>
        void Object.values(
          // a copy: what is kept with a take's notes must not help
          analyse({ chart: orchard, tempo: 120, notes: [...played], plan: { id: 'scale-per-chord' } }),
        ),
    );
    // the least that any judgement does: look every note's chord up and ask whether it is a chord tone
    const pass = warm(() => void plainPass(orchard, played));
    row(
      `${played.length} notes`,
      (whole * 1000).toFixed(0),
      ratio(whole / pass),
      ((whole * 1e6) / played.length).toFixed(1),
    );
  }
}

function plainDifference(samples: Float32Array, from: number, window: number, maxLag: number): number {
  let total = 0;
  for (let lag = 1; lag <= maxLag; lag++)
    for (let j = 0; j < window; j++)
      total += (elementAt(samples, from + j) - elementAt(samples, from + j + lag)) ** 2;
  return total;
}

function plainPass(form: Chart, played: readonly PlayedNote[]): number {
  const timeline = timelineOf(form, 120);
  return played.filter(({ onsetBeat, midi }) => {
    const { chord } = soundingAt(timeline, onsetBeat).span;
    return chord !== null && hasTone(chord, modulo(midi, 12));
  }).length;
}
