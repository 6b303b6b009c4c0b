import { elementAt, type Beats } from '../shared';
import { chorusAt, type Timeline } from '../chart';
import type { BandEvent } from './events';

/** Where the band leaves the player alone. Choruses and bars count from 1; a bar is silent in every chorus. */
export type DropOut = { readonly choruses?: readonly number[]; readonly bars?: readonly number[] };

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
export function droppedOut(
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
