import { chorusAt, type Chart, type Harmony, type Timeline } from '../chart';
import type { Plan } from '../plan';
import type { Recipe } from './recipe';
import { elementAt } from '../shared';

/** The bars an example is made over, so often, with everything that is known of their harmony. */
export type DrillContext = {
  readonly chart: Chart;
  readonly timeline: Timeline;
  readonly plan: Plan;
  readonly harmony: Harmony;
  readonly recipe: Recipe;
  readonly end: number;
  readonly choruses: number;
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
