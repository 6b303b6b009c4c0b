import { secondsToBeats, type Beats, type BeatsPerMinute } from '../../shared';

/** Comparisons of beats allow this much for rounding. */
export const EPSILON = 1e-6;

/** The windows of T1.3, T4.3, T4.4 and T5.2, in beats at a tempo. */
export type Windows = {
  /** "On a beat", "on a change": max(0.12 beat, 60 ms). */
  readonly on: Beats;
  /** A note belongs to the chord at onset + tol: min(on, 0.25 beat). */
  readonly tol: Beats;
  /** An anticipation reaches back: min(1.1 beat, max(0.6 beat, 250 ms)). */
  readonly reach: Beats;
  /** Onsets this close, struck before any other ends, are one event: 50 ms. */
  readonly event: Beats;
  /** Grace notes are shorter than min(0.2 beat, 90 ms) … */
  readonly grace: Beats;
  /** … and followed within 30 ms. */
  readonly graceGap: Beats;
};

export function windowsAt(tempo: BeatsPerMinute): Windows {
  const ms = (milliseconds: number) => secondsToBeats(milliseconds / 1000, tempo);
  const on = Math.max(0.12, ms(60));
  return {
    on,
    tol: Math.min(on, 0.25),
    reach: Math.min(1.1, Math.max(0.6, ms(250))),
    event: ms(50),
    grace: Math.min(0.2, ms(90)),
    graceGap: ms(30),
  };
}
