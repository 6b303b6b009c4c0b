import { midiToHz, type Hz, type Midi, type Samples } from '../shared';
import { SpectrumReader, type Magnitudes, type SignalStore } from '../sound';
import { HOP, RATE } from './frames';
import {
  AFTER_ATTACK,
  BEFORE_ATTACK,
  CELLS,
  cellOf,
  compressed,
  LONGEST,
  onGrid,
  TRANSFORM,
} from './spectrumCells';

/**
 * Long windows, in samples from the moment: well before it, just before, its first sound, all of it, what is left
 * later.
 */
const LONG_WINDOWS: readonly { readonly from: Samples; readonly length: Samples }[] = [
  { from: -Math.round(0.32 * RATE), length: LONGEST },
  { from: -BEFORE_ATTACK - LONGEST, length: LONGEST },
  { from: AFTER_ATTACK, length: Math.round(0.06 * RATE) },
  { from: AFTER_ATTACK, length: LONGEST },
  { from: Math.round(0.12 * RATE), length: LONGEST },
];
/** Three cells of 20 cents at a time, from two octaves under a pitch to over its twenty-fourth partial. */
const STEP = 3;
const [UNDER, OVER] = [41, 95];
const LONG_VALUES = UNDER + OVER + 1;

/** Short windows, one after another through the moment: how each partial comes and goes. */
const SHORT_TRANSFORM = 1024;
const SHORT_WINDOW: Samples = Math.round(0.029 * RATE);
const SHORT_HOP: Samples = Math.round(1.5 * HOP);
const [COLUMNS_BEFORE, COLUMNS] = [6, 18];
const SHORT_BINS = 256;
const PARTIALS = 8;
const BANDS: readonly Hz[] = [80, 300, 1000, 2500, 5400];
const SHORT_VALUES = COLUMNS * (PARTIALS + BANDS.length - 1);

/** How many values are read at each pitch. */
export const ALIGNED_VALUES = LONG_WINDOWS.length * LONG_VALUES + SHORT_VALUES;
/** Values are kept as bytes, 0 to 255 for nothing to the loudest: a look back at half a minute stays small. */
export const ALIGNED_UNIT = 255;

/** Further outside of the grid than any value asked for. */
const MARGIN = STEP * OVER + 2;
const QUARTER_TONE = 2 ** (50 / 1200);

/** A moment's spectra: each long window on the log grid, each short one by its bins and bands. */
type MomentSpectra = {
  readonly long: readonly Uint8Array[];
  readonly short: readonly Uint8Array[];
  readonly bands: readonly Uint8Array[];
};

/**
 * What sounds around a moment, read relative to a pitch: partial lies over partial whatever the pitch, so that a
 * network can learn from all pitches what a string looks like that begins there, and what merely sounds on. (Aligned
 * log-frequency spectra as network inputs: Bittner and others, ISMIR 2017, whose harmonics lie one over another.)
 */
export class AlignedSpectra {
  private readonly longReader = new SpectrumReader(TRANSFORM, RATE);
  private readonly shortReader = new SpectrumReader(SHORT_TRANSFORM, RATE);
  private readonly seen = new Map<number, MomentSpectra>();

  /** @param store the sound up to 0.3 s after any moment that is asked for */
  constructor(private readonly store: SignalStore) {}

  /**
   * Writes `ALIGNED_VALUES` numbers from 0 to 1.
   * @param frame of the take
   */
  read(frame: number, midi: Midi, into: Float64Array, at: number): void {
    const { long, short, bands } = this.at(frame);
    const cell = cellOf(midi);
    for (const grid of long)
      for (let step = -UNDER; step <= OVER; step++)
        into[at++] = (grid[MARGIN + cell + STEP * step] ?? 0) / ALIGNED_UNIT;
    const edges = partialEdges(midiToHz(midi));
    for (const [column, bins] of short.entries()) {
      for (const [low, high] of edges) into[at++] = greatest(bins, low, high) / ALIGNED_UNIT;
      for (const level of bands[column]!) into[at++] = level / ALIGNED_UNIT;
    }
  }

  /** No moment before this frame is asked for any more. */
  forget(before: number): void {
    for (const frame of this.seen.keys()) if (frame < before) this.seen.delete(frame);
  }

  private at(frame: number): MomentSpectra {
    let found = this.seen.get(frame);
    if (!found) this.seen.set(frame, (found = this.look(frame * HOP)));
    return found;
  }

  private look(at: Samples): MomentSpectra {
    const grids = LONG_WINDOWS.map(({ from, length }) =>
      onGrid(this.spectrum(this.longReader, at + from, length)),
    );
    const columns = Array.from({ length: COLUMNS }, (_, column) => {
      const centre = at + (column - COLUMNS_BEFORE) * SHORT_HOP;
      return this.spectrum(this.shortReader, centre - (SHORT_WINDOW >> 1), SHORT_WINDOW);
    });
    const loudest = most(grids) || 1;
    const loudestShort = most(columns.map(({ values }) => values)) || 1;
    return {
      long: grids.map((grid) => peaksAsBytes(grid, loudest)),
      short: columns.map(({ values }) => asBytes(values, SHORT_BINS, loudestShort)),
      bands: columns.map((column) => asBytes(bandLevels(column), BANDS.length - 1, loudestShort)),
    };
  }

  private spectrum(reader: SpectrumReader, from: Samples, length: Samples): Magnitudes {
    const samples = new Float64Array(length);
    this.store.read(from, samples);
    return reader.read(samples);
  }
}

function most(all: readonly Float64Array[]): number {
  let found = 0;
  for (const values of all) for (const value of values) if (value > found) found = value;
  return found;
}

/**
 * Bytes of values from 0 to 1 by the upper half of their 32-bit floats: seven binary places are finer than a byte of the
 * logarithm, and a table is asked in a tenth of the time.
 */
const BYTES = Uint8Array.from({ length: 0x3f81 }, (_, upper) => {
  const value = new Float32Array(Uint32Array.of((upper << 16) | 0x8000).buffer)[0]!;
  return Math.min(ALIGNED_UNIT, Math.round(ALIGNED_UNIT * compressed(value, 1)));
});

const SHARE = new Float32Array(1);
const SHARE_BITS = new Uint32Array(SHARE.buffer);

function asBytes(values: Float64Array, count: number, loudest: number): Uint8Array {
  const bytes = new Uint8Array(count);
  for (let n = 0; n < count; n++) {
    SHARE[0] = Math.min(1, values[n]! / loudest);
    bytes[n] = BYTES[SHARE_BITS[0]! >>> 16]!;
  }
  return bytes;
}

/** The greatest of each cell and its two neighbours, with zeros around the grid. */
function peaksAsBytes(grid: Float64Array, loudest: number): Uint8Array {
  const own = asBytes(grid, CELLS, loudest);
  const bytes = new Uint8Array(CELLS + 2 * MARGIN);
  for (let cell = 0; cell < CELLS; cell++)
    bytes[MARGIN + cell] = Math.max(own[cell]!, own[cell - 1] ?? 0, own[cell + 1] ?? 0);
  return bytes;
}

/** Root of the energy in each band, as a sine of that level would read. */
function bandLevels({ values, binHz }: Magnitudes): Float64Array {
  return Float64Array.from(BANDS.slice(1), (high, band) => {
    let sum = 0;
    for (let bin = Math.ceil(BANDS[band]! / binHz); bin < high / binHz; bin++) sum += values[bin]! ** 2;
    return Math.sqrt(sum);
  });
}

/** Bins within a quarter tone of each partial, half-open; at least the nearest. */
function partialEdges(hz: Hz): [number, number][] {
  const binHz = RATE / SHORT_TRANSFORM;
  return Array.from({ length: PARTIALS }, (_, index) => {
    const partial = ((index + 1) * hz) / binHz;
    const low = Math.min(Math.round(partial), Math.ceil(partial / QUARTER_TONE));
    return [low, Math.max(Math.round(partial), Math.floor(partial * QUARTER_TONE)) + 1];
  });
}

function greatest(bins: Uint8Array, low: number, high: number): number {
  let found = 0;
  for (let bin = low; bin < high && bin < bins.length; bin++) if (bins[bin]! > found) found = bins[bin]!;
  return found;
}
