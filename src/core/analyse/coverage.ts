import type { Beats } from '../vocabulary';
import { intervalOver, semitonesAboveRoot, type IntervalName } from '../music';
import { isOnStrongBeat } from '../chart';
import type { Plan } from '../plan';
import type { Scene } from './belonging';
import type { NoteReport } from './noteReport';
import type { LaidSpan } from './spans';

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

const ENOUGH = 5;

/**
 * What was used over each chord: one entry per symbol and chord-scale, in form order, symbols never sounded included.
 * Rule: 2-theory, "Coverage". A note counts once, in the chord it belongs to; its time counts where it sounds.
 */
export function coverageOf(scene: Scene, plan: Plan, notes: readonly NoteReport[], spans: readonly (readonly LaidSpan[])[]): ChordCoverage[] {
  const entries = new Map<string, { stretch: number; byInterval: Record<string, IntervalCount>; count: number }>();
  const keyOf = (stretch: number) => `${scene.grounds[stretch]!.chord?.symbol} ${scene.grounds[stretch]!.bareScale.name}`;
  for (const { stretch, chord } of scene.grounds)
    if (chord && !entries.has(keyOf(stretch.index))) entries.set(keyOf(stretch.index), { stretch: stretch.index, byInterval: {}, count: 0 });
  notes.forEach((note, index) => {
    if (note.function === 'grace') return;
    spans[index]!.forEach((span, place) => {
      const entry = span.chord === null ? undefined : entries.get(keyOf(span.stretchIndex));
      if (!entry || span.interval === null) return;
      const cell = (entry.byInterval[span.interval] ??= { count: 0, beats: 0, strong: 0 });
      cell.beats += span.beats;
      if (place > 0) return;
      entry.count++;
      cell.count++;
      if (isOnStrongBeat(scene.timeline, note.onsetBeat, scene.windows.on)) cell.strong++;
    });
  });
  return [...entries.values()].map(({ stretch, byInterval, count }) => ({
    chord: scene.grounds[stretch]!.chord!.symbol, function: scene.grounds[stretch]!.degree!, count, judged: count >= ENOUGH, byInterval,
    missing: missingAt(scene, plan, stretch, byInterval),
  }));
}

function missingAt(scene: Scene, plan: Plan, stretch: number, used: Record<string, IntervalCount>): IntervalName[] {
  const chord = scene.grounds[stretch]!.chord!;
  const unused = [...new Set(plan.cells[stretch]!.material)].filter((pc) => used[intervalOver(chord, pc)] === undefined);
  return unused.sort((a, b) => semitonesAboveRoot(chord, a) - semitonesAboveRoot(chord, b)).map((pc) => intervalOver(chord, pc));
}
