import type { PlayedNote } from '@/core/analyse';
import { readChart, timelineOf, type Chart } from '@/core/chart';
import {
  DRILL_KINDS,
  CATALOGUE,
  drillFor,
  drillOf,
  exampleFor,
  exampleOf,
  examplesOf,
  judgeDrill,
  readOwnWords,
  ruleWords,
  type Drill,
} from '@/core/drills';
import { readNotes, toBeats } from '@/core/formats';
import type { Level } from '@/core/lines';
import { tablatureOf } from '../tablature';
import { BadInput, valueOf } from './exit';
import {
  argumentsOf,
  chartFrom,
  numberFrom,
  onlyFile,
  PLAN_OPTIONS,
  planWordsFrom,
  printJson,
  readFile,
} from './input';

/**
 * `drill chart.txt`: something small to practise with a line that passes it; with --notes an attempt is held
 * against its rule.
 */
export function drillCommand(args: string[]): void {
  const { values, positionals } = argumentsOf(args, {
    list: { type: 'boolean' },
    kind: { type: 'string' },
    bars: { type: 'string' },
    tempo: { type: 'string' },
    words: { type: 'string' },
    level: { type: 'string' },
    ...PLAN_OPTIONS,
    seed: { type: 'string' },
    lines: { type: 'string' },
    choruses: { type: 'string' },
    notes: { type: 'string' },
    offset: { type: 'string' },
    json: { type: 'boolean' },
  });
  if (values.list) return list();
  const number = (
    name: 'tempo' | 'choruses' | 'offset' | 'seed',
    low: number,
    high: number,
    otherwise: number,
  ) => {
    const text = values[name];
    return text === undefined ? otherwise : numberFrom(text, name, low, high);
  };
  const chart = chartFrom(onlyFile(positionals, 'the chart'));
  const drill = drillFrom(values, chart, (otherwise) => number('tempo', 20, 400, otherwise));
  const level = oneOf(values.level ?? 'usual', LEVELS, 'level', 'Levels');
  const isJson = values.json ?? false;
  const choruses = values.choruses === undefined ? null : number('choruses', 1, 100, 1);
  if (values.lines !== undefined)
    return severalLines(drill, numberFrom(values.lines, 'lines', 1, MOST_LINES), level, isJson);
  if (values.notes === undefined)
    return example(drill, { seed: number('seed', 0, 1e9, 1), choruses, level }, isJson);
  const text = readFile(values.notes).toString('utf8');
  const notes = toBeats(valueOf(readNotes(text)), drill.tempo, number('offset', -600, 600, 0));
  count(drill, notes, choruses ?? passesIn(drill, notes), isJson);
}

type DrillArguments = Parameters<typeof planWordsFrom>[0] & {
  readonly kind?: string | undefined;
  readonly words?: string | undefined;
  readonly bars?: string | undefined;
};

/** The drill of the catalogue that is named, or the one that is wished for in words. */
function drillFrom(values: DrillArguments, chart: Chart, tempoOr: (otherwise: number) => number): Drill {
  const plan = planWordsFrom(values);
  const bars = spanOf(values.bars, chart.bars.length);
  if (values.words === undefined) {
    const kind = oneOf(values.kind ?? 'one-target', DRILL_KINDS, 'drill', 'Drills');
    return drillFor({ kind, chart, tempo: tempoOr(chart.tempo ?? 80), plan, span: bars });
  }
  const { rule, tempo, span } = valueOf(readOwnWords(values.words, chart.bars.length));
  return drillOf(
    { kind: 'own', name: titled(values.words), reason: '', rule },
    {
      chart,
      tempo: tempoOr(tempo ?? chart.tempo ?? 80),
      plan,
      span: values.bars === undefined && span ? span : bars,
    },
  );
}

const titled = (wish: string): string => wish.trim().replace(/^./, (letter) => letter.toUpperCase());

function list(): void {
  for (const kind of DRILL_KINDS)
    process.stdout.write(`${kind.padEnd(22)} ${ruleWords(CATALOGUE[kind].rule)}\n`);
}

function oneOf<T extends string>(given: string, known: readonly T[], what: string, all: string): T {
  const found = known.find((one) => one === given);
  if (found === undefined) throw new BadInput(`There is no ${what} “${given}”. ${all}: ${known.join(', ')}.`);
  return found;
}

/** How often the bars of a drill went round while these notes were played. */
function passesIn({ chartText, tempo }: Drill, notes: readonly PlayedNote[]): number {
  const { formBeats } = timelineOf(valueOf(readChart(chartText)), tempo);
  const last = Math.max(0, ...notes.map(({ onsetBeat }) => onsetBeat));
  return Math.max(1, Math.ceil((last + 0.25) / formBeats));
}

/** Counts notes that were played by the drill's rule. */
function count(drill: Drill, notes: readonly PlayedNote[], choruses: number, isJson: boolean): void {
  const { places, met, of, passed } = judgeDrill(drill, notes, choruses);
  if (isJson) return printJson({ kind: drill.kind, met, of, passed, places });
  process.stdout.write(`${drill.words}\n${met} of ${of}: ${passed ? 'passed' : 'not yet'}\n`);
}

const LEVELS: readonly Level[] = ['easy', 'usual', 'rich'];
type Wanted = { readonly seed: number; readonly choruses: number | null; readonly level: Level };

/** Prints one line that passes the drill: over so many passes, or as few as it needs. */
function example(drill: Drill, { seed, choruses, level }: Wanted, isJson: boolean): void {
  const made = choruses === null ? exampleFor(drill, seed, level) : null;
  const line = choruses === null ? (made?.line ?? null) : exampleOf(drill, seed, choruses, level);
  if (isJson) return printJson({ ...drill, example: line, choruses: choruses ?? made?.passes ?? 1 });
  const { name, span, tempo, words, reason } = drill;
  process.stdout.write(
    [`${name}, bars ${span.join('–')} at ${tempo}`, words, reason, ''].filter(Boolean).join('\n'),
  );
  process.stdout.write('\n');
  if (!line) process.stderr.write('These bars hold nothing this drill can be played on.\n');
  if (!line) return;
  const timeline = timelineOf(valueOf(readChart(drill.chartText)), tempo);
  const passes = choruses ?? made?.passes ?? 1;
  process.stdout.write(`\n${tablatureOf({ timeline, notes: line, choruses: passes }).join('\n')}`);
}

const MOST_LINES = 24;

/** Prints different lines that pass the drill, the one most worth copying first. */
function severalLines(drill: Drill, count: number, level: Level, isJson: boolean): void {
  const lines = examplesOf(drill, count, level);
  if (isJson) return printJson({ ...drill, examples: lines });
  const timeline = timelineOf(valueOf(readChart(drill.chartText)), drill.tempo);
  process.stdout.write(`${drill.name}, bars ${drill.span.join('–')} at ${drill.tempo}\n${drill.words}\n`);
  lines.forEach(({ line, passes }, place) => {
    const page = tablatureOf({ timeline, notes: [...line], choruses: passes }).join('\n');
    process.stdout.write(`\n${place + 1}\n${page}`);
  });
  if (lines.length < count)
    process.stderr.write(`There are ${lines.length} different lines for this drill here.\n`);
}

function spanOf(text: string | undefined, bars: number): readonly [number, number] {
  if (text === undefined) return [1, bars];
  const found = /^(\d{1,3})(?:-(\d{1,3}))?$/.exec(text);
  const [from, to] = [Number(found?.[1]), Number(found?.[2] ?? found?.[1])];
  if (!found || from < 1 || to < from || to > bars)
    throw new BadInput(`--bars ${text}: bars from 1 to ${bars} are meant, as in 9-10.`);
  return [from, to];
}
