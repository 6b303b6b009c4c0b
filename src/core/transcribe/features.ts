import { magnitudeNear, SpectrumReader, type Magnitudes, type SignalStore } from '../sound';
import { hzToMidi, midiToHz, type Decibels, type Hz, type Midi, type Samples, type Seconds } from '../shared';
import { FRAME_SECONDS, HOP, RATE, type AnalysisFrame } from './frames';
import type { OnsetCandidate } from './onsetCandidates';
import type { PitchTrack } from './path';

/**
 * A pitch that may have begun at a moment, and what speaks for and against it: `features` for the judge, in a
 * fixed order.
 */
export type PitchCandidate = { readonly midi: Midi; readonly features: Float64Array };

const TRANSFORM = 4096;
const LONGEST: Samples = Math.round(0.14 * RATE);
const SHORTEST: Samples = Math.round(0.048 * RATE);
const SOFTLY: Samples = Math.round(0.075 * RATE);
const AFTER_ATTACK: Samples = Math.round(0.006 * RATE);
const BEFORE_ATTACK: Samples = Math.round(0.008 * RATE);
const BEFORE_NEXT: Samples = Math.round(0.003 * RATE);

/** The log-frequency grid: cells of 20 cents from C2 less a whole tone up. */
const CELLS_PER_OCTAVE = 60;
const CELL: Midi = 12 / CELLS_PER_OCTAVE;
const LOWEST: Midi = 34;
const CELLS = Math.floor((hzToMidi(RATE / 2.1) - LOWEST) / CELL);
const HIGHEST_CLAIM: Midi = 90;
const CLAIM_CELLS = Math.round((HIGHEST_CLAIM - LOWEST) / CELL);
const LOWEST_CLAIM = Math.round((35.5 - LOWEST) / CELL);
const HARMONICS = 10;
const cellsAbove = (ratio: number): number => Math.round(CELLS_PER_OCTAVE * Math.log2(ratio));
const HARMONIC_CELLS = Array.from({ length: HARMONICS }, (_, index) => cellsAbove(index + 1));
const HALF_CELLS = [0.5, 1.5, 2.5, 3.5].map(cellsAbove);
const THIRD_CELLS = [1 / 3, 2 / 3, 4 / 3, 5 / 3].map(cellsAbove);
const FALL = 0.86;
const FAINT = 0.002;
const CLAIMS = { overall: 9, fresh: 7, apart: 2 };
const NEIGHBOURS: readonly Midi[] = [12, -12, 19, -19, 24, -24, 7, -7, 5, -5, 28, -28];
const TRACK_AT: readonly Seconds[] = [-0.1, -0.06, -0.03, 0.03, 0.06, 0.1, 0.14];

/** Ratios against almost nothing may run away; no feature means more than this. */
const LIMIT = 4;
const within = (feature: number): number => Math.max(-LIMIT, Math.min(LIMIT, feature));
const compressed = (magnitude: number, reference: number): number =>
  Math.log1p(magnitude / (FAINT * reference)) / Math.log1p(1 / FAINT);

/**
 * How long after a moment its sound is looked at: to the next clear moment, and not much past one of any kind.
 */
export function onsetSpectrumAt(frame: number, next: number, soft: number): Samples {
  const roomTo = (other: number) => (other - frame) * HOP - BEFORE_NEXT - AFTER_ATTACK;
  return Math.max(SHORTEST, Math.min(LONGEST, Math.min(roomTo(next), Math.max(SOFTLY, roomTo(soft)))));
}

/** More than any look is long, in samples. */
const KEYS = 4096;

/** What the sound alone says of a moment: it depends on nothing that comes later than the look itself. */
type Seen = {
  readonly newShare: number;
  readonly pitches: readonly { readonly midi: Midi; readonly features: Float32Array }[];
};

/**
 * Looks at the sound of moments, and remembers: most of it is done while a take is still being played, and
 * not again at its end.
 * A look is known by its frame and length; asked anew it would give the same.
 */
export class SpectrumCache {
  private readonly reader = new SpectrumReader(TRANSFORM, RATE);
  private readonly seen = new Map<number, Seen>();
  /** @param frameAt a frame of the take: those 0.1 s after a moment must be there when it is looked at */
  constructor(
    private readonly store: SignalStore,
    private readonly frameAt: (frame: number) => AnalysisFrame | undefined,
  ) {}

  see(frame: number, length: Samples): Seen {
    const key = frame * KEYS + length;
    let found = this.seen.get(key);
    if (!found) this.seen.set(key, (found = this.look(frame, length)));
    return found;
  }

  /** No moment before this frame is asked for any more. */
  forget(before: number): void {
    for (const key of this.seen.keys()) if (key < before * KEYS) this.seen.delete(key);
  }

  private look(frame: number, length: Samples): Seen {
    const at = frame * HOP;
    const spectrum = new OnsetSpectrum(
      this.spectrum(at + AFTER_ATTACK, length),
      this.spectrum(at - BEFORE_ATTACK - length, length),
    );
    if (spectrum.loudest < 1e-7) return { newShare: 0, pitches: [] };
    return {
      newShare: spectrum.newShare,
      pitches: this.pitchesAt(frame, spectrum).map((midi) => ({
        midi,
        features: Float32Array.from(spectrum.features(midi)),
      })),
    };
  }

  private spectrum(from: Samples, length: Samples): Magnitudes {
    const samples = new Float64Array(length);
    this.store.read(from, samples);
    return this.reader.read(samples);
  }

  private pitchesAt(frame: number, spectrum: OnsetSpectrum): Midi[] {
    const pitches = spectrum.peaks().map((midi) => spectrum.refined(midi));
    for (const ahead of [0.03, 0.06, 0.1]) {
      const candidates = this.frameAt(frame + Math.round(ahead / FRAME_SECONDS))?.candidates ?? [];
      for (const { midi, weight } of candidates.slice(0, 2))
        if (weight > 0.05 && midi > LOWEST + 1) pitches.push(midi);
    }
    const kept: Midi[] = [];
    for (const midi of pitches)
      if (midi < HIGHEST_CLAIM && !kept.some((other) => Math.abs(other - midi) < 0.35)) kept.push(midi);
    return kept
      .map((midi) => ({ midi, salience: spectrum.salience(spectrum.after, midi) }))
      .sort((a, b) => b.salience - a.salience)
      .map(({ midi }) => midi);
  }
}

/**
 * Gathers what a moment's sound says about each pitch that may have begun there: the spectrum after it,
 * before it, and what is new
 * (after less before), each asked at a pitch's harmonics and between them (harmonic summation after
 * Klapuri, ISMIR 2006), beside
 * what the period tracker says.
 */
export class FeatureReader {
  /** @param offset frame of the take at which `frames` and `track` begin */
  constructor(
    private readonly spectra: SpectrumCache,
    private readonly frames: readonly AnalysisFrame[],
    private readonly track: PitchTrack,
    private readonly playing: Decibels,
    private readonly offset = 0,
  ) {}

  /**
   * @param previous and `next`: frames of the clear moments around, or the take's ends; @param soft the
   *   next moment of any kind: what
   * may be none shortens the look less
   */
  claimsAt(onsetCandidate: OnsetCandidate, previous: number, next: number, soft: number): PitchCandidate[] {
    const length = onsetSpectrumAt(onsetCandidate.frame, next, soft);
    const seen = this.spectra.see(onsetCandidate.frame + this.offset, length);
    if (seen.pitches.length === 0) return [];
    const shared = this.sharedFeatures(onsetCandidate, previous, next, soft, length, seen.newShare);
    return seen.pitches.map(({ midi, features }, rank) => ({
      midi,
      features: Float64Array.from(
        [...shared, rank / 10, ...features, ...this.periodFeatures(onsetCandidate.frame, midi)],
        within,
      ),
    }));
  }

  private sharedFeatures(
    onsetCandidate: OnsetCandidate,
    previous: number,
    next: number,
    soft: number,
    length: Samples,
    newShare: number,
  ): number[] {
    const { frames } = this;
    const [low, high] = this.levels(onsetCandidate.frame);
    const weightAround = (from: Seconds, to: Seconds) =>
      this.mean(onsetCandidate.frame, from, to, (frame) =>
        frame.candidates.reduce((sum, { weight }) => sum + weight, 0),
      );
    const here = frames[onsetCandidate.frame]!;
    return [
      Math.log10(onsetCandidate.strength + 0.003),
      onsetCandidate.kind === 'step' ? 1 : 0,
      (high - low) / 20,
      (high - this.playing) / 20,
      (low - this.playing) / 20,
      ...[onsetCandidate.frame - previous, next - onsetCandidate.frame, soft - onsetCandidate.frame].map(
        (gap) => Math.log10(Math.max(1, gap) * FRAME_SECONDS + 0.02),
      ),
      length / LONGEST,
      weightAround(-0.07, -0.02),
      weightAround(0.03, 0.09),
      weightAround(0.09, 0.15),
      newShare,
      here.level > -100 ? this.settling(onsetCandidate.frame) : 0,
      ...this.glideFeatures(onsetCandidate.frame),
    ];
  }

  /** Lowest level just before and highest just after, in dBFS. */
  private levels(at: number): [Decibels, Decibels] {
    // before the first frame there was silence
    let [low, high] = [at < 6 ? -100 : Infinity, -Infinity];
    for (let frame = Math.max(0, at - 6); frame <= at; frame++)
      low = Math.min(low, this.frames[frame]!.level);
    for (let frame = at; frame <= Math.min(this.frames.length - 1, at + 9); frame++)
      high = Math.max(high, this.frames[frame]!.level);
    return [Math.max(-100, low), Math.max(-100, high)];
  }

  /** How far the level has fallen 90 ms on, in units of 20 dB: a muted stroke is gone by then. */
  private settling(at: number): number {
    const later = this.frames[Math.min(this.frames.length - 1, at + Math.round(0.09 / FRAME_SECONDS))]!.level;
    return Math.max(-3, Math.min(1, (later - this.levels(at)[1]) / 20));
  }

  private mean(at: number, from: Seconds, to: Seconds, value: (frame: AnalysisFrame) => number): number {
    let [sum, count] = [0, 0];
    for (
      let frame = at + Math.round(from / FRAME_SECONDS);
      frame <= at + Math.round(to / FRAME_SECONDS);
      frame++
    ) {
      if (frame < 0 || frame >= this.frames.length) continue;
      sum += value(this.frames[frame]!);
      count++;
    }
    return count ? sum / count : 0;
  }

  /**
   * How the tracked pitch moves through the moment: how far, how long the move takes, how long the pitch
   * before was held.
   */
  private glideFeatures(at: number): number[] {
    const glide = glideInto(this.track, at);
    return [
      Math.max(-1, Math.min(1, glide.extent / 7)),
      Math.min(1, glide.seconds / 0.2),
      Math.min(1, glide.held / 0.4),
    ];
  }

  private periodFeatures(at: number, midi: Midi): number[] {
    const weightOf = (pitch: Midi) => (frame: AnalysisFrame) =>
      frame.candidates.reduce(
        (sum, candidate) => sum + (Math.abs(candidate.midi - pitch) < 0.5 ? candidate.weight : 0),
        0,
      );
    const features = [
      this.mean(at, -0.1, -0.05, weightOf(midi)),
      this.mean(at, -0.05, -0.015, weightOf(midi)),
      this.mean(at, 0.015, 0.045, weightOf(midi)),
      this.mean(at, 0.045, 0.09, weightOf(midi)),
      this.mean(at, 0.09, 0.15, weightOf(midi)),
      this.mean(at, 0.03, 0.09, weightOf(midi + 12)),
      this.mean(at, 0.03, 0.09, weightOf(midi - 12)),
      this.mean(at, 0.03, 0.09, weightOf(midi + 19)),
      this.mean(at, 0.03, 0.09, weightOf(midi - 19)),
    ];
    for (const ahead of TRACK_AT) {
      const pitch = this.track[at + Math.round(ahead / FRAME_SECONDS)];
      const away = pitch === undefined || Number.isNaN(pitch) ? NaN : pitch - midi;
      features.push(
        Number.isNaN(away) ? 0 : Math.max(-1, Math.min(1, away / 4)),
        Number.isNaN(away) ? 0 : Math.exp(-((away / 0.4) ** 2)),
      );
    }
    return features;
  }
}

/** How a tracked pitch came to where it is: from the pitch held before, in semitones and seconds. */
export function glideInto(
  track: PitchTrack,
  at: number,
): { extent: number; seconds: Seconds; held: Seconds } {
  const goal = middle(track, at + 1, at + 7);
  if (Number.isNaN(goal)) return NO_GLIDE;
  const end = backWhile(at, 40, 1, (frame) => !(Math.abs(track[frame]! - goal) >= 0.4));
  const start = backWhile(end, 50, 2, (frame) => Math.abs(track[frame]! - (track[frame - 4] ?? NaN)) > 0.12);
  const from = middle(track, start - 6, start);
  if (Number.isNaN(from)) return NO_GLIDE;
  const held = backWhile(start, 80, 1, (frame) => Math.abs((track[frame - 1] ?? NaN) - from) < 0.5);
  return {
    extent: goal - from,
    seconds: (end - start) * FRAME_SECONDS,
    held: (start - held) * FRAME_SECONDS,
  };
}

const NO_GLIDE = { extent: 0, seconds: 0, held: 0 } as const;

/** Goes back from a frame by `step` for as long as `goesOn`, at most so many frames. */
function backWhile(from: number, most: number, step: number, goesOn: (frame: number) => boolean): number {
  let frame = from;
  while (frame > 0 && from - frame < most && goesOn(frame)) frame -= step;
  return frame;
}

function middle(track: PitchTrack, from: number, to: number): number {
  const values = Array.from(track.subarray(Math.max(0, from), Math.max(0, to)))
    .filter((value) => !Number.isNaN(value))
    .sort((a, b) => a - b);
  return values.length ? values[values.length >> 1]! : NaN;
}

/** The spectra of one moment on the log grid. */
class OnsetSpectrum {
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

const cellOf = (midi: Midi): number => Math.round((midi - LOWEST) / CELL);
const peakAt = (values: Float64Array, cell: number): number =>
  Math.max(values[cell - 1] ?? 0, values[cell] ?? 0, values[cell + 1] ?? 0);

const CELL_HZ: readonly Hz[] = Array.from({ length: CELLS }, (_, cell) => midiToHz(LOWEST + cell * CELL));
const HALF_CELL = 2 ** (CELL / 24);

/** The greatest magnitude within each cell. */
function onGrid({ values, binHz }: Magnitudes): Float64Array {
  return Float64Array.from(CELL_HZ, (hz) => {
    const at = hz / binHz;
    const k = Math.floor(at);
    if (k + 1 >= values.length) return 0;
    let most = values[k]! + (values[k + 1]! - values[k]!) * (at - k);
    for (let bin = Math.ceil(at / HALF_CELL); bin <= at * HALF_CELL && bin < values.length; bin++)
      most = Math.max(most, values[bin]!);
    return most;
  });
}

function towardsPeak(values: Float64Array<ArrayBufferLike>, k: number) {
  if (values[k + 1]! > values[k]!) return 1;
  if (values[k - 1]! > values[k]!) return -1;
  return 0;
}
