import type { Beats } from '../../shared';

/** A lean that grows (T1.7): by how much over the whole take, and how many onsets stayed with its beginning. */
export type Drift = {
  /** Positive: fell behind. */
  readonly ms: number;
  /** Far more than the scatter of the onsets explains. */
  readonly isSure: boolean;
  readonly steady: number;
  readonly of: number;
};

const ENOUGH = 24;
/** Standard errors away from no drift at all. */
const SURE = 4;
const STEADY_MS = 15;

/**
 * A straight line through the deviations of a take, least squares.
 * @param deviations onsets in beats, each with its milliseconds off the grid
 */
export function driftOf(deviations: readonly { readonly at: Beats; readonly ms: number }[]): Drift | null {
  const of = deviations.length;
  if (of < ENOUGH) return null;
  const mean = (values: readonly number[]) => values.reduce((sum, one) => sum + one, 0) / of;
  const meanAt = mean(deviations.map(({ at }) => at));
  const meanMs = mean(deviations.map(({ ms }) => ms));
  const along = deviations.reduce((sum, { at }) => sum + (at - meanAt) ** 2, 0);
  if (along === 0) return null;
  const slope = deviations.reduce((sum, { at, ms }) => sum + (at - meanAt) * (ms - meanMs), 0) / along;
  const left = deviations.reduce((sum, { at, ms }) => sum + (ms - meanMs - slope * (at - meanAt)) ** 2, 0);
  const error = Math.sqrt(left / Math.max(1, of - 2) / along);
  const first = Math.min(...deviations.map(({ at }) => at));
  const last = Math.max(...deviations.map(({ at }) => at));
  const start = meanMs + slope * (first - meanAt);
  return {
    ms: slope * (last - first),
    isSure: Math.abs(slope) >= SURE * error,
    steady: deviations.filter(({ ms }) => Math.abs(ms - start) <= STEADY_MS).length,
    of,
  };
}
