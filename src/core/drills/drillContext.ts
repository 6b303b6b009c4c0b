import { chorusAt, type Chart, type Harmony, type Timeline } from '../chart';
import type { Level } from '../lines';
import type { Plan } from '../plan';
import { elementAt, type BeatsPerMinute, type PitchClass } from '../shared';
import type { Recipe } from './recipe';

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
  /** The tones that an example has to say over a chord of the form in a chorus. */
  readonly wished: (span: number, chorus: number) => readonly PitchClass[];
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
