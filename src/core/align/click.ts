import { seededRandom, type Hz, type Seconds } from '../shared';

/**
 * A click that is found to a fraction of a sample: a short sweep, as loud at its beginning as a loudspeaker
 * and a pickup can follow.
 */
const SWEEP = { from: 700, to: 7_000, seconds: 0.012 } as const;
/**
 * Clicks stand so far apart that the longest delay cannot be taken for the next one, and not evenly: an echo
 * of the room never fits all.
 */
const APART: Seconds = 0.45;
const UNEVEN: Seconds = 0.08;

/** Longest delay that can be told: a wireless headphone has less. */
export const LONGEST_DELAY: Seconds = 0.4;

/** A linear sweep under a raised cosine, peak 1. */
export function clickSound(rate: Hz): Float32Array {
  const length = Math.round(SWEEP.seconds * rate);
  const rise = (SWEEP.to - SWEEP.from) / SWEEP.seconds;
  return Float32Array.from({ length }, (_, n) => {
    const time = n / rate;
    return (
      Math.sin(2 * Math.PI * (SWEEP.from * time + (rise / 2) * time * time)) *
      (0.5 - 0.5 * Math.cos((2 * Math.PI * n) / (length - 1)))
    );
  });
}

/** When so many clicks begin, in seconds from the first. */
export function clickTimes(count: number, seed = 1): Seconds[] {
  const random = seededRandom(seed);
  const times: Seconds[] = [];
  for (let index = 0, at = 0; index < count; index++, at += APART + UNEVEN * random()) times.push(at);
  return times;
}
