import {
  DRILL_KINDS,
  CATALOGUE,
  drillFor,
  exampleOf,
  judgeDrill,
  ruleWords,
  type DrillKind,
} from '@/core/drills';
import { readNotes, toBeats } from '@/core/formats';
import { PLAN_IDS, type PlanId } from '@/core/plan';
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
  if (values.list) {
    for (const kind of DRILL_KINDS)
      process.stdout.write(`${kind.padEnd(22)} ${ruleWords(CATALOGUE[kind].rule)}\n`);
    return;
  }
  const chart = chartFrom(onlyFile(positionals, 'the chart'));
  const kind = (values.kind ?? 'one-target') as DrillKind;
  if (!DRILL_KINDS.includes(kind))
    throw new BadInput(`There is no drill “${kind}”. Drills: ${DRILL_KINDS.join(', ')}.`);
  const plan = (values.plan ?? 'scale-per-chord') as PlanId;
  if (!PLAN_IDS.includes(plan))
    throw new BadInput(`There is no plan “${plan}”. Plans: ${PLAN_IDS.join(', ')}.`);
  const tempo = values.tempo === undefined ? (chart.tempo ?? 80) : numberFrom(values.tempo, 'tempo', 20, 400);
  const drill = drillFor({
    kind,
    chart,
    tempo,
    plan: { id: plan },
    span: spanOf(values.bars, chart.bars.length),
  });
  const choruses = values.choruses === undefined ? 1 : numberFrom(values.choruses, 'choruses', 1, 100);
  if (values.notes !== undefined) {
    const notes = toBeats(
      valueOf(readNotes(readFile(values.notes).toString('utf8'))),
      tempo,
      values.offset === undefined ? 0 : numberFrom(values.offset, 'offset', -600, 600),
    );
    const { gates, met, of, passed } = judgeDrill(drill, notes, choruses);
    if (values.json) printJson({ kind, met, of, passed, gates });
    else process.stdout.write(`${drill.words}\n${met} of ${of}: ${passed ? 'passed' : 'not yet'}\n`);
    return;
  }
  const example = exampleOf(
    drill,
    values.seed === undefined ? 1 : numberFrom(values.seed, 'seed', 0, 1e9),
    choruses,
  );
  if (values.json) return printJson({ ...drill, example });
  process.stdout.write(
    `${drill.name}, bars ${drill.span.join('–')} at ${tempo}\n${drill.words}\n${drill.reason}\n`,
  );
  if (!example) process.stderr.write('These bars hold nothing this drill can be played on.\n');
  for (const { onsetBeat, durationBeats, midi } of example ?? [])
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
