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
  THIRD_CELLS,
  towardsPeak,
} from './spectrumCells';
/** The spectra of one moment on the log grid. */
export class OnsetSpectrum {
  readonly after: Float64Array;
  readonly before: Float64Array;
  readonly fresh: Float64Array;
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
    const fresh = a.map((value, cell) =>
      Math.max(0, value - Math.max(b[cell - 1] ?? 0, b[cell]!, b[cell + 1] ?? 0)),
    );
    const energy = (values: Float64Array) => values.reduce((sum, value) => sum + value * value, 0);
    this.totals = { after: energy(a), fresh: energy(fresh) };
    this.newShare = this.totals.after > 0 ? Math.sqrt(this.totals.fresh / this.totals.after) : 0;
    this.after = a.map((value) => compressed(value, this.loudest || 1));
    this.before = b.map((value) => compressed(value, this.loudest || 1));
    this.fresh = fresh.map((value) => compressed(value, this.loudest || 1));
    this.raw = { after: a, fresh };
    this.best = { after: this.most(this.after), fresh: this.most(this.fresh) };
  }

  private readonly raw: { after: Float64Array; fresh: Float64Array };

  private most(values: Float64Array): number {
    let most = 1e-6;
    for (let cell = LOWEST_CLAIM; cell < CLAIM_CELLS; cell++) most = Math.max(most, this.sum(values, cell));
    return most;
  }

  private sum(values: Float64Array, cell: number): number {
    let [sum, weight] = [0, 1];
    for (const above of HARMONIC_CELLS) {
      sum += weight * peakAt(values, cell + above);
      weight *= FALL;
    }
    return sum;
  }

  salience(values: Float64Array, midi: Midi): number {
    return this.sum(values, cellOf(midi));
  }

  /** Pitches whose harmonics stand out, overall or in what is new. */
  peaks(): Midi[] {
    return [...this.tops(this.fresh, CLAIMS.fresh), ...this.tops(this.after, CLAIMS.overall)];
  }

  private tops(values: Float64Array, count: number): Midi[] {
    const sums = new Float64Array(CLAIM_CELLS + 1);
    for (let cell = LOWEST_CLAIM; cell < CLAIM_CELLS; cell++) {
      // a pitch sounds at its fundamental or at its octave; without either its harmonics belong to another
      const rooted = Math.max(peakAt(values, cell), 0.8 * peakAt(values, cell + CELLS_PER_OCTAVE)) > 0.08;
      sums[cell] = rooted ? this.sum(values, cell) + 0.5 * (values[cell] ?? 0) : 0;
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
    const cell = cellOf(midi);
    const own = HARMONIC_CELLS.map((above) => peakAt(this.after, cell + above));
    const earlier = HARMONIC_CELLS.map((above) => peakAt(this.before, cell + above));
    const fresh = HARMONIC_CELLS.map((above) => peakAt(this.fresh, cell + above));
    const [overall, recent] = [this.sum(this.after, cell), this.sum(this.fresh, cell)];
    return [
      ...own,
      ...own.map((value, index) => value - earlier[index]!),
      ...fresh,
      ...HALF_CELLS.map((above) => peakAt(this.after, cell + above)),
      ...HALF_CELLS.map((above) => peakAt(this.fresh, cell + above)),
      ...THIRD_CELLS.map((above) => peakAt(this.after, cell + above)),
      this.explained(this.raw.after, this.totals.after, cell),
      this.explained(this.raw.fresh, this.totals.fresh, cell),
      overall / this.best.after,
      recent / this.best.fresh,
      overall / 5,
      recent / 5,
      ...NEIGHBOURS.map((step) => (overall - this.salience(this.after, midi + step)) / this.best.after),
      ...NEIGHBOURS.slice(0, 8).map(
        (step) => (recent - this.salience(this.fresh, midi + step)) / this.best.fresh,
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
