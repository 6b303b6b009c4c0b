/**
 * Note scoring as in MIREX note tracking and mir_eval (Raffel et al., ISMIR 2014): onset within 50 ms, pitch within 50 cents,
 * one-to-one by a maximum matching; where offsets are asked too, within 50 ms or a fifth of the true note's length, whichever is more.
 */
export type ScoredNote = { readonly onset: number; readonly pitch: number; readonly offset?: number };
export type Score = {
  readonly matched: number;
  readonly precision: number;
  readonly recall: number;
  readonly f1: number;
};

export const ONSET_TOLERANCE = 0.05;
export const PITCH_TOLERANCE = 0.5;

export function scoreNotes(
  truth: readonly ScoredNote[],
  heard: readonly ScoredNote[],
  withOffsets = false,
): Score {
  const matched = matchNotes(truth, heard, withOffsets).length;
  let precision: number;
  if (heard.length) precision = matched / heard.length;
  else if (truth.length) precision = 0;
  else precision = 1;
  let recall: number;
  if (truth.length) recall = matched / truth.length;
  else if (heard.length) recall = 0;
  else recall = 1;
  return {
    matched,
    precision,
    recall,
    f1: precision + recall ? (2 * precision * recall) / (precision + recall) : 0,
  };
}

/** Maximum bipartite matching by augmenting paths (Kuhn). Pairs of indices into truth and heard. */
export function matchNotes(
  truth: readonly ScoredNote[],
  heard: readonly ScoredNote[],
  withOffsets = false,
): [number, number][] {
  const owner = new Map<number, number>();
  const near = truth.map((note) =>
    heard.flatMap((other, index) =>
      isHit(note, other) && (!withOffsets || endsWith(note, other)) ? [index] : [],
    ),
  );
  const augment = (at: number, seen: Set<number>): boolean => {
    for (const other of near[at]!) {
      if (seen.has(other)) continue;
      seen.add(other);
      const taken = owner.get(other);
      if (taken === undefined || augment(taken, seen)) {
        owner.set(other, at);
        return true;
      }
    }
    return false;
  };
  truth.forEach((_, at) => augment(at, new Set()));
  return [...owner].map(([other, at]) => [at, other]);
}

const isHit = (a: ScoredNote, b: ScoredNote): boolean =>
  Math.abs(a.onset - b.onset) <= ONSET_TOLERANCE + 1e-9 &&
  Math.abs(a.pitch - b.pitch) <= PITCH_TOLERANCE + 1e-9;

const OFFSET_SHARE = 0.2;
const endsWith = (truth: ScoredNote, heard: ScoredNote): boolean =>
  Math.abs(truth.offset! - (heard.offset ?? Infinity)) <=
  Math.max(ONSET_TOLERANCE, OFFSET_SHARE * (truth.offset! - truth.onset)) + 1e-9;
