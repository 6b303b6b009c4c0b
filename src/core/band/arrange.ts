import { seededRandom, type Beats, type BeatsPerMinute } from '../shared';
import { beatsPerBar, harmonyOf, timelineOf, type Chart, type Timeline } from '../chart';
import { bassLine } from './bass/bassLine';
import { drumming } from './drums/drumming';
import { droppedOut, type DropOut } from './dropOut';
import { ending } from './ending';
import type { BandEvent } from './events';
import { bandFeel } from './feel';
import { comping } from './keys/comping';

/** Which beats of a bar click while the band plays. */
export type ClickBeats = 'off' | 'every' | 'two-and-four' | 'one';
export const CLICK_BEATS: readonly ClickBeats[] = ['off', 'every', 'two-and-four', 'one'];

export type ArrangeRequest = {
  readonly chart: Chart;
  readonly tempo: BeatsPerMinute;
  readonly choruses: number;
  readonly seed?: number;
  /** Bars of clicks before bar 1. */
  readonly countInBars?: number;
  readonly click?: ClickBeats;
  readonly dropOut?: DropOut;
  /** A last chord after the last chorus; true by default. */
  readonly ends?: boolean;
};

/**
 * What the band plays: count-in, drums, bass and chords for so many choruses, and a last chord to end on. Same
 * seed, same band.
 */
export function arrange({
  chart,
  tempo,
  choruses,
  seed = 1,
  countInBars = 1,
  click = 'off',
  dropOut = {},
  ends = true,
}: ArrangeRequest): BandEvent[] {
  const timeline = timelineOf(chart, tempo);
  const tune = { timeline, harmony: harmonyOf(chart, timeline), choruses };
  const feel = bandFeel(chart);
  // each part has its own numbers: another fill does not change the bass
  const part = (nth: number) => seededRandom(seed * 31 + nth);
  const band = [
    ...drumming(tune, feel, part(1)),
    ...bassLine(tune, feel, part(2)),
    ...comping(tune, feel, part(3)),
    ...(ends ? ending(tune) : []),
  ];
  const events = [
    ...countIn(beatsPerBar(chart.meter), countInBars),
    ...clicks(timeline, choruses, click),
    ...droppedOut(band, timeline, dropOut),
  ];
  return events.sort((a, b) => a.beat - b.beat);
}

const clickAt = (beat: Beats, accent: boolean): BandEvent => ({
  part: 'click',
  drum: accent ? 'click-accent' : 'click',
  beat,
  loudness: accent ? 0.8 : 0.6,
});

/** Clicks, the first of each bar accented. */
function countIn(beats: number, bars: number): BandEvent[] {
  return Array.from({ length: beats * bars }, (_, index) =>
    clickAt(index - beats * bars, index % beats === 0),
  );
}

function clicks({ bars, formBeats }: Timeline, choruses: number, which: ClickBeats): BandEvent[] {
  if (which === 'off') return [];
  const wanted = (place: number) => {
    if (which === 'every') return true;
    if (which === 'one') return place === 0;
    return place % 2 === 1;
  };
  return Array.from({ length: choruses }, (_, chorus) =>
    bars.flatMap(({ start, end }) =>
      Array.from({ length: Math.round(end - start) }, (_, place) => place)
        .filter(wanted)
        .map((place) => clickAt(chorus * formBeats + start + place, which === 'every' && place === 0)),
    ),
  ).flat();
}
