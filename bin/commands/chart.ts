import { readChart, type Chart } from '@/core/chart';
import { keyName } from '@/core/music';
import { BadInput, EXIT, sentence } from './exit';
import { argumentsOf, onlyFile, printJson, readFile } from './input';

/** `chart check FILE`: the bars as they are played, or every error with its place and a suggestion. */
export function chartCommand(args: string[]): void {
  const { values, positionals } = argumentsOf(args, { json: { type: 'boolean' } });
  const [what, ...files] = positionals;
  if (what !== 'check') throw new BadInput('Say chart check chart.txt.');
  const read = readChart(readFile(onlyFile(files, 'the chart text')).toString('utf8'));
  if (read.ok) {
    if (values.json) printJson({ ok: true, ...describe(read.value) });
    else process.stdout.write(`${read.value.title || 'Untitled'}: ${read.value.bars.length} bars read.\n`);
    return;
  }
  process.exitCode = EXIT.badInput;
  if (values.json) printJson({ ok: false, errors: read.problems });
  process.stderr.write(`${read.problems.map(sentence).join('\n')}\n`);
}

function describe(chart: Chart) {
  const meter = `${chart.meter.upper}/${chart.meter.lower}`;
  return {
    title: chart.title, key: chart.key ? keyName(chart.key) : null, meter, tempo: chart.tempo, feel: chart.feel, pickup: chart.pickup,
    bars: chart.bars.map((bar, index) => ({
      bar: index + 1, line: bar.line, column: bar.column, section: bar.section, key: bar.key ? keyName(bar.key) : null, meter: `${bar.meter.upper}/${bar.meter.lower}`,
      chords: bar.cells.map((cell) => ({ chord: cell.chord?.symbol ?? 'N.C.', beat: cell.start.valueOf(), beats: cell.beats.valueOf() })),
    })),
  };
}
