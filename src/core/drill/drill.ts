import { analyse, type PlayedNote, type Report } from '../analyse';
import { beatsPerBar, harmonyOf, passage, readChart, timelineOf, type Chart, type Timeline } from '../chart';
import { placesOf, STANDARD_INSTRUMENT } from '../neck';
import { cellAt, planFromWords, planOf, type Plan, type PlanWords } from '../plan';
import type { Finding, FindingKind } from '../practise';
import { certain, type BeatsPerMinute, type Midi } from '../vocabulary';
import { CATALOGUE, type CatalogueEntry, type DrillKind, type Recipe } from './catalogue';
import { lineThrough, type Slot } from './line';
import { attemptOf, ruleWords, tonesOf, type Attempt, type Rule } from './rule';

/** Something small to practise: some bars, one rule that can be heard, a tempo, and why. */
export type Drill = {
  readonly kind: DrillKind;
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

export type DrillRequest = { readonly kind: DrillKind; readonly chart: Chart; readonly tempo: BeatsPerMinute; readonly span?: readonly [number, number]; readonly plan?: PlanWords };

/** Met four times in five it is learnt well enough to go on (common practice, no source). */
const PASS = 0.8;

export function drillFor({ kind, chart, tempo, span, plan = { id: 'scale-per-chord' } }: DrillRequest): Drill {
  const one: CatalogueEntry = CATALOGUE[kind];
  const bars = span ?? [1, chart.bars.length] as const;
  const part = bars[0] === 1 && bars[1] === chart.bars.length ? chart : passage(chart, bars[0], bars[1]);
  return { kind, name: one.name, reason: one.reason, words: ruleWords(one.rule), chartText: part.text, span: bars, tempo, plan: { ...plan, ...one.plan }, rule: one.rule, pass: PASS };
}

/** What a finding asks to be drilled. Kinds that need no drill of their own give the first rung that helps. */
const FOR: Partial<Record<FindingKind, DrillKind>> = {
  'target-missed': 'one-target', 'tone-missed': 'ladder-thirds', 'still-on-old-chord': 'nearest-note', 'change-ignored': 'home-tell-tale', 'landing-late': 'one-target', 'root-only': 'ladder-thirds', 'leaps-into-changes': 'nearest-note', 'turns-late': 'anticipate', 'turns-early': 'one-target',
  'no-approaches': 'target-from-below', 'approach-one-side': 'third-from-above', 'approach-unresolved': 'third-from-below', 'no-enclosures': 'enclosures', 'tone-never-played': 'plan-only', 'home-scale-only': 'home-tell-tale', 'outline-only': 'scale-runs', 'one-position': 'one-position',
  'starts-on-one': 'start-on-two', 'starts-alike': 'start-on-three', 'no-space': 'leave-space', 'phrases-too-short': 'nearest-note', 'never-crosses-changes': 'nearest-note', 'ends-asking': 'on-the-ground', 'no-upbeats': 'upbeats', 'one-rhythm': 'anticipate', 'scale-running': 'arpeggios', 'leaps-only': 'nearest-note',
  'stays-outside': 'on-the-ground', 'stays-on-ground': 'plan-only', 'step-out-lost': 'target-from-below', 'lost-place': 'ladder-roots',
};
const TONES: Record<string, DrillKind> = { third: 'ladder-thirds', seventh: 'ladder-sevenths', fifth: 'ladder-fifths', root: 'ladder-roots' };

/** The drill of a finding: its bars, its tempo, and the catalogue's rule for it; null for praise and for what no drill mends. */
export function drillOfFinding(finding: Finding, chart: Chart, plan: PlanWords): Drill | null {
  const named = finding.kind === 'tone-missed' ? Object.keys(TONES).find((tone) => finding.title.includes(tone)) : undefined;
  const kind = named ? TONES[named]! : FOR[finding.kind];
  return kind ? drillFor({ kind, chart, tempo: finding.drill.tempo, span: finding.drill.span, plan }) : null;
}

/** An attempt at a drill as the rule hears it, and only the rule. */
export function judgeDrill(drill: Drill, notes: readonly PlayedNote[], choruses: number): Attempt & { readonly passed: boolean; readonly report: Report } {
  const chart = certain(readChart(drill.chartText));
  const timeline = timelineOf(chart, drill.tempo);
  const report = analyse({ chart, tempo: drill.tempo, plan: certain(planFromWords(drill.plan)), notes, choruses });
  const attempt = attemptOf(drill.rule, report, chart, timeline);
  return { ...attempt, passed: attempt.of > 0 && attempt.met >= drill.pass * attempt.of - 1e-9, report };
}

/** E2 to the twelfth fret of the high string: where examples lie unless a place is asked for. */
const RANGE: readonly [Midi, Midi] = [50, 76];

/**
 * A line that passes a drill: seeded, within the hand's range, in the drill's rhythm. Lines are made and held against the rule until one passes.
 * @returns null where none of a few did: the bars may hold nothing the drill can be played on
 */
export function exampleOf(drill: Drill, seed: number, choruses = 1): PlayedNote[] | null {
  const chart = certain(readChart(drill.chartText));
  const timeline = timelineOf(chart, drill.tempo);
  const harmony = harmonyOf(chart, timeline);
  const plan = planOf(certain(planFromWords(drill.plan)), harmony, timeline);
  const { recipe } = CATALOGUE[drill.kind] as CatalogueEntry;
  const scene: Scene = { chart, timeline, plan, recipe, end: choruses * timeline.formBeats };
  for (let tries = 0; tries < TRIES; tries++) {
    // a lead-in from below where one from above finds no line, and the other way round
    const turned = recipe.chromatic === 'only' && tries % 2 === 1 ? { ...scene, recipe: { ...recipe, lead: recipe.lead!.map((steps) => steps.map((step) => -step)) } } : scene;
    const line = lineThrough(slotsOf(turned), pitchesOf(recipe), seed + tries * 101);
    if (line && judgeDrill(drill, line, choruses).passed) return line;
  }
  return null;
}

const TRIES = 8;

type Scene = { readonly chart: Chart; readonly timeline: Timeline; readonly plan: Plan; readonly recipe: Recipe; readonly end: number };

function pitchesOf({ place }: Recipe): Midi[] {
  const range = Array.from({ length: RANGE[1] - RANGE[0] + 1 }, (_, index) => RANGE[0] + index);
  if (place === undefined) return range;
  const all = Array.from({ length: 12 }, (_, pc) => pc);
  return [...new Set(placesOf(all, place, place + 3, STANDARD_INSTRUMENT.tuning).map(({ midi }) => midi))].sort((a, b) => a - b);
}

/** The chord that sounds at a beat, and where it began and ends. */
function chordAt({ timeline }: Scene, beat: number) {
  const chorus = Math.max(0, Math.floor(beat / timeline.formBeats + 1e-9));
  const inForm = Math.max(0, beat - chorus * timeline.formBeats);
  const stretch = timeline.stretches.findLast(({ start }) => start <= inForm + 1e-6) ?? timeline.stretches[0]!;
  return { stretch, chorus, start: chorus * timeline.formBeats + stretch.start, end: chorus * timeline.formBeats + stretch.end };
}

/** Where notes are to be struck, in order: beat and duration. */
function rhythmOf(scene: Scene): [number, number][] {
  const { recipe, end, chart, timeline } = scene;
  const bar = beatsPerBar(chart.meter);
  const every = (step: number, from = 0, length = step * 0.95): [number, number][] => Array.from({ length: Math.max(0, Math.ceil((end - from) / step - 1e-9)) }, (_, index) => [from + index * step, length]);
  switch (recipe.rhythm) {
    case 'quarters': return every(1);
    case 'eighths': return every(0.5);
    case 'offbeats': return every(1, 0.5, 0.45);
    case 'changes': return timeline.stretches.map(({ start, end: until }): [number, number] => [start, (until - start) * 0.9]);
    case 'anticipate': {
      const pushed = new Set<number>();
      for (let chorus = 0; chorus * timeline.formBeats < end; chorus++) for (const { start } of timeline.stretches) pushed.add(Math.round((chorus * timeline.formBeats + start) * 2) / 2);
      // an eighth ahead of each change and held over it, quarters between
      return every(0.5).filter(([beat]) => !pushed.has(beat) || beat === 0).flatMap(([beat]): [number, number][] => (pushed.has(beat + 0.5) && beat + 0.5 < end ? [[beat, 1.2]] : Number.isInteger(beat) && !pushed.has(beat + 0.5) ? [[beat, pushed.has(beat + 1) ? 0.45 : 0.9]] : []));
    }
    case 'phrases': {
      const { beat, bars, rest } = recipe.phrase!;
      const notes: [number, number][] = [];
      for (let from = beat - 1; from < end - 0.5; from += (bars + rest) * bar) for (let step = 0; step < bars * bar * 2 - (beat - 1) && from + step / 2 < end; step++) if (step / 2 < bars * bar - 0.5) notes.push([from + step / 2, 0.47]);
      return notes;
    }
  }
}

function slotsOf(scene: Scene): Slot[] {
  const rhythm = rhythmOf(scene);
  const { recipe } = scene;
  const slots = rhythm.map(([beat, duration]): Slot => {
    const early = recipe.rhythm === 'anticipate' && duration > 1;
    const at = chordAt(scene, early ? beat + 0.5 : beat);
    const { chord } = at.stretch;
    if (!chord) return { beat, duration, pcs: Array.from({ length: 12 }, (_, pc) => pc) };
    const tones = chord.tones.map(({ pc }) => pc);
    const cell = cellAt(scene.plan, at.stretch.index, at.chorus);
    const lands = early || Math.abs(beat - at.start) < 1e-6;
    const aims = tonesOf(chord, recipe.land);
    if (lands && aims.length > 0) return { beat, duration, pcs: recipe.material === 'plan' && !recipe.chromatic ? nonEmpty(aims.filter((pc) => cell.material.includes(pc)), aims) : aims };
    return recipe.material === 'chord' ? { beat, duration, pcs: tones } : { beat, duration, pcs: nonEmpty(cell.material, tones), liked: tones };
  });
  return shaped(led(slots, scene), scene);
}

const nonEmpty = <T>(values: readonly T[], otherwise: readonly T[]): readonly T[] => (values.length > 0 ? values : otherwise);

/** Lays the lead-in before every landing on a change: the notes before it are bound to it by their steps. */
function led(slots: readonly Slot[], scene: Scene): Slot[] {
  const { lead, chromatic } = scene.recipe;
  if (!lead) return [...slots];
  const out = [...slots];
  const all = Array.from({ length: 12 }, (_, pc) => pc);
  slots.forEach((slot, index) => {
    const { start } = chordAt(scene, slot.beat);
    if (index < lead.length || slot.beat === 0 || Math.abs(slot.beat - start) > 1e-6) return;
    lead.forEach((steps, place) => {
      const at = index - lead.length + 1 + place;
      out[at] = { ...out[at]!, steps };
      if (chromatic && at - 1 > 0) out[at - 1] = { ...out[at - 1]!, pcs: chromatic === 'only' ? outsideOf(scene, out[at - 1]!.beat) : all };
    });
  });
  return out;
}

/** Every pitch class that is no tone of the chord sounding at a beat. */
function outsideOf(scene: Scene, beat: number): number[] {
  const tones = chordAt(scene, beat).stretch.chord?.tones.map(({ pc }) => pc) ?? [];
  return Array.from({ length: 12 }, (_, pc) => pc).filter((pc) => !tones.includes(pc));
}

/** Binds the notes of each bar into a shape: runs by step, arpeggios by skips of the chord. */
function shaped(slots: readonly Slot[], scene: Scene): Slot[] {
  const { shape } = scene.recipe;
  if (!shape) return [...slots];
  const bar = beatsPerBar(scene.chart.meter);
  return slots.map((slot) => {
    const place = Math.round((slot.beat % bar) * 2);
    if (place === 0 || place > (shape === 'run' ? 4 : 3)) return slot;
    return { ...slot, steps: shape === 'run' ? [1, 2] : [3, 4, 5] };
  });
}
