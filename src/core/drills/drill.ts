import { analyse, type PlayedNote, type Report } from '../analyse';
import { changesOf, passage, readChart, timelineOf, type Chart, type Timeline } from '../chart';
import { planFromWords, planOn, type PlanChoice, type PlanWords } from '../plan';
import { unwrap, type BeatsPerMinute } from '../shared';
import { attemptOf } from './attempt';
import { CATALOGUE, type CatalogueEntry, type DrillKind } from './catalogue';
import type { Attempt } from './rule';
import { mainPart, partsOf, ruleWords, type Motif, type Rule } from './rules';

/** Something small to practise: some bars, one rule that can be heard, a tempo, and why. */
export type Drill = {
  /** The catalogue's name for it; `own` where the player made it. */
  readonly kind: DrillKind | 'own';
  readonly name: string;
  readonly reason: string;
  /** What to do, in a sentence: the rule and nothing else. */
  readonly words: string;
  /** The bars as a chart of their own. */
  readonly chartText: string;
  /** First and last bar of the form they were taken from, from 1. */
  readonly span: readonly [number, number];
  readonly tempo: BeatsPerMinute;
  readonly plan: PlanWords;
  readonly rule: Rule;
  /** The share of its places that has to be met to pass. */
  readonly pass: number;
};

export type DrillRequest = {
  readonly kind: DrillKind;
  readonly chart: Chart;
  readonly tempo: BeatsPerMinute;
  readonly span?: readonly [number, number];
  readonly plan?: PlanWords;
  /** A phrase of the player's own, for the drill that is made of one. */ readonly phrase?: Motif;
};

/** Met four times in five it is learnt well enough to go on (common practice, no source). */
export const PASS = 0.8;

export function drillFor({ kind, phrase, ...request }: DrillRequest): Drill {
  const one: CatalogueEntry = CATALOGUE[kind];
  return drillOf(
    {
      ...one,
      kind,
      ...(phrase && one.rule.kind === 'motif' ? { rule: { kind: 'motif', like: phrase } } : {}),
    },
    request,
  );
}

/** A drill by any rule over some bars of a chart. */
export function drillOf(
  one: Pick<CatalogueEntry, 'name' | 'reason' | 'rule' | 'plan'> & { readonly kind: Drill['kind'] },
  { chart, tempo, span, plan = { id: 'scale-per-chord' } }: Omit<DrillRequest, 'kind' | 'phrase'>,
): Drill {
  const asked = span ?? ([1, chart.bars.length] as const);
  const bars = isAtChanges(one.rule) ? withChange(chart, asked, tempo) : asked;
  const part = bars[0] === 1 && bars[1] === chart.bars.length ? chart : passage(chart, bars[0], bars[1]);
  return {
    kind: one.kind,
    name: one.name,
    reason: one.reason,
    words: ruleWords(one.rule),
    chartText: part.text,
    span: bars,
    tempo,
    plan: { ...plan, ...(one.kind === 'own' ? planOf(one.rule) : one.plan) },
    rule: one.rule,
    pass: PASS,
  };
}

/** The plan that a rule of the player's own speaks of, where it speaks of one. */
function planOf(rule: Rule): Partial<PlanWords> {
  const parts = partsOf(rule);
  if (parts.some(({ kind }) => kind === 'borrow')) return { id: 'borrowed-shapes' };
  const telling = parts.find((part) => part.kind === 'must' && part.of === 'tell-tale');
  if (telling?.kind !== 'must') return {};
  return { id: telling.over === 'dominant' ? 'minor-dominant' : 'home-tell-tale' };
}

/** Rules that are met at changes alone. */
export const isAtChanges = (rule: Rule): boolean => ['land', 'figure', 'join'].includes(mainPart(rule).kind);

/** Some bars, and as many more after or before them as it takes to hold a change. */
function withChange(
  chart: Chart,
  span: readonly [number, number],
  tempo: BeatsPerMinute,
): readonly [number, number] {
  const last = chart.bars.length;
  let [from, to] = span;
  while (changesOf(timelineOf(passage(chart, from, to), tempo), 2).length === 0 && (from > 1 || to < last))
    if (to < last) to++;
    else from--;
  return [from, to];
}

type Ground = { readonly chart: Chart; readonly timeline: Timeline; readonly plan: PlanChoice };
const grounds = new WeakMap<Drill, Ground>();

/** What a drill stands on, read once: line after line is tried against it. */
export function groundOf(drill: Drill): Ground {
  const known = grounds.get(drill);
  if (known) return known;
  const chart = unwrap(readChart(drill.chartText));
  const ground = {
    chart,
    timeline: timelineOf(chart, drill.tempo),
    plan: unwrap(planFromWords(drill.plan)),
  };
  grounds.set(drill, ground);
  return ground;
}

/** An attempt at a drill as the rule hears it, and only the rule. */
export function judgeDrill(
  drill: Drill,
  notes: readonly PlayedNote[],
  choruses: number,
): Attempt & { readonly passed: boolean; readonly report: Report } {
  const { chart, timeline, plan } = groundOf(drill);
  const report = analyse({ chart, tempo: drill.tempo, plan, notes, choruses });
  const context = { report, chart, timeline, ...planOn(chart, timeline, plan) };
  const attempt = attemptOf(drill.rule, context);
  return { ...attempt, passed: attempt.of > 0 && attempt.met >= drill.pass * attempt.of - 1e-9, report };
}
