import { availableTensions, tellTaleTones, timelineOf } from '@/core/chart';
import { guideTones, intervalOver, keyName, noteName, spellerOf, toneList } from '@/core/music';
import { clashesOf, homeGridOf, planOn, readPlan, type PlannedChord, type PlanNote } from '@/core/plan';
import { elementAt } from '@/core/shared';
import { clashWords, planSentence } from '@/presentation';
import { argumentsOf, chartFrom, onlyFile, PLAN_OPTIONS, planFrom, planWordsFrom, printJson } from './input';

/**
 * `study chart.txt`: what each chord asks for, and what a plan plays over it (contract in docs/architecture.md,
 * “study”).
 */
export function studyCommand(args: string[]): void {
  const { values, positionals } = argumentsOf(args, { ...PLAN_OPTIONS, json: { type: 'boolean' } });
  const chart = chartFrom(onlyFile(positionals, 'the chart text'));
  const timeline = timelineOf(chart, chart.tempo ?? 120);
  const choice = planFrom(values, chart);
  const { plan } = planOn(chart, timeline, choice);
  const planned = readPlan(chart, timeline, choice);
  const clashes = clashesOf(planned);
  const choruses = [...plan.byChorus.keys()].map((chorus) => ({
    chorus: chorus + 1,
    chords: readPlan(chart, timeline, choice, chorus).map(entry),
  }));
  const result = {
    key: keyName(chart.key ?? planned[0]?.reading.key ?? { tonic: { letter: 'C', alter: 0 }, minor: false }),
    home: plan.homeScales[0]?.name ?? null,
    plan: plan.id,
    chords: planned.map(entry),
    clashes,
    grid: homeGridOf(planned),
    ...(choruses.length > 0 ? { choruses } : {}),
  };
  if (values.json) return printJson(result);
  const homes = [...new Set(plan.homeScales.map(({ name }) => name))].join(', ');
  const lines = [
    `${chart.title || 'Untitled'}, ${result.key}, home scale ${homes}`,
    planSentence(planWordsFrom(values)),
    '',
    ...result.chords.map(row),
    ...choruses.flatMap(({ chorus, chords }) => ['', `chorus ${chorus}`, ...chords.map(row)]),
    ...(clashes.length > 0 ? ['', ...clashes.map(clashWords)] : []),
  ];
  process.stdout.write(`${lines.join('\n')}\n`);
}

function entry({ reading, home, cell, bar, beat, plays, targets, avoid, hand }: PlannedChord) {
  const { chord, key, degree, scale, reason, runnerUp, borrowedFrom } = reading;
  const spell = spellerOf(chord, home);
  const root = elementAt(chord.tones, 0).pc;
  const tensions = [...availableTensions(chord, scale)].sort(
    (a, b) => ((a - root + 12) % 12) - ((b - root + 12) % 12),
  );
  const spelled = (notes: readonly PlanNote[]) =>
    notes.map((note) => ({ ...note, name: noteName(spell(note.pc)) }));
  return {
    bar,
    beat,
    chord: chord.symbol,
    key: keyName(key),
    degree,
    scale: scale.name,
    home: home.name,
    tones: spelled(toneList(chord.tones)),
    guideTones: spelled(toneList(guideTones(chord))),
    tellTale: spelled(toneList(tellTaleTones(chord, home))),
    material: plays,
    targets,
    tensions: tensions.map((pc) => ({ interval: intervalOver(chord, pc), pc, name: noteName(spell(pc)) })),
    rub: avoid,
    school: cell.id,
    shapes: cell.shapes.map((shape) => shape.name),
    ...(hand === null ? {} : { hand }),
    reason,
    ...(runnerUp ? { runnerUp } : {}),
    ...(borrowedFrom === null ? {} : { borrowedFrom }),
  };
}

const names = (tones: readonly PlanNote[]): string => tones.map((tone) => tone.name).join(' ');

/** A chord on one line: where it is, what it is, what the plan plays and aims at, and by which shape. */
function row(chord: ReturnType<typeof entry>): string {
  const lacks = chord.tellTale.length > 0 ? `home scale lacks ${names(chord.tellTale)}` : '';
  return [
    `bar ${String(chord.bar).padStart(3)}`,
    chord.chord.padEnd(10),
    chord.degree.padEnd(8),
    chord.shapes.slice(0, 2).join(', ').padEnd(30),
    names(chord.material).padEnd(24),
    `land on ${names(chord.targets) || 'nothing'}`.padEnd(18),
    lacks,
    chord.hand === undefined ? '' : `hand at fret ${chord.hand}`,
  ]
    .join('  ')
    .trimEnd();
}
