import { hzToMidi, midiToHz, type Midi } from '../shared';
import { magnitudeNear, type Magnitudes } from '../sound';
import {
  CELL,
  cellOf,
  CELLS_PER_OCTAVE,
  CLAIM_CELLS,
  CLAIMS,
  compressed,
  FALL,
  HALF_CELLS,
  HARMONIC_CELLS,
  LOWEST,
  LOWEST_CLAIM,
  NEIGHBOURS,
  onGrid,
  peakAt,
  peaksOf,
  THIRD_CELLS,
  towardsPeak,
} from './spectrumCells';
/** The spectra of one moment on the log grid. */
export class OnsetSpectrum {
  private readonly after: Float64Array;
  private readonly fresh: Float64Array;
  /** Of what sounds after, before and newly: the greatest of each cell and its neighbours. */
  private readonly peaked: {
    readonly after: Float64Array;
    readonly before: Float64Array;
    readonly fresh: Float64Array;
  };
  readonly loudest: number;
  readonly newShare: number;
  private readonly totals: { after: number; fresh: number };
  private readonly best: { after: number; fresh: number };

  constructor(
    private readonly spectrum: Magnitudes,
    before: Magnitudes,
  ) {
    const [a, b] = [onGrid(spectrum), onGrid(before)];
    this.loudest = a.reduce((most, value) => Math.max(most, value), 0);
    const earlier = peaksOf(b);
    const fresh = a.map((value, cell) => Math.max(0, value - peakAt(earlier, cell)));
    const energy = (values: Float64Array) => values.reduce((sum, value) => sum + value * value, 0);
    this.totals = { after: energy(a), fresh: energy(fresh) };
    this.newShare = this.totals.after > 0 ? Math.sqrt(this.totals.fresh / this.totals.after) : 0;
    const compress = (value: number) => compressed(value, this.loudest || 1);
    this.after = a.map(compress);
    this.fresh = fresh.map(compress);
    const peaks = { after: peaksOf(this.after), before: earlier.map(compress), fresh: peaksOf(this.fresh) };
    this.peaked = peaks;
    this.raw = { after: a, fresh };
    this.best = { after: this.most(peaks.after), fresh: this.most(peaks.fresh) };
  }

  private readonly raw: { after: Float64Array; fresh: Float64Array };

  private most(peaks: Float64Array): number {
    let most = 1e-6;
    for (let cell = LOWEST_CLAIM; cell < CLAIM_CELLS; cell++) most = Math.max(most, this.sum(peaks, cell));
    return most;
  }

  private sum(peaks: Float64Array, cell: number): number {
    let [sum, weight] = [0, 1];
    for (const above of HARMONIC_CELLS) {
      sum += weight * peakAt(peaks, cell + above);
      weight *= FALL;
    }
    return sum;
  }

  /** How much there is of a pitch's harmonics. */
  salience(midi: Midi): number {
    return this.sum(this.peaked.after, cellOf(midi));
  }

  /** Pitches whose harmonics stand out, overall or in what is new. */
  peaks(): Midi[] {
    const { fresh, after } = this.peaked;
    return [...this.tops(this.fresh, fresh, CLAIMS.fresh), ...this.tops(this.after, after, CLAIMS.overall)];
  }

  private tops(values: Float64Array, peaked: Float64Array, count: number): Midi[] {
    const sums = new Float64Array(CLAIM_CELLS + 1);
    for (let cell = LOWEST_CLAIM; cell < CLAIM_CELLS; cell++) {
      // a pitch sounds at its fundamental or at its octave; without either its harmonics belong to another
      const rooted = Math.max(peakAt(peaked, cell), 0.8 * peakAt(peaked, cell + CELLS_PER_OCTAVE)) > 0.08;
      sums[cell] = rooted ? this.sum(peaked, cell) + 0.5 * values[cell]! : 0;
    }
    const peaks: { cell: number; sum: number }[] = [];
    for (let cell = LOWEST_CLAIM; cell < CLAIM_CELLS; cell++) {
      let top = sums[cell]! > 0;
      for (let near = -CLAIMS.apart; near <= CLAIMS.apart && top; near++)
        top =
          near === 0 ||
          (near < 0 ? sums[cell]! > (sums[cell + near] ?? 0) : sums[cell]! >= (sums[cell + near] ?? 0));
      if (top) peaks.push({ cell, sum: sums[cell]! });
    }
    return peaks
      .sort((x, y) => y.sum - x.sum)
      .slice(0, count)
      .map(({ cell }) => LOWEST + cell * CELL);
  }

  /** The pitch moved to where its first harmonics peak. */
  refined(midi: Midi): Midi {
    const { values, binHz } = this.spectrum;
    let [sum, total] = [0, 0];
    for (let harmonic = 1; harmonic <= 6; harmonic++) {
      const hz = midiToHz(midi) * harmonic;
      let k = Math.round(hz / binHz);
      if (k < 2 || k >= values.length - 2) continue;
      for (let tries = 0; tries < 4; tries++) k += towardsPeak(values, k);
      const [a, b, c] = [values[k - 1]!, values[k]!, values[k + 1]!];
      const bend = a - 2 * b + c;
      const peak = (k + (bend < 0 ? (a - c) / (2 * bend) : 0)) * binHz;
      const away = hzToMidi(peak) - hzToMidi(hz);
      if (Math.abs(away) > 0.45) continue;
      const weight = Math.sqrt(b) * harmonic;
      sum += weight * away;
      total += weight;
    }
    return total > 0 ? midi + sum / total : midi;
  }

  features(midi: Midi): number[] {
    const { after, before, fresh } = this.peaked;
    const cell = cellOf(midi);
    const own = HARMONIC_CELLS.map((above) => peakAt(after, cell + above));
    const earlier = HARMONIC_CELLS.map((above) => peakAt(before, cell + above));
    const [overall, recent] = [this.sum(after, cell), this.sum(fresh, cell)];
    return [
      ...own,
      ...own.map((value, index) => value - earlier[index]!),
      ...HARMONIC_CELLS.map((above) => peakAt(fresh, cell + above)),
      ...HALF_CELLS.map((above) => peakAt(after, cell + above)),
      ...HALF_CELLS.map((above) => peakAt(fresh, cell + above)),
      ...THIRD_CELLS.map((above) => peakAt(after, cell + above)),
      this.explained(this.raw.after, this.totals.after, cell),
      this.explained(this.raw.fresh, this.totals.fresh, cell),
      overall / this.best.after,
      recent / this.best.fresh,
      overall / 5,
      recent / 5,
      ...NEIGHBOURS.map((step) => (overall - this.sum(after, cellOf(midi + step))) / this.best.after),
      ...NEIGHBOURS.slice(0, 8).map(
        (step) => (recent - this.sum(fresh, cellOf(midi + step))) / this.best.fresh,
      ),
      (midi - 60) / 24,
      Math.log10(magnitudeNear(this.spectrum, midiToHz(midi)) + 1e-6) / 3 -
        Math.log10(this.loudest + 1e-6) / 3,
    ];
  }

  /** Share of the energy that lies on a pitch's harmonics. */
  private explained(values: Float64Array, total: number, cell: number): number {
    let sum = 0;
    for (const above of HARMONIC_CELLS)
      for (let near = -2; near <= 2; near++) sum += (values[cell + above + near] ?? 0) ** 2;
    return total > 0 ? Math.min(1, sum / total) : 0;
  }
}
