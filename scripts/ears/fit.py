"""Fits a judge of the ears to collected examples and writes it as JSON.

    python3 fit.py OUT HIDDEN EPOCHS FILES... [--seed N] [--dropped SHARE] [--decay RATE] [--width N] [--around N]

FILES are what `collect.ts` wrote: rows of 32-bit floats, each a label (1 holds, 0 does not, 2 either way, which is
left out), the seed of its take, and `width` features; then `around` bytes, the sound around the moment. HIDDEN names
the hidden layers, as in 192,64. A tenth of the takes, of every source, is kept aside: the network that does best on
them is written. Needs numpy (BSD).

Sources: Adam (Kingma and Ba, ICLR 2015); dropout (Srivastava and others, JMLR 2014); weights decay apart from the
slopes (Loshchilov and Hutter, ICLR 2019); hidden units are leaky rectifiers (Goodfellow et al., Deep Learning,
chapter 6).
"""

import argparse
import base64
import json

import numpy as np

BATCH = 256
LEAK = np.float32(0.1)
LIMIT = 4
LEAST_SPREAD = 0.02
FASTEST, SLOWEST = 0.0014, 2e-5
LOUDEST = 255
MANY = 20_000


class Examples:
    """Labels, features and bytes of claims; those of either answer are left out."""

    def __init__(self, rows):
        self.labels = rows["label"]
        self.known = np.clip(rows["known"], -LIMIT, LIMIT)
        self.around = rows["around"]

    def __len__(self):
        return len(self.labels)

    def values(self, chosen):
        return np.concatenate([self.known[chosen], self.around[chosen] * np.float32(1 / LOUDEST)], axis=1)

    def moments(self):
        """Mean and spread of each value."""
        total = squares = 0.0
        for start in range(0, len(self), MANY):
            values = self.values(slice(start, start + MANY)).astype(np.float64)
            total, squares = total + values.sum(0), squares + (values**2).sum(0)
        mean = total / len(self)
        return mean.astype(np.float32), np.sqrt(np.maximum(squares / len(self) - mean**2, LEAST_SPREAD**2)).astype(
            np.float32
        )


def read_examples(files, width, around):
    """What to learn from, and the tenth that is kept aside."""
    row = np.dtype([("label", "<f4"), ("seed", "<f4"), ("known", "<f4", width), ("around", "u1", around)])
    parts = []
    for file in files:
        rows = np.memmap(file, dtype=np.uint8, mode="r")
        rows = rows[: len(rows) // row.itemsize * row.itemsize].view(row)
        parts.append(rows[rows["label"] != 2])
    rows = np.concatenate(parts)
    aside = (rows["seed"].astype(np.int64) * 7919) % 101 < 10
    return Examples(rows[~aside]), Examples(rows[aside])


def cross_entropy(probability, label):
    return -np.log(np.maximum(1e-9, np.where(label > 0, probability, 1 - probability)))


class Network:
    def __init__(self, sizes, random):
        self.sizes = sizes
        pairs = list(zip(sizes, sizes[1:]))
        self.weights = [(random.standard_normal(pair) * np.sqrt(2 / pair[0])).astype(np.float32) for pair in pairs]
        self.biases = [np.zeros(size, np.float32) for size in sizes[1:]]
        self.parameters = self.weights + self.biases
        self.means = [np.zeros_like(one) for one in self.parameters]
        self.squares = [np.zeros_like(one) for one in self.parameters]
        self.steps = 0

    def probabilities(self, values):
        for depth, (weights, biases) in enumerate(zip(self.weights, self.biases)):
            values = values @ weights + biases
            if depth < len(self.weights) - 1:
                values = np.where(values > 0, values, LEAK * values)
        return 1 / (1 + np.exp(-values[:, 0]))

    def slopes(self, values, labels, dropped, random):
        """Of the mean cross-entropy of a batch, a share of each hidden layer left out. Returns them and its sum."""
        last = len(self.weights) - 1
        inputs, gates = [values], []
        for depth in range(last):
            sums = inputs[-1] @ self.weights[depth] + self.biases[depth]
            kept = (random.random(sums.shape, dtype=np.float32) >= dropped) / np.float32(1 - dropped)
            gates.append(np.where(sums > 0, np.float32(1), LEAK) * kept)
            inputs.append(sums * gates[-1])
        odds = (inputs[-1] @ self.weights[last] + self.biases[last])[:, 0]
        probabilities = 1 / (1 + np.exp(-odds))
        error = ((probabilities - labels) / len(labels))[:, None].astype(np.float32)
        slopes = [None] * len(self.parameters)
        for depth in range(last, -1, -1):
            slopes[depth] = inputs[depth].T @ error
            slopes[last + 1 + depth] = error.sum(0)
            if depth > 0:
                error = (error @ self.weights[depth].T) * gates[depth - 1]
        return slopes, cross_entropy(probabilities, labels).sum()

    def step(self, slopes, rate, decay):
        self.steps += 1
        first, second = 1 - 0.9**self.steps, 1 - 0.999**self.steps
        for index, (parameter, slope) in enumerate(zip(self.parameters, slopes)):
            self.means[index] = 0.9 * self.means[index] + 0.1 * slope
            self.squares[index] = 0.999 * self.squares[index] + 0.001 * slope * slope
            move = self.means[index] / first / (np.sqrt(self.squares[index] / second) + 1e-8)
            wanes = decay if index < len(self.weights) else 0
            parameter -= rate * (move + wanes * parameter)

    def packed(self, mean, spread):
        parts = [mean, spread]
        for weights, biases in zip(self.weights, self.biases):
            parts += [np.ascontiguousarray(weights.T).ravel(), biases]
        return base64.b64encode(np.concatenate(parts).astype(np.float32).tobytes()).decode()


def said_of(network, examples, mean, spread):
    parts = [
        network.probabilities((examples.values(slice(start, start + MANY)) - mean) / spread)
        for start in range(0, len(examples), MANY)
    ]
    return np.concatenate(parts)


def fit(train, aside, hidden, epochs, seed, dropped, decay):
    random = np.random.default_rng(seed)
    mean, spread = train.moments()
    network = Network([len(mean), *hidden, 1], random)
    truth = aside.labels
    best, chosen = np.inf, None
    for epoch in range(epochs):
        rate = FASTEST * (0.5 + 0.5 * np.cos(np.pi * epoch / epochs)) + SLOWEST
        order, total = random.permutation(len(train)), 0.0
        for start in range(0, len(order) - BATCH + 1, BATCH):
            batch = order[start : start + BATCH]
            slopes, loss = network.slopes((train.values(batch) - mean) / spread, train.labels[batch], dropped, random)
            network.step(slopes, rate, decay)
            total += loss
        said = said_of(network, aside, mean, spread)
        loss = cross_entropy(said, truth).mean()
        missed, invented = ((truth > 0) & (said < 0.5)).sum(), ((truth == 0) & (said >= 0.5)).sum()
        mark = " *" if loss < best else ""
        print(
            f"epoch {epoch + 1}: loss {total / len(train):.5f}, aside {loss:.5f}, "
            f"missed {missed} and invented {invented} of {(truth > 0).sum()}{mark}",
            flush=True,
        )
        if loss < best:
            best, chosen = loss, network.packed(mean, spread)
    return {"sizes": network.sizes, "packed": chosen}


def main():
    parser = argparse.ArgumentParser(description="Fits a judge of the ears.")
    parser.add_argument("out")
    parser.add_argument("hidden", type=lambda text: [int(size) for size in text.split(",")])
    parser.add_argument("epochs", type=int)
    parser.add_argument("files", nargs="+")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--dropped", type=float, default=0.4)
    parser.add_argument("--decay", type=float, default=0.1)
    parser.add_argument("--width", type=int, default=160)
    parser.add_argument("--around", type=int, default=901)
    asked = parser.parse_args()
    train, aside = read_examples(asked.files, asked.width, asked.around)
    print(f"{len(train)} claims to learn from, {len(aside)} kept aside", flush=True)
    network = fit(train, aside, asked.hidden, asked.epochs, asked.seed, asked.dropped, asked.decay)
    with open(asked.out, "w") as out:
        json.dump(network, out)


if __name__ == "__main__":
    main()
