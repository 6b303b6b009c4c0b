import { seededRandom, type Beats, type BeatsPerMinute, elementAt } from '../shared';
import { beatsPerBar, harmonyOf, timelineOf, type Chart, type Timeline, chorusAt } from '../chart';
import { bassLine } from './bass/bassLine';
import { drumming } from './drums/drumming';
import { ending } from './ending';
import type { BandEvent } from './events';
import { bandFeel } from './feel';
import { comping } from './keys/comping';

/** Which beats of a bar click while the band plays. */
export type ClickBeats = 'off' | 'every' | 'two-and-four' | 'one';
export const CLICK_BEATS: readonly ClickBeats[] = ['off', 'every', 'two-and-four', 'one'];

/** Where the band leaves the player alone. Choruses and bars count from 1; a bar is silent in every chorus. */
export type DropOut = { readonly choruses?: readonly number[]; readonly bars?: readonly number[] };

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

/** Is the player without the band at a beat? */
const aloneAt =
  (
    { bars, formBeats }: Pick<Timeline, 'bars' | 'formBeats'>,
    { choruses = [], bars: silent = [] }: DropOut,
  ) =>
  (beat: Beats): boolean => {
    const chorus = chorusAt({ formBeats }, beat);
    const inForm = beat - chorus * formBeats;
    return (
      choruses.includes(chorus + 1) ||
      silent.some(
        (bar) =>
          bars[bar - 1] !== undefined &&
          inForm >= elementAt(bars, bar - 1).start - 1e-6 &&
          inForm < elementAt(bars, bar - 1).end - 1e-6,
      )
    );
  };

/** The stretches where the band rests, from beat to beat of the take, neighbours joined. */
export function bandRests(
  timeline: Timeline,
  choruses: number,
  dropOut: DropOut,
): (readonly [Beats, Beats])[] {
  const alone = aloneAt(timeline, dropOut);
  const rests: [Beats, Beats][] = [];
  for (let chorus = 0; chorus < choruses; chorus++) {
    for (const bar of timeline.bars) {
      const [start, end] = [bar.start + chorus * timeline.formBeats, bar.end + chorus * timeline.formBeats];
      const last = rests[rests.length - 1];
      if (!alone(start)) continue;
      if (last && Math.abs(last[1] - start) < 1e-6) last[1] = end;
      else rests.push([start, end]);
    }
  }
  return rests;
}

/** Leaves out what begins in the silent choruses and bars, and cuts what would ring into them. */
function droppedOut(
  events: readonly BandEvent[],
  { bars, formBeats }: Timeline,
  { choruses = [], bars: silent = [] }: DropOut,
): BandEvent[] {
  if (choruses.length === 0 && silent.length === 0) return [...events];
  const alone = aloneAt({ bars, formBeats }, { choruses, bars: silent });
  return events
    .filter(({ beat }) => beat < 0 || !alone(beat))
    .map((event) => {
      if (!('beats' in event)) return event;
      const barEnd = Math.floor(event.beat) + 1;
      for (let beat = barEnd; beat < event.beat + event.beats; beat++)
        if (alone(beat)) return { ...event, beats: beat - event.beat };
      return event;
    });
}
