import { midiToHz, type Hz, type Midi, type Samples } from '../shared';
import { SpectrumReader, type SignalStore } from '../sound';
import { framesOf, HOP, RATE } from './frames';
import type { Steps } from './looks';
import type { NoteOnset } from './noteOnsets';
import type { PitchTrack } from './path';

const TRANSFORM = 2048;
const WINDOW: Samples = 1024;
/** A spectrum every two frames. */
const EVERY = 2;
const LONGEST = framesOf(1.5);
/** Pitches asked: so far to each side, in steps of a tenth of a semitone. */
const REACH: Midi = 5;
const STEP: Midi = 0.1;
const STATES = 2 * Math.round(REACH / STEP) + 1;
const RATIO = 2 ** (STEP / 12);
const BIN: Hz = RATE / TRANSFORM;
const PARTIALS = 8;
const FALL = 0.86;
/** No finger slides by more in 12 ms, and each tenth it moves has its price. */
const FASTEST = 8;
const PRICE = 0.012;
/** Where less than this of its best is left the string says nothing. */
const LEAST = 0.3;

/**
 * The pitch of one string from its stroke on while others ring: where its partials, less what sounded before the stroke,
 * lie over one another (harmonic summation as in `features.ts`), as the one best path (Viterbi). A period tracker hears
 * all strings at once and loses it.
 */
export class StringTraces {
  private readonly reader = new SpectrumReader(TRANSFORM, RATE);
  private readonly samples = new Float64Array(WINDOW);
  private readonly roots = new Float64Array(TRANSFORM / 2);

  constructor(private readonly store: SignalStore) {}

  /**
   * The pitch in each frame from `from` up to `to`; NaN where too little is left of the string.
   * @param from the stroke, in frames of the take
   * @param around the pitch that is believed to begin
   */
  trace(from: number, to: number, around: Midi): Float64Array {
    const count = Math.floor(Math.min(to - from, LONGEST) / EVERY);
    const found = new Float64Array(to - from).fill(NaN);
    if (count < 3) return found;
    const before = neighboursOf(this.spectrum((from - framesOf(0.008)) * HOP - WINDOW / 2));
    const grams = Array.from({ length: count }, (_, index) =>
      this.summed(this.spectrum((from + index * EVERY) * HOP), before, around),
    );
    const most = Math.max(...grams.map((gram) => Math.max(...gram)));
    if (!(most > 0)) return found;
    const path = bestPath(grams.map((gram) => gram.map((value) => value / most)));
    const own = path.map((state, index) => grams[index]![state]!);
    const best = Math.max(...own);
    path.forEach((state, index) => {
      if (own[index]! < LEAST * best) return;
      found.fill(around - REACH + state * STEP, index * EVERY, (index + 1) * EVERY);
    });
    return found;
  }

  private spectrum(centre: Samples): Float64Array {
    this.store.read(centre - WINDOW / 2, this.samples);
    return this.reader.read(this.samples).values;
  }

  /** How much there is, and was not before, of the partials of each pitch asked. */
  private summed(values: Float64Array, before: Float64Array, around: Midi): Float64Array {
    const { roots } = this;
    for (let bin = 0; bin < roots.length; bin++)
      roots[bin] = Math.sqrt(Math.max(0, values[bin]! - before[bin]!));
    const sums = new Float64Array(STATES);
    let at = midiToHz(around - REACH) / BIN;
    for (let state = 0; state < STATES; state++, at *= RATIO) {
      let [sum, weight] = [0, 1];
      for (let partial = 1; partial <= PARTIALS; partial++, weight *= FALL) {
        const bin = Math.floor(at * partial);
        if (bin + 1 >= roots.length) break;
        sum += weight * (roots[bin]! + (roots[bin + 1]! - roots[bin]!) * (at * partial - bin));
      }
      sums[state] = sum;
    }
    return sums;
  }
}

/** The greatest of each bin and its two neighbours. */
const neighboursOf = (values: Float64Array): Float64Array =>
  values.map((value, bin) => Math.max(value, values[bin - 1] ?? 0, values[bin + 1] ?? 0));

/** The states that together are worth most, where each step has its price. */
function bestPath(worth: readonly Float64Array[]): number[] {
  let totals = Float64Array.from(worth[0]!);
  const origins: Int16Array[] = [];
  for (const column of worth.slice(1)) {
    const [next, origin] = [new Float64Array(STATES), new Int16Array(STATES)];
    for (let state = 0; state < STATES; state++) {
      let [best, from] = [-Infinity, state];
      for (
        let other = Math.max(0, state - FASTEST);
        other <= Math.min(STATES - 1, state + FASTEST);
        other++
      ) {
        const value = totals[other]! - PRICE * Math.abs(other - state);
        if (value > best) [best, from] = [value, other];
      }
      next[state] = best + column[state]!;
      origin[state] = from;
    }
    origins.push(origin);
    totals = next;
  }
  const path = [totals.indexOf(Math.max(...totals))];
  for (let index = origins.length - 1; index >= 0; index--) path.unshift(origins[index]![path[0]!]!);
  return path;
}

/** A note is plain where its first part stands at the pitch believed, but for so many frames. */
const FIRST_PART = framesOf(0.35);
const OFF: Midi = 0.5;
const PLAIN = 0.9;
const PICK = 5;
/** No gesture fits into less. */
const SHORTEST = framesOf(0.1);

const isPlain = (part: Float64Array, midi: Midi): boolean =>
  part.filter((pitch) => Math.abs(pitch - midi) < OFF).length >= PLAIN * part.length;

/**
 * The tracked pitch, corrected where one string was struck and the tracker lost it or follows another.
 * @param trace see `StringTraces.trace`
 */
export function* followStrings(
  noteOnsets: readonly NoteOnset[],
  track: PitchTrack,
  trace: (from: number, to: number, around: Midi) => Float64Array,
): Steps<PitchTrack> {
  const followed = track.slice();
  for (const [index, { frame, starts }] of noteOnsets.entries()) {
    const [start] = starts;
    const next = noteOnsets[index + 1]?.frame ?? track.length;
    if (starts.length !== 1 || !start || next - frame < SHORTEST) continue;
    if (isPlain(track.subarray(frame + PICK, Math.min(next, frame + FIRST_PART)), start.midi)) continue;
    trace(frame, next, start.midi).forEach((pitch, offset) => {
      const known = track[frame + offset]!;
      if (!Number.isNaN(pitch) && !(Math.abs(known - pitch) < OFF)) followed[frame + offset] = pitch;
    });
    yield;
  }
  return followed;
}
