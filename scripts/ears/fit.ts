import { readFileSync, writeFileSync } from 'node:fs';
import { gaussian, seededRandom, elementAt } from '@/core/shared';

/**
 * Fits the judge to collected examples by gradient descent with Adam (Kingma and Ba, ICLR 2015) on the
 * cross-entropy, and writes it
 * as JSON. A tenth of the takes, of every source, is kept aside: the network that does best on them is written.
 */
const [out, hiddenText, epochsText, ...files] = process.argv.slice(2) as [
  string,
  string,
  string,
  ...string[],
];
const hidden = hiddenText.split(',').map(Number);
const epochs = Number(epochsText);
const random = seededRandom(Number(process.env.SEED ?? 1));
const WIDTH = Number(process.env.WIDTH ?? 111);
const ROW = WIDTH + 2;
const BATCH = 128;
const LEAK = 0.1;
const LIMIT = 4;

const data = new Float32Array(files.reduce((sum, file) => sum + readFileSync(file).length / 4, 0));
files.reduce((at, file) => {
  const bytes = readFileSync(file);
  data.set(new Float32Array(bytes.buffer, bytes.byteOffset, bytes.length / 4), at);
  return at + bytes.length / 4;
}, 0);
for (let at = 0; at < data.length; at++)
  if (at % ROW > 1) data[at] = Math.max(-LIMIT, Math.min(LIMIT, elementAt(data, at)));
const rows = Array.from({ length: data.length / ROW }, (_, row) => row * ROW).filter((at) => data[at] !== 2);
const isAside = (at: number) => (elementAt(data, at + 1) * 7919) % 101 < 10;
const train = rows.filter((at) => !isAside(at));
const aside = rows.filter(isAside);

const mean = new Float32Array(WIDTH);
const spread = new Float32Array(WIDTH);
for (let f = 0; f < WIDTH; f++) {
  let [sum, squares] = [0, 0];
  for (const at of train) sum += elementAt(data, at + 2 + f);
  mean[f] = sum / train.length;
  for (const at of train) squares += (elementAt(data, at + 2 + f) - elementAt(mean, f)) ** 2;
  spread[f] = Math.max(0.02, Math.sqrt(squares / train.length));
}
for (const at of rows)
  for (let f = 0; f < WIDTH; f++)
    data[at + 2 + f] = (data[at + 2 + f]! - elementAt(mean, f)) / elementAt(spread, f);

const sizes = [WIDTH, ...hidden, 1];
type Part = {
  readonly rows: number;
  readonly columns: number;
  w: Float32Array;
  b: Float32Array;
  gw: Float32Array;
  gb: Float32Array;
  mw: Float32Array;
  vw: Float32Array;
  mb: Float32Array;
  vb: Float32Array;
};
const parts: Part[] = sizes.slice(1).map((rows, index) => {
  const columns = elementAt(sizes, index);
  const w = Float32Array.from({ length: rows * columns }, () => gaussian(random) * Math.sqrt(2 / columns));
  const same = () => new Float32Array(rows * columns);
  return {
    rows,
    columns,
    w,
    b: new Float32Array(rows),
    gw: same(),
    gb: new Float32Array(rows),
    mw: same(),
    vw: same(),
    mb: new Float32Array(rows),
    vb: new Float32Array(rows),
  };
});
const values = sizes.map((size) => new Float32Array(size));
const errors = sizes.map((size) => new Float32Array(size));

/** These two are where a fit spends its time: plain indices, all within bounds. */
function dot(w: Float32Array, base: number, input: Float32Array): number {
  const whole = input.length & ~3;
  let [one, two, three, four] = [0, 0, 0, 0];
  for (let n = 0; n < whole; n += 4) {
    one += w[base + n]! * input[n]!;
    two += w[base + n + 1]! * input[n + 1]!;
    three += w[base + n + 2]! * input[n + 2]!;
    four += w[base + n + 3]! * input[n + 3]!;
  }
  for (let n = whole; n < input.length; n++) one += w[base + n]! * input[n]!;
  return one + two + three + four;
}

function addScaled(
  to: Float32Array,
  at: number,
  scale: number,
  from: Float32Array,
  base: number,
  count: number,
): void {
  for (let n = 0; n < count; n++) to[at + n]! += scale * from[base + n]!;
}

/** Share of a hidden layer that is left out at a step while it learns (Srivastava and others, JMLR 2014). */
const DROPPED = Number(process.env.DROPPED ?? 0.15);

function dropSome(values: Float32Array): void {
  for (let n = 0; n < values.length; n++)
    values[n] = random() < DROPPED ? 0 : elementAt(values, n) / (1 - DROPPED);
}

function forward(at: number, isLearning = false): number {
  values[0] = data.subarray(at + 2, at + 2 + WIDTH);
  parts.forEach(({ rows, columns, w, b }, depth) => {
    const [input, output] = [elementAt(values, depth), elementAt(values, depth + 1)];
    const last = depth === parts.length - 1;
    for (let row = 0; row < rows; row++) {
      const sum = elementAt(b, row) + dot(w, row * columns, input);
      output[row] = last || sum > 0 ? sum : LEAK * sum;
    }
    if (isLearning && !last) dropSome(output);
  });
  return 1 / (1 + Math.exp(-elementAt(values, parts.length)[0]!));
}

function backward(probability: number, label: number): void {
  elementAt(errors, parts.length)[0] = probability - label;
  for (let depth = parts.length - 1; depth >= 0; depth--) {
    const { rows, columns, w, gw, gb } = elementAt(parts, depth);
    const [input, error, below] = [
      elementAt(values, depth),
      elementAt(errors, depth + 1),
      elementAt(errors, depth),
    ];
    below.fill(0);
    for (let row = 0; row < rows; row++) {
      const e = elementAt(error, row);
      if (e === 0) continue;
      gb[row]! += e;
      addScaled(gw, row * columns, e, input, 0, columns);
      addScaled(below, 0, e, w, row * columns, columns);
    }
    if (depth > 0)
      for (let column = 0; column < columns; column++) {
        const value = elementAt(input, column);
        // what was left out learns nothing
        if (value === 0) below[column] = 0;
        else below[column]! *= (value < 0 ? LEAK : 1) / (1 - DROPPED);
      }
  }
}

let step = 0;
function adam(rate: number, decay: number): void {
  step++;
  const [c1, c2] = [1 - 0.9 ** step, 1 - 0.999 ** step];
  const update = (w: Float32Array, g: Float32Array, m: Float32Array, v: Float32Array, wane: number) => {
    for (let n = 0; n < w.length; n++) {
      const slope = g[n]! / BATCH;
      m[n] = 0.9 * m[n]! + 0.1 * slope;
      v[n] = 0.999 * v[n]! + 0.001 * slope * slope;
      w[n]! -= rate * (m[n]! / c1 / (Math.sqrt(v[n]! / c2) + 1e-8) + wane * w[n]!);
      g[n] = 0;
    }
  };
  for (const { w, b, gw, gb, mw, vw, mb, vb } of parts) {
    update(w, gw, mw, vw, decay);
    update(b, gb, mb, vb, 0);
  }
}

const loss = (probability: number, label: number) =>
  -Math.log(Math.max(1e-9, label ? probability : 1 - probability));
function judgeAside(): { loss: number; missed: number; invented: number; held: number } {
  let [sum, missed, invented, held] = [0, 0, 0, 0];
  for (const at of aside) {
    const [p, label] = [forward(at), elementAt(data, at)];
    sum += loss(p, label);
    if (label) held++;
    if (label && p < 0.5) missed++;
    if (!label && p >= 0.5) invented++;
  }
  return { loss: sum / aside.length, missed, invented, held };
}

const pack = (): string => {
  const all = [mean, spread, ...parts.flatMap(({ w, b }) => [w, b])];
  const floats = new Float32Array(all.reduce((sum, part) => sum + part.length, 0));
  all.reduce((at, part) => (floats.set(part, at), at + part.length), 0);
  return Buffer.from(floats.buffer).toString('base64');
};

console.log(`${train.length} claims to learn from, ${aside.length} kept aside`);
let best = Infinity;
let chosen = pack();
for (let epoch = 0; epoch < epochs; epoch++) {
  const rate = 0.0014 * (0.5 + 0.5 * Math.cos((Math.PI * epoch) / epochs)) + 2e-5;
  for (let n = train.length - 1; n > 0; n--) {
    const m = Math.floor(random() * (n + 1));
    [train[n], train[m]] = [elementAt(train, m), elementAt(train, n)];
  }
  let [sum, seen] = [0, 0];
  for (const at of train) {
    const p = forward(at, true);
    sum += loss(p, elementAt(data, at));
    backward(p, elementAt(data, at));
    if (++seen % BATCH === 0) adam(rate, Number(process.env.DECAY ?? 0.01));
  }
  const result = judgeAside();
  const better = result.loss < best;
  if (better) {
    best = result.loss;
    chosen = pack();
  }
  console.log(
    `epoch ${epoch + 1}: loss ${(sum / train.length).toFixed(5)}, aside ${result.loss.toFixed(5)}, missed ${result.missed} and invented ${result.invented} of ${result.held}${better ? ' *' : ''}`,
  );
}
writeFileSync(out, JSON.stringify({ sizes, packed: chosen }));
