/** Straight up to here, then bent: what is added up never reaches full scale. */
const STRAIGHT = 0.8;
/** The curve reaches this far: two parts at their loudest. */
const RANGE = 2;
const POINTS = 4097;

/** A sample as the limiter lets it through. */
export function limited(sample: number): number {
  const size = Math.abs(sample);
  if (size <= STRAIGHT) return sample;
  const room = 1 - STRAIGHT;
  return Math.sign(sample) * (STRAIGHT + room * Math.tanh((size - STRAIGHT) / room));
}

/** Keeps everything that is connected to it below full scale, without any delay. */
export function limiterOn(context: AudioContext): AudioNode {
  const curve = Float32Array.from({ length: POINTS }, (_, point) =>
    limited(RANGE * ((2 * point) / (POINTS - 1) - 1)),
  );
  const shaper = new WaveShaperNode(context, { curve });
  shaper.connect(context.destination);
  const inRange = new GainNode(context, { gain: 1 / RANGE });
  inRange.connect(shaper);
  return inRange;
}
