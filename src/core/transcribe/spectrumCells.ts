import { hzToMidi, midiToHz, type Hz, type Midi, type Samples, type Seconds } from '../shared';
import { type Magnitudes } from '../sound';
import { RATE } from './frames';
export const TRANSFORM = 4096;

export const LONGEST: Samples = Math.round(0.14 * RATE);

export const SHORTEST: Samples = Math.round(0.048 * RATE);

export const SOFTLY: Samples = Math.round(0.075 * RATE);

export const AFTER_ATTACK: Samples = Math.round(0.006 * RATE);

export const BEFORE_ATTACK: Samples = Math.round(0.008 * RATE);

export const BEFORE_NEXT: Samples = Math.round(0.003 * RATE);

/** The log-frequency grid: cells of 20 cents from C2 less a whole tone up. */
export const CELLS_PER_OCTAVE = 60;

export const CELL: Midi = 12 / CELLS_PER_OCTAVE;

export const LOWEST: Midi = 34;

export const CELLS = Math.floor((hzToMidi(RATE / 2.1) - LOWEST) / CELL);

export const HIGHEST_CLAIM: Midi = 90;

export const CLAIM_CELLS = Math.round((HIGHEST_CLAIM - LOWEST) / CELL);

export const LOWEST_CLAIM = Math.round((35.5 - LOWEST) / CELL);

export const HARMONICS = 10;

export const cellsAbove = (ratio: number): number => Math.round(CELLS_PER_OCTAVE * Math.log2(ratio));

export const HARMONIC_CELLS = Array.from({ length: HARMONICS }, (_, index) => cellsAbove(index + 1));

export const HALF_CELLS = [0.5, 1.5, 2.5, 3.5].map(cellsAbove);

export const THIRD_CELLS = [1 / 3, 2 / 3, 4 / 3, 5 / 3].map(cellsAbove);

export const FALL = 0.86;

export const FAINT = 0.002;

export const CLAIMS = { overall: 9, fresh: 7, apart: 2 };

export const NEIGHBOURS: readonly Midi[] = [12, -12, 19, -19, 24, -24, 7, -7, 5, -5, 28, -28];

export const TRACK_AT: readonly Seconds[] = [-0.1, -0.06, -0.03, 0.03, 0.06, 0.1, 0.14];

/** Ratios against almost nothing may run away; no feature means more than this. */
export const LIMIT = 4;

export const within = (feature: number): number => Math.max(-LIMIT, Math.min(LIMIT, feature));

const LOUDEST = Math.log1p(1 / FAINT);

export const compressed = (magnitude: number, reference: number): number =>
  Math.log1p(magnitude / (FAINT * reference)) / LOUDEST;

/** More than any look is long, in samples. */
export const KEYS = 4096;

export const cellOf = (midi: Midi): number => Math.round((midi - LOWEST) / CELL);

/** Further outside of the grid than any harmonic of any pitch asked for. */
const OUTSIDE = 512;

/** The greatest of each cell and its two neighbours, zeros outside of the grid: read it by `peakAt`. */
export function peaksOf(values: Float64Array): Float64Array {
  const peaks = new Float64Array(CELLS + 2 * OUTSIDE);
  for (let cell = 0; cell < CELLS; cell++) {
    const value = values[cell]!;
    for (let place = OUTSIDE + cell - 1; place <= OUTSIDE + cell + 1; place++)
      if (value > peaks[place]!) peaks[place] = value;
  }
  return peaks;
}

export const peakAt = (peaks: Float64Array, cell: number): number => peaks[OUTSIDE + cell]!;

export const CELL_HZ: readonly Hz[] = Array.from({ length: CELLS }, (_, cell) =>
  midiToHz(LOWEST + cell * CELL),
);

export const HALF_CELL = 2 ** (CELL / 24);

/** The greatest magnitude within each cell. */
export function onGrid({ values, binHz }: Magnitudes): Float64Array {
  const grid = new Float64Array(CELLS);
  for (let cell = 0; cell < CELLS; cell++) {
    const at = CELL_HZ[cell]! / binHz;
    const k = Math.floor(at);
    if (k + 1 >= values.length) break;
    let most = values[k]! + (values[k + 1]! - values[k]!) * (at - k);
    for (let bin = Math.ceil(at / HALF_CELL); bin <= at * HALF_CELL && bin < values.length; bin++)
      most = Math.max(most, values[bin]!);
    grid[cell] = most;
  }
  return grid;
}

export function towardsPeak(values: Float64Array<ArrayBufferLike>, k: number) {
  if (values[k + 1]! > values[k]!) return 1;
  if (values[k - 1]! > values[k]!) return -1;
  return 0;
}
