import {
  beatsToSeconds,
  secondsToBeats,
  type Beats,
  type BeatsPerMinute,
  type Seconds,
  defined,
} from '../shared';

/**
 * How fast a take is played: one tempo for every pass of so many beats. The last one holds on; before bar 1
 * the first one counts.
 */
export type Pace = { readonly passBeats: Beats; readonly tempi: readonly BeatsPerMinute[] };

/** One tempo throughout. */
export const steady = (tempo: BeatsPerMinute): Pace => ({ passBeats: 1, tempi: [tempo] });

const passAt = ({ passBeats, tempi }: Pace, beat: Beats): number =>
  Math.max(0, Math.min(tempi.length - 1, Math.floor(beat / passBeats + 1e-9)));

export const tempoAt = (pace: Pace, beat: Beats): BeatsPerMinute => defined(pace.tempi[passAt(pace, beat)]);

/** Seconds from beat 0 to a beat; negative before it. */
export function secondsAt(pace: Pace, beat: Beats): Seconds {
  const pass = passAt(pace, beat);
  let seconds = 0;
  for (let before = 0; before < pass; before++)
    seconds += beatsToSeconds(pace.passBeats, defined(pace.tempi[before]));
  return seconds + beatsToSeconds(beat - pass * pace.passBeats, defined(pace.tempi[pass]));
}

/** The beat that sounds so many seconds after beat 0: the inverse of `secondsAt`. */
export function beatAt(pace: Pace, seconds: Seconds): Beats {
  let from = 0;
  for (let pass = 0; pass < pace.tempi.length - 1; pass++) {
    const lasts = beatsToSeconds(pace.passBeats, defined(pace.tempi[pass]));
    if (seconds < from + lasts)
      return pass * pace.passBeats + secondsToBeats(seconds - from, defined(pace.tempi[pass]));
    from += lasts;
  }
  const last = pace.tempi.length - 1;
  return last * pace.passBeats + secondsToBeats(seconds - from, defined(pace.tempi[last]));
}

/** The one tempo that takes as long over all passes: by it a take that speeds up is judged. */
export function meanTempo({ tempi }: Pace): BeatsPerMinute {
  return tempi.length / tempi.reduce((sum, tempo) => sum + 1 / tempo, 0);
}
