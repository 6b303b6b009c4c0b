import { type Beats, defined } from '../../shared';

/** An onset of the line with the pitch class it sounds. */
export type GridOnset = { readonly beat: Beats; readonly pc: number };
/** An offset, in ms, and how well the onsets fit the grid with it, as a logarithm. */
export type GridPeak = { readonly ms: number; readonly likelihood: number };

/** No player sits farther from the beat than this, and no usual latency is longer. */
const FARTHEST_MS = 160;
const STEP_MS = 4;
/** Offsets closer together than this are one. */
const APART_MS = 50;
const BINS = 240;
/** Where a beat's second eighth may lie: even, light swing, a triplet's. */
const SECONDS: readonly Beats[] = [0.5, 0.58, 2 / 3];
const FINER: readonly Beats[] = [0.25, 0.75, 1 / 3, 2 / 3];
const SPREAD_MS = 24;
/** More onsets fall on beats than between them (common practice, no source). */
const [ON_BEAT_SHARE, SECOND_SHARE] = [0.46, 0.3];

/** How well the onsets fit the grid at an offset, by a histogram of their places in the beat. */
export class GridFit {
  private readonly histogram = new Array<number>(BINS).fill(0);
  private readonly densities: readonly (readonly number[])[];
  constructor(
    private readonly onsets: readonly GridOnset[],
    private readonly toBeats: (ms: number) => Beats,
  ) {
    for (const { beat } of onsets) {
      const bin = Math.floor((beat - Math.floor(beat)) * BINS) % BINS;
      this.histogram[bin] = defined(this.histogram[bin]) + 1;
    }
    this.densities = SECONDS.map((second) => densityOf(second, toBeats(SPREAD_MS)));
  }

  /** The offsets that fit better than all within 50 ms of them, the best first. */
  peaks(): GridPeak[] {
    const all: { ms: number; likelihood: number }[] = [];
    for (let ms = -FARTHEST_MS; ms <= FARTHEST_MS; ms += STEP_MS)
      all.push({ ms, likelihood: this.likelihoodAt(ms) });
    return all
      .filter(({ ms, likelihood }) =>
        all.every(
          (other) =>
            Math.abs(other.ms - ms) >= APART_MS ||
            other.likelihood < likelihood ||
            (other.likelihood === likelihood && Math.abs(other.ms) >= Math.abs(ms)),
        ),
      )
      .sort((a, b) => b.likelihood - a.likelihood);
  }

  /** By the swing that fits best. */
  likelihoodAt(ms: number): number {
    return Math.max(...this.densities.map((density) => this.likelihood(density, ms)));
  }

  private likelihood(density: readonly number[], ms: number): number {
    const shift = Math.round(this.toBeats(ms) * BINS);
    let sum = 0;
    for (let bin = 0; bin < BINS; bin++) {
      const count = defined(this.histogram[bin]);
      if (count > 0) sum += count * defined(density[(((bin - shift) % BINS) + BINS) % BINS]);
    }
    return sum;
  }

  /** Beats from the nearest place of the grid, of the onsets that lie near one. */
  deviations(ms: number, onsets: readonly GridOnset[] = this.onsets): Beats[] {
    const shift = this.toBeats(ms);
    const near = this.toBeats(3 * SPREAD_MS);
    const second = this.second(ms);
    const found: Beats[] = [];
    for (const { beat } of onsets) {
      const inBeat = beat - shift - Math.floor(beat - shift);
      let off = inBeat > 0.5 ? inBeat - 1 : inBeat;
      if (Math.abs(inBeat - second) < Math.abs(off)) off = inBeat - second;
      if (Math.abs(off) <= near) found.push(off);
    }
    return found;
  }

  /** The second eighth that fits best at an offset. */
  private second(ms: number): Beats {
    const fits = this.densities.map((density) => this.likelihood(density, ms));
    return defined(SECONDS[fits.indexOf(Math.max(...fits))]);
  }
}

/** The logarithm of the chance of an onset at each place in the beat. */
function densityOf(second: Beats, spread: Beats): number[] {
  const places = [
    { at: 0, weight: ON_BEAT_SHARE },
    { at: second, weight: SECOND_SHARE },
    ...FINER.filter((at) => Math.abs(at - second) > 0.05).map((at) => ({ at, weight: 0.05 })),
  ];
  return Array.from({ length: BINS }, (_, bin) => {
    const inBeat = (bin + 0.5) / BINS;
    const chance = places.reduce((sum, { at, weight }) => {
      const away = Math.min(Math.abs(inBeat - at), 1 - Math.abs(inBeat - at));
      return sum + (weight / spread) * Math.exp(-(away * away) / (2 * spread * spread));
    }, 0.08);
    return Math.log(chance);
  });
}
