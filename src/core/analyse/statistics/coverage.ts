import { intervalOver, semitonesAboveRoot, type IntervalName } from '../../music';
import type { Plan } from '../../plan';
import type { AnalysisScene } from '../harmonicContext/chordAssignment';
import type { JudgedNote } from '../noteFunctions/noteReport';
import { present, type Beats, defined } from '../../shared';

export type IntervalCount = { count: number; beats: Beats; strong: number };

export type ChordCoverage = {
  readonly chord: string;
  /** Roman numeral. */
  readonly function: string;
  readonly count: number;
  /** False under five notes: too few to judge. */
  readonly judged: boolean;
  readonly byInterval: Readonly<Record<IntervalName, IntervalCount>>;
  /** Tones of the plan's material never used. */
  readonly missing: readonly IntervalName[];
};

/** Fewer notes than this are too few to judge. */
export const ENOUGH_TO_JUDGE = 5;

/**
 * What was used over each chord: one entry per symbol and chord-scale, in form order, symbols never sounded
 * included.
 * Rule T9.1: each interval with count, sounding time, strong-beat count; tones of the plan's material never
 * used (`missing`, per symbol and scale, symbols
 * never sounded included; `judged: false` under 5 notes). A note counts once, in the chord it belongs to;
 * its time counts where it sounds.
 */
export function coverageOf(scene: AnalysisScene, plan: Plan, notes: readonly JudgedNote[]): ChordCoverage[] {
  const entries = new Map<
    string,
    { span: number; byInterval: Record<string, IntervalCount>; count: number }
  >();
  const keys = scene.contexts.map(({ chord, bareScale }) => `${chord?.symbol} ${bareScale.name}`);
  const keyOf = (span: number) => defined(keys[span]);
  for (const { span: chordSpan, chord } of scene.contexts)
    if (chord && !entries.has(keyOf(chordSpan.index)))
      entries.set(keyOf(chordSpan.index), { span: chordSpan.index, byInterval: {}, count: 0 });
  const entryOf = scene.contexts.map(({ span }) => entries.get(keyOf(span.index)));
  notes.forEach(({ note, chordSpans, isStrong }) => {
    if (note.function === 'grace') return;
    note.spans.forEach((span, place) => {
      const entry = span.chord === null ? undefined : entryOf[defined(chordSpans[place])];
      if (!entry || span.interval === null) return;
      const cell = (entry.byInterval[span.interval] ??= { count: 0, beats: 0, strong: 0 });
      cell.beats += span.beats;
      if (place > 0) return;
      entry.count++;
      cell.count++;
      if (isStrong) cell.strong++;
    });
  });
  return [...entries.values()].map(({ span: stretch, byInterval, count }) => ({
    chord: present(defined(scene.contexts[stretch]).chord).symbol,
    function: present(defined(scene.contexts[stretch]).degree),
    count,
    judged: count >= ENOUGH_TO_JUDGE,
    byInterval,
    missing: missingAt(scene, plan, stretch, byInterval),
  }));
}

function missingAt(
  scene: AnalysisScene,
  plan: Plan,
  span: number,
  used: Record<string, IntervalCount>,
): IntervalName[] {
  const chord = present(defined(scene.contexts[span]).chord);
  const unused = [...new Set(defined(plan.cells[span]).material)].filter(
    (pc) => used[intervalOver(chord, pc)] === undefined,
  );
  return unused
    .sort((a, b) => semitonesAboveRoot(chord, a) - semitonesAboveRoot(chord, b))
    .map((pc) => intervalOver(chord, pc));
}
