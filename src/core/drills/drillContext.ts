import { chorusAt, type Chart, type Harmony, type Timeline } from '../chart';
import type { Level } from '../lines';
import type { Plan } from '../plan';
import { elementAt, type Beats, type BeatsPerMinute, type PitchClass } from '../shared';
import type { Recipe } from './recipe';
import type { MustRule } from './rules/must';

/** The bars an example is made over, so often, with everything that is known of their harmony. */
export type DrillContext = {
  readonly chart: Chart;
  readonly timeline: Timeline;
  readonly tempo: BeatsPerMinute;
  readonly level: Level;
  readonly plan: Plan;
  readonly harmony: Harmony;
  readonly recipe: Recipe;
  readonly end: number;
  readonly choruses: number;
  /** Tones that have to be said over each chord. */
  readonly musts: readonly MustRule[];
};

/** The chord that sounds at a beat, and where it began and ends. */
export function chordAt({ timeline }: Pick<DrillContext, 'timeline'>, beat: number) {
  const chorus = chorusAt(timeline, beat);
  const inForm = Math.max(0, beat - chorus * timeline.formBeats);
  const stretch =
    timeline.chordSpans.findLast(({ start }) => start <= inForm + 1e-6) ?? elementAt(timeline.chordSpans, 0);
  return {
    stretch,
    chorus,
    start: chorus * timeline.formBeats + stretch.start,
    end: chorus * timeline.formBeats + stretch.end,
  };
}

/** How long a last note may be held: not over a change, unless it would be cut to less than a beat. */
export function heldFor(scene: Pick<DrillContext, 'timeline'>, beat: Beats, wanted: Beats): Beats {
  const left = chordAt(scene, beat).end - beat - 0.05;
  return left >= 0.95 ? Math.min(wanted, left) : wanted;
}

/** Pitch classes that neither the chord, its scale nor the home scale holds. */
export function outsideAt(
  scene: Pick<DrillContext, 'timeline' | 'harmony'>,
  beat: Beats,
): readonly PitchClass[] {
  const { stretch } = chordAt(scene, beat);
  const inside = [
    ...(scene.harmony.readings[stretch.index]?.scale.pcs ?? []),
    ...elementAt(scene.harmony.homeScales, stretch.index).pcs,
    ...(stretch.chord?.tones.map(({ pc }) => pc) ?? []),
  ];
  return Array.from({ length: 12 }, (_, pc) => pc).filter((pc) => !inside.includes(pc));
}
