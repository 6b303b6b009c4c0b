import { hzToMidi, type Hz, type Midi } from '../shared';

/** A period that may explain a frame, with its share of belief. */
export type PeriodCandidate = { midi: Midi; weight: number };

/**
 * Weights of the YIN thresholds: the beta distribution with mean 0.1 of pYIN (Mauch and Dixon, ICASSP 2014),
 * 0.01 … 1.00.
 */
const THRESHOLDS = betaWeights(100, 2, 18);
const LAST_RESORT = 0.01;

function betaWeights(count: number, a: number, b: number): Float64Array {
  const raw = Float64Array.from({ length: count }, (_, index) => {
    const x = (index + 0.5) / count;
    return x ** (a - 1) * (1 - x) ** (b - 1);
  });
  const sum = raw.reduce((total, value) => total + value, 0);
  return raw.map((value) => value / sum);
}

/**
 * The candidates of one frame: each threshold gives its weight to the first dip below it, so that where a
 * period and its
 * multiples explain the frame almost equally the shorter is believed (pYIN, stage one).
 * @param difference d'(τ), τ in samples
 * @param minLag shortest period considered
 */
export function candidatesOf(difference: Float64Array, minLag: number, rate: Hz): PeriodCandidate[] {
  const dips: { lag: number; depth: number; weight: number }[] = [];
  let deepest: (typeof dips)[number] | null = null;
  for (let lag = Math.max(2, Math.floor(minLag)); lag < difference.length - 1; lag++) {
    const value = difference[lag]!;
    if (value >= difference[lag - 1]! || value > difference[lag + 1]! || value > 0.9) continue;
    const dip = {
      lag: lag + vertex(difference[lag - 1]!, value, difference[lag + 1]!),
      depth: value,
      weight: 0,
    };
    dips.push(dip);
    if (!deepest || dip.depth < deepest.depth) deepest = dip;
  }
  if (!deepest) return [];
  // dips that lie deeper than all before them are the only ones a threshold can choose
  let threshold = THRESHOLDS.length - 1;
  for (const dip of dips) {
    while (threshold >= 0 && (threshold + 1) / THRESHOLDS.length > dip.depth)
      dip.weight += THRESHOLDS[threshold--]!;
    if (threshold < 0) break;
  }
  for (; threshold >= 0; threshold--) deepest.weight += LAST_RESORT * THRESHOLDS[threshold]!;
  return dips
    .filter((dip) => dip.weight > 1e-4)
    .map((dip) => ({ midi: hzToMidi(rate / dip.lag), weight: dip.weight }));
}

/** Offset of a parabola's lowest point through three neighbours. */
function vertex(before: number, at: number, after: number): number {
  const bend = before - 2 * at + after;
  return bend > 0 ? (before - after) / (2 * bend) : 0;
}

const SAME_CENTS = 0.4;

/** Joins the candidates of two windows; those within 40 cents are one. */
export function joinCandidates(
  long: readonly PeriodCandidate[],
  short: readonly PeriodCandidate[],
  shortShare: number,
): PeriodCandidate[] {
  const joined = long.map(({ midi, weight }) => ({ midi, weight: weight * (1 - shortShare) }));
  for (const { midi, weight } of short) {
    const same = joined.find((other) => Math.abs(other.midi - midi) < SAME_CENTS);
    if (!same) joined.push({ midi, weight: weight * shortShare });
    else {
      const total = same.weight + weight * shortShare;
      same.midi = total > 0 ? (same.midi * same.weight + midi * weight * shortShare) / total : midi;
      same.weight = total;
    }
  }
  return joined.sort((a, b) => b.weight - a.weight).slice(0, MOST_CANDIDATES);
}

export const MOST_CANDIDATES = 6;
