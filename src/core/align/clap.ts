import { median, type Hz, type Seconds } from '../shared';
import { HighPass } from '../sound';

/** Strokes nearer to each other are one. */
const LEAST_GAP: Seconds = 0.18;
const FRAME: Seconds = 0.001;
/** A stroke rises so far over what went before it. */
const RISE = 4;
/** A stroke this long before its click, or after it, still belongs to it: hands come early, headphones late. */
const EARLIEST: Seconds = -0.12;
const LATEST: Seconds = 0.4;
const FEWEST = 8;

/**
 * When sharp strokes begin (claps, muted strums), in seconds: the place where the level rises over four times
 * what it was.
 */
export function strokesOf(samples: Float32Array, rate: Hz): Seconds[] {
  const bright = new HighPass(200, rate).process(samples);
  const size = Math.max(1, Math.round(FRAME * rate));
  const frames = Float64Array.from({ length: Math.floor(bright.length / size) }, (_, frame) => {
    let peak = 0;
    for (let n = frame * size; n < (frame + 1) * size; n++) peak = Math.max(peak, Math.abs(bright[n]!));
    return peak;
  });
  const loudest = frames.reduce((most, value) => Math.max(most, value), 0);
  const strokes: Seconds[] = [];
  let floor = loudest * 0.02;
  for (let frame = 1; frame < frames.length; frame++) {
    const value = frames[frame]!;
    const at = (frame * size) / rate;
    if (
      value > RISE * floor &&
      value > 0.12 * loudest &&
      at - (strokes[strokes.length - 1] ?? -1) > LEAST_GAP
    )
      strokes.push(at);
    floor = Math.max(loudest * 0.02, value > floor ? floor + 0.3 * (value - floor) : floor * 0.985);
  }
  return strokes;
}

export type Clapped = {
  readonly seconds: Seconds;
  /** Half of the claps lie this near to the median. */ readonly spreadSeconds: Seconds;
  readonly count: number;
};

/**
 * Latency by clapping or strumming along, for headphones that no microphone hears: the median of strokes
 * against their clicks. It holds the
 * player's own lean; people clap some 20 to 50 ms ahead of a click without noticing (Repp, Psychonomic
 * Bulletin & Review 2005).
 * @returns null where fewer than eight clicks had a stroke
 */
export function clappedLatency(strokes: readonly Seconds[], clicks: readonly Seconds[]): Clapped | null {
  const delays = clicks.flatMap((click) => {
    const near = strokes
      .filter((stroke) => stroke - click >= EARLIEST && stroke - click <= LATEST)
      .map((stroke) => stroke - click);
    return near.length > 0 ? [near.reduce((best, one) => (Math.abs(one) < Math.abs(best) ? one : best))] : [];
  });
  const middle = median(delays);
  if (middle === null || delays.length < FEWEST) return null;
  return {
    seconds: middle,
    spreadSeconds: median(delays.map((delay) => Math.abs(delay - middle)))!,
    count: delays.length,
  };
}
