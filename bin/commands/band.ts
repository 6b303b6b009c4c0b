import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import {
  arrange,
  bandFeel,
  CLICK_BEATS,
  ENDING_BEATS,
  Instruments,
  lineupOf,
  renderBand,
  type ClickBeats,
} from '@/core/band';
import { beatsPerBar, routeOf, secondsAt, timelineOf } from '@/core/chart';
import { writeWav } from '@/core/formats';
import { BadInput, valueOf } from './exit';
import { argumentsOf, chartFrom, numberFrom, onlyFile, tempoFrom, wholeFrom, writeFile } from './input';

const RATE = 44_100;
const BANK = fileURLToPath(new URL('../../public/band/instruments-1.sf2', import.meta.url));

/**
 * `band chart.txt --out band.wav`: the backing, from the count-in to the last ring. `--json` prints what is
 * played, beat by beat.
 */
export async function bandCommand(args: string[]): Promise<void> {
  const { values, positionals } = argumentsOf(args, {
    tempo: { type: 'string' },
    choruses: { type: 'string' },
    out: { type: 'string' },
    seed: { type: 'string' },
    'count-in': { type: 'string' },
    bars: { type: 'string' },
    'tempo-step': { type: 'string' },
    'key-step': { type: 'string' },
    click: { type: 'string' },
    chords: { type: 'string' },
    'drop-out': { type: 'string' },
    json: { type: 'boolean' },
  });
  if (values.out === undefined && !values.json)
    throw new BadInput('Name the file to write: --out band.wav, or --json to see what is played.');
  const written = chartFrom(onlyFile(positionals, 'the chart text'));
  const route = valueOf(
    routeOf(written.text, {
      passes: wholeFrom(values.choruses, 'choruses', 1, 100, 1),
      tempo: tempoFrom(values.tempo, written),
      tempoStep: numberFrom(values['tempo-step'], 'tempo-step', -40, 40, 0),
      keyStep: wholeFrom(values['key-step'], 'key-step', -11, 11, 0),
      ...(values.bars === undefined ? {} : { bars: barsFrom(values.bars) }),
    }),
  );
  const { chart, choruses, pace } = route;
  const [tempo] = pace.tempi as [number];
  const countInBars = wholeFrom(values['count-in'], 'count-in', 0, 4, 0);
  const click = oneOf(values.click ?? 'off', 'click', CLICK_BEATS);
  const dropOut = {
    choruses: (values['drop-out'] ?? '')
      .split(',')
      .filter(Boolean)
      .map((text) => wholeFrom(text, 'drop-out', 1, 100)),
  };
  const events = arrange({
    chart,
    tempo,
    choruses,
    countInBars,
    click: click as ClickBeats,
    dropOut,
    seed: wholeFrom(values.seed, 'seed', 0, 2 ** 31, 1),
  });
  const lineup = lineupOf(
    bandFeel(chart),
    tempo,
    oneOf(values.chords ?? 'keys', 'chords', ['keys', 'guitar'] as const),
  );
  if (values.json)
    process.stdout.write(`${JSON.stringify({ feel: bandFeel(chart), lineup, tempi: pace.tempi, events })}\n`);
  if (values.out === undefined) return;
  const leadSeconds = -secondsAt(pace, -countInBars * beatsPerBar(chart.meter));
  const bank = readFileSync(BANK);
  const instruments = await Instruments.load(
    bank.buffer.slice(bank.byteOffset, bank.byteOffset + bank.length) as ArrayBuffer,
    RATE,
  );
  const seconds = secondsAt(pace, timelineOf(chart, tempo).formBeats * choruses + ENDING_BEATS);
  const samples = renderBand(
    instruments,
    { events, lineup, rate: RATE, leadSeconds, secondsAt: (beat) => secondsAt(pace, beat) },
    seconds,
  );
  writeFile(values.out, writeWav([samples], RATE));
  process.stderr.write(
    `${values.out}: ${(samples.length / RATE).toFixed(1)} s, beat 1 at ${leadSeconds.toFixed(3)} s\n`,
  );
}

function oneOf<T extends string>(text: string, name: string, choices: readonly T[]): T {
  if ((choices as readonly string[]).includes(text)) return text as T;
  throw new BadInput(`--${name} takes ${choices.join(', ')}, not “${text}”.`);
}

function barsFrom(text: string): [number, number] {
  const found = /^(\d{1,3})(?:-(\d{1,3}))?$/.exec(text.trim());
  if (!found) throw new BadInput(`--bars takes two bars, like 9-12, not “${text}”.`);
  return [Number(found[1]), Number(found[2] ?? found[1])];
}
