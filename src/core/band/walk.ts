import type { Beats } from '../vocabulary';
import type { Chord } from '../music';
import { isOnStrongBeat, soundingAt, type Harmony, type Timeline } from '../chart';

/** Everything the parts of the band read. */
export type Tune = { readonly timeline: Timeline; readonly harmony: Harmony; readonly choruses: number };

/** A chord as the band meets it: absolute beats, and the chord that follows. */
export type Stop = { readonly chord: Chord; readonly next: Chord | null; readonly start: Beats; readonly end: Beats; readonly scale: readonly number[] };

/** The chords of all choruses in order; silence where the chart says N.C. */
export function stopsOf({ timeline, harmony, choruses }: Tune): Stop[] {
  const stops: Stop[] = [];
  for (let chorus = 0; chorus < choruses; chorus++)
    timeline.stretches.forEach((stretch, index) => {
      const offset = chorus * timeline.formBeats;
      const following = timeline.stretches[(index + 1) % timeline.stretches.length]!;
      const last = chorus === choruses - 1 && index === timeline.stretches.length - 1;
      if (!stretch.chord) return;
      stops.push({ chord: stretch.chord, next: last ? timeline.stretches[0]!.chord : following.chord, start: stretch.start + offset, end: stretch.end + offset, scale: harmony.readings[index]!.scale.pcs });
    });
  return stops;
}

/** Bars of all choruses with the beats they hold. */
export function barsOf({ timeline, choruses }: Tune): { start: Beats; end: Beats; index: number; last: boolean; section: boolean }[] {
  return Array.from({ length: choruses }, (_, chorus) => chorus).flatMap((chorus) =>
    timeline.bars.map((bar) => ({
      start: bar.start + chorus * timeline.formBeats, end: bar.end + chorus * timeline.formBeats, index: bar.index,
      last: bar.index === timeline.bars.length - 1, section: timeline.bars[bar.index + 1]?.section !== bar.section || bar.index % 8 === 7,
    })));
}

export const isStrong = (timeline: Timeline, beat: Beats): boolean => isOnStrongBeat(timeline, beat, 0.01);
export const chordAt = ({ timeline }: Tune, beat: Beats): Chord | null => soundingAt(timeline, beat).stretch.chord;
