/** A small feed-forward network: weights of each layer, `rows` outputs by `columns` inputs, and its biases. */
export type NetworkLayer = {
  readonly rows: number;
  readonly columns: number;
  readonly weights: Float64Array;
  readonly biases: Float64Array;
};

/** What a feature is taken from and divided by before it meets the first layer. */
export type Network = {
  readonly mean: Float64Array;
  readonly spread: Float64Array;
  readonly layers: readonly NetworkLayer[];
  /** Where the features and then each layer's outputs are written, anew for each claim. */
  readonly outputs: readonly Float64Array[];
};

const LEAK = 0.1;
const SURE = 6;

/**
 * The logarithm of the odds that a claim holds: networks fitted from different beginnings are averaged before the
 * logistic end.
 */
export function logOdds(networks: readonly Network[], features: Float64Array): number {
  let sum = 0;
  for (const [index, network] of networks.entries()) {
    sum += leaning(network, features);
    // most claims are hopeless and most others certain: the other networks need not be asked
    if (Math.abs(sum) > SURE * (index + 1)) return sum / (index + 1);
  }
  return sum / networks.length;
}

/** The probability that stands for the logarithm of odds. */
export const probabilityOf = (odds: number): number => 1 / (1 + Math.exp(-odds));

/**
 * What one network says, before the logistic end. Hidden units are leaky rectifiers (Goodfellow et al., Deep
 * Learning, chapter 6).
 */
function leaning({ mean, spread, layers, outputs }: Network, features: Float64Array): number {
  let values = outputs[0]!;
  for (let index = 0; index < mean.length; index++)
    values[index] = (features[index]! - mean[index]!) / spread[index]!;
  for (const [depth, layer] of layers.entries()) {
    const next = outputs[depth + 1]!;
    weigh(layer, values, next);
    if (depth < layers.length - 1)
      for (let row = 0; row < layer.rows; row++) if (next[row]! < 0) next[row]! *= LEAK;
    values = next;
  }
  return values[0]!;
}

/** Weights times what came in, plus biases; four rows at once, so that each value is read once for all of them. */
function weigh(
  { rows, columns, weights, biases }: NetworkLayer,
  values: Float64Array,
  out: Float64Array,
): void {
  let row = 0;
  for (; row + 3 < rows; row += 4) {
    const first = row * columns;
    const second = first + columns;
    const third = second + columns;
    const fourth = third + columns;
    let sum1 = biases[row]!;
    let sum2 = biases[row + 1]!;
    let sum3 = biases[row + 2]!;
    let sum4 = biases[row + 3]!;
    for (let column = 0; column < columns; column++) {
      const value = values[column]!;
      sum1 += weights[first + column]! * value;
      sum2 += weights[second + column]! * value;
      sum3 += weights[third + column]! * value;
      sum4 += weights[fourth + column]! * value;
    }
    out[row] = sum1;
    out[row + 1] = sum2;
    out[row + 2] = sum3;
    out[row + 3] = sum4;
  }
  for (; row < rows; row++) {
    let sum = biases[row]!;
    for (let column = 0; column < columns; column++)
      sum += weights[row * columns + column]! * values[column]!;
    out[row] = sum;
  }
}

/**
 * Reads a network from its packed form, in base 64: as 32-bit floats, little end first, mean and spread and of each layer
 * a scale for each row and the biases; then all weights as signed bytes, in steps of their row's scale. What is lost by
 * that is less than one network differs from another fitted from a different beginning.
 */
export function unpack({ sizes, packed }: { sizes: readonly number[]; packed: string }): Network {
  const { buffer } = bytesOf(packed);
  const count = 2 * sizes[0]! + 2 * sizes.slice(1).reduce((sum, rows) => sum + rows, 0);
  const [floats, steps] = [new Float32Array(buffer, 0, count), new Int8Array(buffer, 4 * count)];
  let [at, weight] = [0, 0];
  // as doubles: turning each weight into one again for each claim takes longer than the sum
  const take = (values: number) => Float64Array.from(floats.subarray(at, (at += values)));
  const [mean, spread] = [take(sizes[0]!), take(sizes[0]!)];
  const layers = sizes.slice(1).map((rows, index): NetworkLayer => {
    const columns = sizes[index]!;
    const [scales, biases] = [take(rows), take(rows)];
    const weights = new Float64Array(rows * columns);
    for (let n = 0; n < weights.length; n++) weights[n] = steps[weight++]! * scales[Math.floor(n / columns)]!;
    return { rows, columns, weights, biases };
  });
  return { mean, spread, layers, outputs: sizes.map((size) => new Float64Array(size)) };
}

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
const SIXES = Uint8Array.from({ length: 128 }, (_, code) =>
  Math.max(0, LETTERS.indexOf(String.fromCharCode(code))),
);

/** Base 64 (RFC 4648) to bytes; the core has neither a browser's nor a server's own. */
function bytesOf(packed: string): Uint8Array<ArrayBuffer> {
  const length = packed.replace(/=+$/, '').length;
  const bytes = new Uint8Array(Math.floor((length * 3) / 4));
  for (let letter = 0, at = 0, bits = 0; letter < length; letter++) {
    bits = ((bits << 6) | SIXES[packed.charCodeAt(letter)]!) & 0xffffff;
    if (letter % 4 > 0) bytes[at++] = (bits >> (6 - 2 * (letter % 4))) & 0xff;
  }
  return bytes;
}
