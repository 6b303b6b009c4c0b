import type { PlayedNote } from '../analyse';
import type { ChordSpan } from '../chart';
import type { PitchSlot } from '../lines';
import { elementAt, type Beats } from '../shared';
import type { DrillContext } from './drillContext';

/** Pitches for slots; null where no line fits. */
export type Fill = (slots: readonly PitchSlot[], seed: number) => PlayedNote[] | null;

export type MusicBar = {
  readonly start: Beats;
  readonly beats: Beats;
  /** The chord, where it is one for the whole bar. */
  readonly single: ChordSpan | null;
};

/** The bars of all choruses. */
export function barsOf({ timeline, choruses }: DrillContext): MusicBar[] {
  return Array.from({ length: choruses }, (_, chorus) =>
    timeline.bars.map(({ start, end }): MusicBar => {
      const inside = timeline.chordSpans.filter(
        (stretch) => stretch.start < end - 1e-6 && stretch.end > start + 1e-6,
      );
      return {
        start: chorus * timeline.formBeats + start,
        beats: end - start,
        single: inside.length === 1 && elementAt(inside, 0).chord ? elementAt(inside, 0) : null,
      };
    }),
  ).flat();
}
