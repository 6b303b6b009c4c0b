import { changesOf, harmonyOf, readChart, timelineOf, transposeText, type Chart } from '@/core/chart';
import { CATALOGUE, drillFor, drillOf, readOwnWords, type Drill } from '@/core/drills';
import { drillOfFinding } from '@/core/findings';
import { keyName } from '@/core/music';
import { transposePlan, type PlanWords } from '@/core/plan';
import { chartById } from './charts';
import { drillById, type DrillOrigin } from './drillRows';
import { Failure } from './failure';
import { reviewOf } from './reviews';
import type { NewDrillBody } from './validation';
import { elementAt } from '@/core/shared';

/** A drill that is not kept yet. */
export type Made = {
  readonly chartId: string | null;
  readonly title: string;
  readonly drill: Drill;
  readonly origin: DrillOrigin | null;
  /** Where the ladder begins, where that is not three quarters of the goal. */ readonly start?: number;
};

/** The drill a player asked for: of the catalogue, in words, of a finding, or one there is in another key. */
export async function drillFrom(body: NewDrillBody): Promise<Made> {
  if ('takeId' in body) return drillFromFinding(body);
  if ('drillId' in body) return drillInKey(body.drillId, body.by);
  const { id, title, text } = await chartById(body.chartId);
  const chart = readable(text);
  const drill = 'kind' in body ? drillOfKind(body, chart) : drillInWords(body, chart);
  return { chartId: id, title, origin: null, drill };
}

const DEFAULT_TEMPO = 100;
const LONGEST_NAME = 80;
type BodyWith<K extends string> = Extract<NewDrillBody, Record<K, unknown>>;

/** A drill of the catalogue over a chart, a span of it, or the bars around one kind of change. */
function drillOfKind({ kind, phrase, change, ...body }: BodyWith<'kind'>, chart: Chart): Drill {
  const span = body.span ?? (change === undefined ? undefined : aroundChange(chart, change));
  if (span && (span[0] > span[1] || span[1] > chart.bars.length))
    throw new Failure(422, { code: 'drill.bars', message: `Bars from 1 to ${chart.bars.length} are meant.` });
  const drill = drillFor({
    kind,
    chart,
    tempo: body.tempo ?? chart.tempo ?? DEFAULT_TEMPO,
    plan: body.plan ?? DEFAULT_PLAN,
    ...(span && { span }),
    ...(phrase && { phrase }),
  });
  return change === undefined
    ? drill
    : { ...drill, name: nameFor(drill.name, ` into ${change.split('→')[1]}`) };
}

/** A drill in the player's own words. */
function drillInWords(body: BodyWith<'words'>, chart: Chart): Drill {
  const read = readOwnWords(body.words, chart.bars.length);
  if (!read.ok) throw new Failure(422, read.problems[0]);
  const { rule, span, tempo = body.tempo ?? chart.tempo ?? DEFAULT_TEMPO } = read.value;
  const name = body.words.trim().replace(/\s+/g, ' ').slice(0, LONGEST_NAME);
  return drillOf(
    { kind: 'own', name: name.charAt(0).toUpperCase() + name.slice(1), reason: 'You asked for it.', rule },
    { chart, tempo, plan: body.plan ?? DEFAULT_PLAN, ...(span && { span }) },
  );
}

const DEFAULT_PLAN: PlanWords = { id: 'scale-per-chord' };

/**
 * The same drill so many half steps higher: its bars moved and respelled, its ladder begun anew where the hand
 * already is.
 */
async function drillInKey(id: string, by: number): Promise<Made> {
  const { chartId, title, drill, ladder } = await drillById(id);
  const moved = transposeText(drill.chartText, { by });
  if (!moved.ok) throw new Failure(422, moved.problems[0]);
  const chart = readable(moved.value);
  const key = chart.key ?? harmonyOf(chart, timelineOf(chart, 100)).regions[0]?.key;
  const plan = transposePlan(drill.plan, by);
  const name = drill.kind === 'own' ? elementAt(drill.name.split(', in '), 0) : CATALOGUE[drill.kind].name;
  return {
    chartId,
    title,
    origin: null,
    start: elementAt(ladder.rungs, ladder.at),
    drill: { ...drill, name: key ? `${name}, in ${keyName(key)}` : name, chartText: moved.value, plan },
  };
}

/** The bars of the first place where one chord goes to another. */
function aroundChange(chart: Chart, kind: string): [number, number] {
  const timeline = timelineOf(chart, 100);
  const found = changesOf(timeline, 2).find(({ from, to }) => `${from.symbol}→${to.symbol}` === kind);
  if (!found)
    throw new Failure(422, { code: 'drill.change', message: 'This change is not in the chart any more.' });
  const bar = found.bar + 1;
  return found.at % timeline.formBeats > elementAt(timeline.bars, found.bar).start + 1e-6 || bar === 1
    ? [bar, Math.min(chart.bars.length, bar + (bar === 1 ? 1 : 0))]
    : [bar - 1, bar];
}

/**
 * What a finding asks for; it is named by its kind and place, as the order may have changed since it was read.
 */
async function drillFromFinding({
  takeId,
  finding: { kind, change: into, chord: over, tone },
}: Extract<NewDrillBody, { takeId: string }>): Promise<Made> {
  const { take, findings } = await reviewOf(takeId);
  const finding = findings.find(
    (one) =>
      one.kind === kind && one.where.change === into && one.where.chord === over && one.where.tone === tone,
  );
  const drill = finding && drillOfFinding(finding, readable(take.chartText), take.plan);
  if (!finding || !drill)
    throw new Failure(422, { code: 'drill.none', message: 'This finding asks for no drill of its own.' });
  const { change, chord } = finding.where;
  let where: string;
  if (change) where = ` into ${change.split('→')[1]}`;
  else if (chord) where = ` over ${chord}`;
  else where = '';
  // a finding says how slowly to begin; where it was missed is where it has to hold
  return {
    chartId: take.chartId,
    title: take.title,
    start: drill.tempo,
    drill: {
      ...drill,
      name: nameFor(drill.name, where),
      tempo: Math.max(drill.tempo, Math.round(take.tempo)),
    },
    origin: { takeId, take: take.number, sentence: finding.sentence },
  };
}

/** “Thirds at every change” into one chord is “Thirds into F7”. */
const nameFor = (name: string, where: string): string => {
  if (where === '') return name;
  if (name.includes(' at every change')) return name.replace(' at every change', where);
  return `${name},${where}`;
};

function readable(text: string): Chart {
  const read = readChart(text);
  if (!read.ok)
    throw new Failure(422, {
      ...read.problems[0],
      message: `This chart cannot be played yet. ${read.problems[0].message}`,
    });
  return read.value;
}
