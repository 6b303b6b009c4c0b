import path from 'node:path';
import { readChart, transposeText, type Chart } from '@/core/chart';
import { accepted, type Outcome } from '@/core/shared';
import { readChartMidi, readMusicXml, writeChartMidi, writeMusicXml } from '@/core/formats';
import { keyName } from '@/core/music';
import { BadInput, BadUsage, EXIT, sentence, valueOf } from './exit';
import { argumentsOf, numberFrom, onlyFile, printJson, readFile, writeFile } from './input';

/** `chart check|convert|transpose FILE`. */
export function chartCommand(args: string[]): void {
  const { values, positionals } = argumentsOf(args, {
    json: { type: 'boolean' },
    to: { type: 'string' },
    by: { type: 'string' },
    out: { type: 'string' },
  });
  const [what, ...files] = positionals;
  const isJson = values.json ?? false;
  // where it is to go may also stand as a second word: chart transpose chart.txt Eb, chart convert
  // chart.txt chart.mid
  const [file, second, ...more] = files;
  const one = more.length > 0 || file === undefined ? files : [file];
  switch (what) {
    case 'check':
      return check(onlyFile(files, 'the chart'), isJson);
    case 'convert': {
      const isFormat = second !== undefined && FORMATS[second] !== undefined;
      const to = values.to ?? (isFormat ? second : undefined);
      const out = values.out ?? (isFormat ? undefined : second);
      return convert(onlyFile(one, 'the chart: text, MusicXML or MIDI'), to, out, isJson);
    }
    case 'transpose':
      return transpose(onlyFile(one, 'the chart'), { ...values, ...destinationOf(second) });
    default:
      throw new BadInput(
        'Say chart check chart.txt, chart convert chart.txt --to musicxml or chart transpose chart.txt --to Eb.',
      );
  }
}

/** The bars as they are played, or every error with its place and a suggestion. */
function check(file: string, json: boolean): void {
  const read = readChart(valueOf(textOf(file)));
  if (read.ok) {
    if (json) printJson({ ok: true, ...describe(read.value) });
    else process.stdout.write(`${read.value.title || 'Untitled'}: ${read.value.bars.length} bars read.\n`);
    return;
  }
  process.exitCode = EXIT.badInput;
  if (json) printJson({ ok: false, errors: read.problems });
  process.stderr.write(`${read.problems.map(sentence).join('\n')}\n`);
}

/** A chart's text, whatever it came as. */
function textOf(file: string): Outcome<string> {
  const bytes = readFile(file);
  if (bytes.subarray(0, 4).toString('latin1') === 'MThd') return readChartMidi(bytes);
  const text = bytes.toString('utf8').replace(/^\uFEFF/, '');
  return /^\s*</.test(text) || text.startsWith('PK') ? readMusicXml(text) : accepted(text);
}

const FORMATS: Record<string, string> = {
  text: 'text',
  txt: 'text',
  musicxml: 'musicxml',
  xml: 'musicxml',
  midi: 'midi',
  mid: 'midi',
};

function convert(file: string, to: string | undefined, out: string | undefined, json: boolean): void {
  const named = to ?? (out === undefined ? undefined : path.extname(out).slice(1).toLowerCase());
  const format = named === undefined ? undefined : FORMATS[named];
  if (!format)
    throw new BadInput(
      `${named === undefined ? 'Say what to convert to' : `“${named}” is not a chart format`}: --to text, --to musicxml or --to midi.`,
    );
  const text = valueOf(textOf(file));
  const chart = valueOf(readChart(text));
  // read from another format, a chart keeps the repeats it had there
  let content: string | Uint8Array<ArrayBufferLike>;
  if (format === 'midi') content = writeChartMidi(chart);
  else if (format === 'musicxml') content = writeMusicXml(chart);
  else content = text;
  if (out !== undefined) writeFile(out, content);
  if (json)
    printJson({
      ok: true,
      format,
      ...(out === undefined
        ? { content: typeof content === 'string' ? content : Buffer.from(content).toString('base64') }
        : { out }),
    });
  else if (out === undefined) process.stdout.write(content);
}

function transpose(
  file: string,
  values: {
    readonly to?: string | undefined;
    readonly by?: string | undefined;
    readonly out?: string | undefined;
    readonly json?: boolean | undefined;
  },
): void {
  if ((values.to === undefined) === (values.by === undefined))
    throw new BadUsage('Say where to: --to Eb, or --by 3 semitones.');
  const text = valueOf(
    transposeText(
      valueOf(textOf(file)),
      values.to === undefined ? { by: numberFrom(values.by, 'by', -24, 24) } : { to: values.to },
    ),
  );
  if (values.out !== undefined) writeFile(values.out, text);
  if (values.json) printJson({ ok: true, text, ...describe(valueOf(readChart(text))) });
  else if (values.out === undefined) process.stdout.write(text);
}

function describe(chart: Chart) {
  const meter = `${chart.meter.upper}/${chart.meter.lower}`;
  return {
    title: chart.title,
    key: chart.key ? keyName(chart.key) : null,
    meter,
    tempo: chart.tempo,
    feel: chart.feel,
    pickup: chart.pickup,
    bars: chart.bars.map((bar, index) => ({
      bar: index + 1,
      line: bar.line,
      column: bar.column,
      section: bar.section,
      key: bar.key ? keyName(bar.key) : null,
      meter: `${bar.meter.upper}/${bar.meter.lower}`,
      chords: bar.cells.map((cell) => ({
        chord: cell.chord?.symbol ?? 'N.C.',
        beat: cell.start.valueOf(),
        beats: cell.beats.valueOf(),
      })),
    })),
  };
}

function destinationOf(second: string | undefined) {
  if (second === undefined) return {};
  if (/^[+-]?\d+$/.test(second)) return { by: second };
  return { to: second };
}
