import {
  availableTensions,
  harmonyOf,
  avoidNotes,
  tellTaleTones,
  timelineOf,
  type ChordReading,
} from '@/core/chart';
import {
  guideTones,
  intervalOver,
  keyName,
  noteName,
  spellOver,
  toneList,
  type Chord,
  type Scale,
} from '@/core/music';
import { cellAt, planOf, type PlanCell } from '@/core/plan';
import { argumentsOf, chartFrom, onlyFile, planFrom, printJson } from './input';
import { elementAt } from '@/core/shared';

type Listed = { readonly interval: string; readonly pc: number; readonly name: string };

/**
 * `study chart.txt`: what each chord asks for, by its function and by a plan (contract in
 * docs/architecture.md, “study”).
 */
export function studyCommand(args: string[]): void {
  const { values, positionals } = argumentsOf(args, {
    home: { type: 'string' },
    plan: { type: 'string' },
    target: { type: 'string' },
    degrees: { type: 'string' },
    mode: { type: 'string' },
    json: { type: 'boolean' },
  });
  const chart = chartFrom(onlyFile(positionals, 'the chart text'));
  const timeline = timelineOf(chart, chart.tempo ?? 120);
  const harmony = harmonyOf(chart, timeline);
  const plan = planOf(planFrom(values), harmony, timeline);
  const first = harmony.readings.find((reading) => reading !== null);
  const chords = harmony.readings.flatMap((reading, index) => {
    const stretch = elementAt(timeline.chordSpans, index);
    return reading
      ? [
          {
            bar: stretch.bar + 1,
            beat: stretch.start,
            ...entry(reading, elementAt(plan.homeScales, index), cellAt(plan, index)),
          },
        ]
      : [];
  });
  const result = {
    key: keyName(chart.key ?? first?.key ?? { tonic: { letter: 'C', alter: 0 }, minor: false }),
    home: plan.homeScales[0]?.name ?? null,
    plan: plan.id,
    chords,
  };
  if (values.json) printJson(result);
  else
    process.stdout.write(
      `${[`${chart.title || 'Untitled'}, ${result.key}, home scale ${result.home}`, '', ...chords.map(row)].join('\n')}\n`,
    );
}

function entry(reading: ChordReading, home: Scale, cell: PlanCell) {
  const { chord, key, degree, scale, reason, runnerUp, borrowedFrom } = reading;
  const listed = (pcs: Iterable<number>): Listed[] =>
    [...new Set(pcs)].map((pc) => ({
      interval: intervalOver(chord, pc),
      pc,
      name: noteName(spellOver(chord, pc)),
    }));
  return {
    chord: chord.symbol,
    key: keyName(key),
    degree,
    scale: scale.name,
    tones: toneList(chord.tones),
    guideTones: toneList(guideTones(chord)),
    tellTale: toneList(tellTaleTones(chord, home)),
    material: listed(byRoot(chord, cell.material)),
    targets: listed(byRoot(chord, cell.targets)),
    tensions: listed(byRoot(chord, [...availableTensions(chord, scale)])),
    rub: listed(avoidNotes(chord, home)),
    shapes: cell.shapes.map((shape) => shape.name),
    reason,
    ...(runnerUp ? { runnerUp } : {}),
    ...(borrowedFrom === null ? {} : { borrowedFrom }),
  };
}

const byRoot = (chord: Chord, pcs: readonly number[]): number[] => {
  const root = elementAt(chord.tones, 0).pc;
  return [...pcs].sort((a, b) => ((a - root + 12) % 12) - ((b - root + 12) % 12));
};

const names = (tones: readonly Listed[]): string => tones.map((tone) => tone.name).join(' ');

function row(chord: { bar: number } & ReturnType<typeof entry>): string {
  return [
    `bar ${String(chord.bar).padStart(3)}`,
    chord.chord.padEnd(10),
    chord.degree.padEnd(8),
    chord.scale.padEnd(30),
    `land on ${names(chord.targets)}`.padEnd(18),
    chord.tellTale.length > 0 ? `home scale lacks ${names(chord.tellTale)}` : '',
  ]
    .join('  ')
    .trimEnd();
}
