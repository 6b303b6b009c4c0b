import type { Samples } from '../shared';
import { RealTransform } from './realTransform';

/** Of a product: one factor more of a thousand is still a number. */
const NEARLY_TOO_LARGE = 1e300;

/**
 * Onset strength: positive log-magnitude flux with a maximum filter over neighbouring bins, so that vibrato
 * does not count as
 * attacks (Böck and Widmer, "Maximum filter vibrato suppression for onset detection", DAFx 2013).
 */
export class SpectralFlux {
  private readonly transform: RealTransform;
  private readonly taper: Float64Array;
  private readonly history: Float64Array[] = [];
  private spare: Float64Array;
  private loudest = 1e-4;

  /**
   * @param size window in samples, a power of two
   * @param lag frames between the spectra compared
   */
  constructor(
    readonly size: Samples,
    lag: number,
  ) {
    this.transform = RealTransform.of(size);
    // before the first frame there was silence: a take may begin on a note
    for (let frame = 0; frame < lag; frame++) this.history.push(new Float64Array(size / 2).fill(1));
    this.spare = new Float64Array(size / 2);
    this.taper = Float64Array.from(
      { length: size },
      (_, n) => 0.5 - 0.5 * Math.cos((2 * Math.PI * n) / size),
    );
  }

  /** Mean rise per bin in log units against the frame `lag` before; frames come in order. */
  next(samples: Float32Array, from: Samples): number {
    const { taper } = this;
    const { real } = this.transform;
    for (let n = 0; n < this.size; n++) real[n] = samples[from + n]! * taper[n]!;
    const spectrum = this.transform.forward();
    const bins = this.size / 2;
    // the oldest spectrum's place is used again once it has been compared: fresh buffers for every frame
    // keep the collector busy
    const before = this.history.shift()!;
    const magnitudes = this.spare;
    let peak = 0;
    for (let k = 1; k < bins; k++) {
      // Math.hypot takes several times as long, for numbers much larger than these
      magnitudes[k] = Math.sqrt(spectrum[2 * k]! ** 2 + spectrum[2 * k + 1]! ** 2);
      if (magnitudes[k]! > peak) peak = magnitudes[k]!;
    }
    // the floor follows the loudest sound of the last seconds: the measure does not depend on the input's gain
    this.loudest = Math.max(peak, this.loudest * 0.9997, 1e-4);
    const floor = this.loudest * 0.003;
    for (let k = 1; k < bins; k++) magnitudes[k] = 1 + magnitudes[k]! / floor;
    this.history.push(magnitudes);
    this.spare = before;
    // the logarithms of the rises are added up as that of their product
    let [rise, product] = [0, 1];
    for (let k = 2; k < bins - 1; k++) {
      const most = Math.max(before[k - 1]!, before[k]!, before[k + 1]!);
      if (magnitudes[k]! <= most) continue;
      product *= magnitudes[k]! / most;
      if (product < NEARLY_TOO_LARGE) continue;
      rise += Math.log(product);
      product = 1;
    }
    return (rise + Math.log(product)) / bins;
  }
}
