/** A small feed-forward network: weights of each layer, `rows` outputs by `columns` inputs, and its biases. */
export type NetworkLayer = {
  readonly rows: number;
  readonly columns: number;
  readonly weights: Float32Array;
  readonly biases: Float32Array;
};

/** What a feature is taken from and divided by before it meets the first layer. */
export type Network = {
  readonly mean: Float32Array;
  readonly spread: Float32Array;
  readonly layers: readonly NetworkLayer[];
};

const LEAK = 0.1;
const HOPELESS = -7;

/**
 * The probability that a claim holds: networks fitted from different beginnings are averaged before the
 * logistic end.
 */
export function classify(networks: readonly Network[], features: Float64Array): number {
  let sum = 0;
  for (const [index, network] of networks.entries()) {
    sum += leaning(network, features);
    // most claims are hopeless: the other networks need not be asked
    if (sum < HOPELESS) return 1 / (1 + Math.exp(-sum / (index + 1)));
  }
  return 1 / (1 + Math.exp(-sum / networks.length));
}

/**
 * What one network says, before the logistic end. Hidden units are leaky rectifiers (Goodfellow et al., Deep
 * Learning, chapter 6).
 */
function leaning({ mean, spread, layers }: Network, features: Float64Array): number {
  let values: Float64Array = features.map((value, index) => (value - mean[index]!) / spread[index]!);
  layers.forEach((layer, depth) => {
    const last = depth === layers.length - 1;
    const next = new Float64Array(layer.rows);
    for (let row = 0; row < layer.rows; row++) {
      let sum = layer.biases[row]!;
      for (let column = 0; column < layer.columns; column++)
        sum += layer.weights[row * layer.columns + column]! * values[column]!;
      next[row] = last || sum > 0 ? sum : LEAK * sum;
    }
    values = next;
  });
  return values[0]!;
}

/**
 * Reads a network from its packed form: 32-bit floats in base 64, little end first, mean and spread and then
 * layer by layer.
 */
export function unpack({ sizes, packed }: { sizes: readonly number[]; packed: string }): Network {
  const floats = new Float32Array(bytesOf(packed).buffer);
  let at = 0;
  const take = (count: number) => floats.subarray(at, (at += count));
  const [mean, spread] = [take(sizes[0]!), take(sizes[0]!)];
  const layers = sizes.slice(1).map((rows, index): NetworkLayer => ({
    rows,
    columns: sizes[index]!,
    weights: take(rows * sizes[index]!),
    biases: take(rows),
  }));
  return { mean, spread, layers };
}

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';

/** Base 64 (RFC 4648) to bytes; the core has neither a browser's nor a server's own. */
function bytesOf(packed: string): Uint8Array<ArrayBuffer> {
  const length = packed.replace(/=+$/, '').length;
  const bytes = new Uint8Array(Math.floor((length * 3) / 4));
  for (let letter = 0, at = 0, bits = 0; letter < length; letter++) {
    bits = ((bits << 6) | LETTERS.indexOf(packed[letter]!)) & 0xffffff;
    if (letter % 4 > 0) bytes[at++] = (bits >> (6 - 2 * (letter % 4))) & 0xff;
  }
  return bytes;
}
