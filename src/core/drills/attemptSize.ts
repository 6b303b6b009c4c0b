import { changesOf, readChart, timelineOf } from '../chart';
import { beatsToSeconds, unwrap } from '../shared';
import { isAtChanges, type Drill } from './drill';

/** How often the bars go round in one attempt, how many places that gives, and how many of them pass. */
export type AttemptSize = {
  readonly passes: number;
  readonly places: number;
  readonly pass: number;
  readonly seconds: number;
};

/**
 * About a dozen places are enough to tell, and no attempt is longer than this: several of them fit into five
 * minutes.
 */
const PLACES = 12;
const LONGEST_SECONDS = 75;

export function attemptSize(drill: Drill, tempo = drill.tempo): AttemptSize {
  const chart = unwrap(readChart(drill.chartText));
  const timeline = timelineOf(chart, tempo);
  const each = isAtChanges(drill.rule)
    ? changesOf(timeline, 2).length - changesOf(timeline, 1).length
    : chart.bars.length;
  const pass = beatsToSeconds(timeline.formBeats, tempo);
  const passes = Math.max(
    1,
    Math.min(Math.ceil(PLACES / Math.max(1, each)), Math.floor(LONGEST_SECONDS / pass)),
  );
  // nothing changes before the first chord of the first pass
  const places = isAtChanges(drill.rule) ? changesOf(timeline, passes).length : each * passes;
  return { passes, places, pass: Math.ceil(drill.pass * places - 1e-9), seconds: pass * passes };
}
