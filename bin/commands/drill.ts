import type { PlayedNote } from '@/core/analyse';
import {
  DRILL_KINDS,
  CATALOGUE,
  drillFor,
  exampleFor,
  exampleOf,
  judgeDrill,
  ruleWords,
  type Drill,
} from '@/core/drills';
import { readNotes, toBeats } from '@/core/formats';
import { PLAN_IDS } from '@/core/plan';
import { BadInput, valueOf } from './exit';
import { argumentsOf, chartFrom, numberFrom, onlyFile, printJson, readFile } from './input';

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
    plan: { type: 'string' },
    seed: { type: 'string' },
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
  const kind = oneOf(values.kind ?? 'one-target', DRILL_KINDS, 'drill', 'Drills');
  const plan = oneOf(values.plan ?? 'scale-per-chord', PLAN_IDS, 'plan', 'Plans');
  const tempo = number('tempo', 20, 400, chart.tempo ?? 80);
  const span = spanOf(values.bars, chart.bars.length);
  const drill = drillFor({ kind, chart, tempo, plan: { id: plan }, span });
  const isJson = values.json ?? false;
  const choruses = values.choruses === undefined ? null : number('choruses', 1, 100, 1);
  if (values.notes === undefined) return example(drill, number('seed', 0, 1e9, 1), choruses, isJson);
  const text = readFile(values.notes).toString('utf8');
  count(
    drill,
    toBeats(valueOf(readNotes(text)), tempo, number('offset', -600, 600, 0)),
    choruses ?? 1,
    isJson,
  );
}

function list(): void {
  for (const kind of DRILL_KINDS)
    process.stdout.write(`${kind.padEnd(22)} ${ruleWords(CATALOGUE[kind].rule)}\n`);
}

function oneOf<T extends string>(given: string, known: readonly T[], what: string, all: string): T {
  const found = known.find((one) => one === given);
  if (found === undefined) throw new BadInput(`There is no ${what} “${given}”. ${all}: ${known.join(', ')}.`);
  return found;
}

/** Counts notes that were played by the drill's rule. */
function count(drill: Drill, notes: readonly PlayedNote[], choruses: number, isJson: boolean): void {
  const { places, met, of, passed } = judgeDrill(drill, notes, choruses);
  if (isJson) return printJson({ kind: drill.kind, met, of, passed, places });
  process.stdout.write(`${drill.words}\n${met} of ${of}: ${passed ? 'passed' : 'not yet'}\n`);
}

/** Prints one line that passes the drill: over so many passes, or as few as it needs. */
function example(drill: Drill, seed: number, choruses: number | null, isJson: boolean): void {
  const made = choruses === null ? exampleFor(drill, seed) : null;
  const line = choruses === null ? (made?.line ?? null) : exampleOf(drill, seed, choruses);
  if (isJson) return printJson({ ...drill, example: line, choruses: choruses ?? made?.passes ?? 1 });
  const { name, span, tempo, words, reason } = drill;
  process.stdout.write(`${name}, bars ${span.join('–')} at ${tempo}\n${words}\n${reason}\n`);
  if (!line) process.stderr.write('These bars hold nothing this drill can be played on.\n');
  for (const { onsetBeat, durationBeats, midi } of line ?? [])
    process.stdout.write(`${onsetBeat.toFixed(2).padStart(7)}  ${durationBeats.toFixed(2)}  ${midi}\n`);
}

function spanOf(text: string | undefined, bars: number): readonly [number, number] {
  if (text === undefined) return [1, bars];
  const found = /^(\d{1,3})(?:-(\d{1,3}))?$/.exec(text);
  const [from, to] = [Number(found?.[1]), Number(found?.[2] ?? found?.[1])];
  if (!found || from < 1 || to < from || to > bars)
    throw new BadInput(`--bars ${text}: bars from 1 to ${bars} are meant, as in 9-10.`);
  return [from, to];
}
