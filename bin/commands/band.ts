import { arrange, renderBand } from '@/core/band';
import { beatsPerBar, timelineOf } from '@/core/chart';
import { writeWav } from '@/core/formats';
import { beatsToSeconds } from '@/core/vocabulary';
import { BadInput } from './exit';
import { argumentsOf, chartFrom, onlyFile, tempoFrom, wholeFrom, writeFile } from './input';

const RATE = 44_100;

/** `band chart.txt --out band.wav`: the backing, from the count-in to the last ring. */
export function bandCommand(args: string[]): void {
  const { values, positionals } = argumentsOf(args, {
    tempo: { type: 'string' }, choruses: { type: 'string' }, out: { type: 'string' }, seed: { type: 'string' }, 'count-in': { type: 'string' },
  });
  if (values.out === undefined) throw new BadInput('Name the file to write: --out band.wav.');
  const chart = chartFrom(onlyFile(positionals, 'the chart text'));
  const tempo = tempoFrom(values.tempo, chart);
  const choruses = wholeFrom(values.choruses, 'choruses', 1, 100, 1);
  const countInBars = wholeFrom(values['count-in'], 'count-in', 0, 4, 0);
  const events = arrange({ chart, tempo, choruses, countInBars, seed: wholeFrom(values.seed, 'seed', 0, 2 ** 31, 1) });
  const seconds = beatsToSeconds(timelineOf(chart, tempo).formBeats * choruses, tempo) + 1.5;
  const samples = renderBand({ events, tempo, rate: RATE, seconds, leadSeconds: beatsToSeconds(countInBars * beatsPerBar(chart.meter), tempo) });
  writeFile(values.out, writeWav([samples], RATE));
  process.stderr.write(`${values.out}: ${(samples.length / RATE).toFixed(1)} s, beat 1 at ${beatsToSeconds(countInBars * beatsPerBar(chart.meter), tempo).toFixed(3)} s\n`);
}
