import type { Chord } from '../music';
import { isOnStrongBeat, soundingAt, type BarSpan, type Harmony, type Timeline } from '../chart';
import { elementAt, type Beats, present } from '../shared';

/** Everything the parts of the band read. */
export type WalkForm = { readonly timeline: Timeline; readonly harmony: Harmony; readonly choruses: number };

/** A chord as the band meets it: absolute beats, and the chord that follows. */
export type WalkStop = {
  readonly chord: Chord;
  readonly next: Chord | null;
  readonly start: Beats;
  readonly end: Beats;
  readonly scale: readonly number[];
  /** The next chord is bar 1 again. */ readonly home: boolean;
};

/** The chords of all choruses in order; silence where the chart says N.C. */
export function stopsOf({ timeline, harmony, choruses }: WalkForm): WalkStop[] {
  const stops: WalkStop[] = [];
  for (let chorus = 0; chorus < choruses; chorus++)
    timeline.chordSpans.forEach((stretch, index) => {
      const offset = chorus * timeline.formBeats;
      const following = elementAt(timeline.chordSpans, (index + 1) % timeline.chordSpans.length);
      if (!stretch.chord) return;
      stops.push({
        chord: stretch.chord,
        next: following.chord,
        start: stretch.start + offset,
        end: stretch.end + offset,
        scale: present(harmony.readings[index]).scale.pcs,
        home: index === timeline.chordSpans.length - 1,
      });
    });
  return stops;
}

/** A bar of one chorus in absolute beats. */
export type WalkedBar = {
  readonly start: Beats;
  readonly end: Beats;
  readonly span: BarSpan;
  readonly chorus: number;
  /** The last bar of the form, and of a section (or of eight bars). */ readonly last: boolean;
  readonly section: boolean;
};

/** Bars of all choruses with the beats they hold. */
export function barsOf({ timeline, choruses }: WalkForm): WalkedBar[] {
  return Array.from({ length: choruses }, (_, chorus) => chorus).flatMap((chorus) =>
    timeline.bars.map((span) => {
      const last = span.index === timeline.bars.length - 1;
      return {
        start: span.start + chorus * timeline.formBeats,
        end: span.end + chorus * timeline.formBeats,
        span,
        chorus,
        last,
        section: last || timeline.bars[span.index + 1]?.section !== span.section || span.index % 8 === 7,
      };
    }),
  );
}

export const isStrong = (timeline: Timeline, beat: Beats): boolean => isOnStrongBeat(timeline, beat, 0.01);
export const chordAt = ({ timeline }: WalkForm, beat: Beats): Chord | null =>
  soundingAt(timeline, beat).span.chord;
