import type { BendCurve, PlayedNote } from '../../analyse';
import { elementAt, type Cents, type Hz, type Seconds } from '../../shared';

/** How long the finger stays on the fret a slide comes from. */
const BEFORE_SLIDE: Seconds = 0.03;
/** A pitch that moves is followed in steps of this. */
const STEP: Seconds = 0.001;

/** How a note's pitch moves, in cents over its own; null where the string is left alone. */
export function curveOf({ midi, bend, slide }: PlayedNote): BendCurve | null {
  if (bend && bend.length > 0) return bend;
  if (!slide) return null;
  const from = 100 * (slide.fromMidi - midi);
  return [
    [0, from],
    [BEFORE_SLIDE, from],
    [BEFORE_SLIDE + slide.seconds, 0],
  ];
}

/** Straight between its points, held before the first and after the last. */
function centsAt(curve: BendCurve, time: Seconds): Cents {
  const after = curve.findIndex(([at]) => at > time);
  if (after === 0) return elementAt(curve, 0)[1];
  if (after < 0) return elementAt(curve, curve.length - 1)[1];
  const [[t0, c0], [t1, c1]] = [elementAt(curve, after - 1), elementAt(curve, after)];
  return c0 + ((time - t0) / (t1 - t0)) * (c1 - c0);
}

const speedAt = (curve: BendCurve, time: Seconds): number => 2 ** (centsAt(curve, time) / 1200);

/** How long a string of steady pitch has to sound, so that read along the curve it sounds for so long. */
export function heldThrough(curve: BendCurve, held: Seconds): Seconds {
  let sum = 0;
  for (let time = 0; time < held; time += STEP) sum += speedAt(curve, time) * Math.min(STEP, held - time);
  return sum;
}

/** A string read faster where it is pulled up and slower where it is let down. */
export function alongCurve(string: Float32Array, curve: BendCurve, rate: Hz): Float32Array {
  const read: number[] = [];
  const step = Math.max(1, Math.round(STEP * rate));
  let speed = 1;
  for (let at = 0; at < string.length - 1; at += speed) {
    if (read.length % step === 0) speed = speedAt(curve, read.length / rate);
    const whole = Math.floor(at);
    const here = elementAt(string, whole);
    read.push(here + (at - whole) * (elementAt(string, whole + 1) - here));
  }
  return Float32Array.from(read);
}
