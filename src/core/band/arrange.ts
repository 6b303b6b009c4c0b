import { seededRandom, type BeatsPerMinute } from '../vocabulary';
import { beatsPerBar, harmonyOf, timelineOf, type Chart } from '../chart';
import { bassLine } from './bassLine';
import { comping } from './comping';
import { drumming } from './drumming';
import type { BandEvent } from './events';
import { bandFeel } from './feel';

export type ArrangeRequest = {
  readonly chart: Chart;
  readonly tempo: BeatsPerMinute;
  readonly choruses: number;
  readonly seed?: number;
  /** Bars of clicks before bar 1. */
  readonly countInBars?: number;
};

/** What the band plays: count-in, drums, bass and chords for so many choruses, and a last chord to end on. Same seed, same band. */
export function arrange({ chart, tempo, choruses, seed = 1, countInBars = 1 }: ArrangeRequest): BandEvent[] {
  const timeline = timelineOf(chart, tempo);
  const tune = { timeline, harmony: harmonyOf(chart, timeline), choruses };
  const feel = bandFeel(chart);
  const random = seededRandom(seed);
  const events = [
    ...countIn(beatsPerBar(chart.meter), countInBars), ...drumming(tune, feel, random), ...bassLine(tune, feel, random), ...comping(tune, feel, random),
  ];
  return events.sort((a, b) => a.beat - b.beat);
}

/** Clicks, the first of each bar accented. */
function countIn(beats: number, bars: number): BandEvent[] {
  return Array.from({ length: beats * bars }, (_, index) => ({
    part: 'click' as const, drum: index % beats === 0 ? ('click-accent' as const) : ('click' as const), beat: index - beats * bars, loudness: index % beats === 0 ? 0.8 : 0.6,
  }));
}
