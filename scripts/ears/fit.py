"""Fits a judge of the ears to collected examples and writes it as JSON.

    python3 fit.py OUT HIDDEN EPOCHS FILES... [--seed N] [--dropped SHARE] [--decay RATE] [--width N]

FILES are what `collect.ts` wrote: rows of 32-bit floats, each a label (1 holds, 0 does not, 2 either way, which is
left out), the seed of its take, and `width` features. HIDDEN names the hidden layers, as in 192,64. A tenth of the
takes, of every source, is kept aside: the network that does best on them is written. Needs numpy (BSD).

Sources: Adam (Kingma and Ba, ICLR 2015); dropout (Srivastava and others, JMLR 2014); weights decay apart from the
slopes (Loshchilov and Hutter, ICLR 2019); hidden units are leaky rectifiers (Goodfellow et al., Deep Learning,
chapter 6).
"""

import argparse
import base64
import json

import numpy as np

BATCH = 128
LEAK = np.float32(0.1)
LIMIT = 4
LEAST_SPREAD = 0.02
FASTEST, SLOWEST = 0.0014, 2e-5


def read_examples(files, width):
    """Rows of label, seed and features, those of either answer left out."""
    rows = np.concatenate([np.fromfile(file, dtype=np.float32).reshape(-1, width + 2) for file in files])
    rows = rows[rows[:, 0] != 2]
    rows[:, 2:] = np.clip(rows[:, 2:], -LIMIT, LIMIT)
    aside = (rows[:, 1].astype(np.int64) * 7919) % 101 < 10
    return rows[~aside], rows[aside]


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


def fit(train, aside, hidden, epochs, seed, dropped, decay):
    random = np.random.default_rng(seed)
    mean = train[:, 2:].mean(0)
    spread = np.maximum(LEAST_SPREAD, train[:, 2:].std(0))
    values, labels = ((train[:, 2:] - mean) / spread).astype(np.float32), train[:, 0]
    others, truth = ((aside[:, 2:] - mean) / spread).astype(np.float32), aside[:, 0]
    network = Network([values.shape[1], *hidden, 1], random)
    best, chosen = np.inf, None
    for epoch in range(epochs):
        rate = FASTEST * (0.5 + 0.5 * np.cos(np.pi * epoch / epochs)) + SLOWEST
        order, total = random.permutation(len(values)), 0.0
        for start in range(0, len(order) - BATCH + 1, BATCH):
            batch = order[start : start + BATCH]
            slopes, loss = network.slopes(values[batch], labels[batch], dropped, random)
            network.step(slopes, rate, decay)
            total += loss
        said = network.probabilities(others)
        loss = cross_entropy(said, truth).mean()
        missed, invented = ((truth > 0) & (said < 0.5)).sum(), ((truth == 0) & (said >= 0.5)).sum()
        mark = " *" if loss < best else ""
        print(
            f"epoch {epoch + 1}: loss {total / len(values):.5f}, aside {loss:.5f}, "
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
    asked = parser.parse_args()
    train, aside = read_examples(asked.files, asked.width)
    print(f"{len(train)} claims to learn from, {len(aside)} kept aside", flush=True)
    network = fit(train, aside, asked.hidden, asked.epochs, asked.seed, asked.dropped, asked.decay)
    with open(asked.out, "w") as out:
        json.dump(network, out)


if __name__ == "__main__":
    main()
