import { soundingAt, strongBeats, formPositionOf, type Timeline } from '../../chart';
import { hasTone } from '../../music';
import { beatsToSeconds, median, secondsToBeats, elementAt, type Beats } from '../../shared';
import type { PlayedNote } from '../notes/played';

/** The constant offset of one chorus from the grid, in ms (positive is late), and the spread round it. */
export type ChorusLean = {
  /** Counts from 1. */
  readonly chorus: number;
  readonly onsets: number;
  /** Null where too few onsets tell. */
  readonly leanMs: number | null;
  readonly spreadMs: number | null;
};

/** How a take as a whole lies against the grid (T1.6). */
export type Lean = {
  /** Milliseconds behind the grid; null where too few onsets tell. */
  readonly ms: number | null;
  /** What was taken out of the onsets before anything was judged: the middle over the choruses. */
  readonly takenMs: number;
  /** Does one offset fit clearly better than those a grid unit away? */
  readonly isDecided: boolean;
  /** Was the device's latency measured, so that what is left is the player's own? */
  readonly isMeasured: boolean;
};

export type LeanEstimate = {
  readonly lean: Lean;
  readonly byChorus: readonly ChorusLean[];
  /** What to take out of the onsets of a chorus (from 0), in beats. */
  readonly beatsOf: (chorus: number) => Beats;
};

/** Fewer onsets than this tell no lean. */
const ENOUGH = 16;
const ENOUGH_IN_CHORUS = 10;
/** No player sits farther from the beat than this, and no usual latency is longer. */
const FARTHEST_MS = 160;
const STEP_MS = 4;
/** Offsets closer together than this are one. */
const APART_MS = 50;
/** Under this nothing is taken out: rounding, not time. */
const NOTHING_MS = 0.5;
/** So often the middle is taken anew, until it stands still. */
const SETTLING = 4;
/** A chorus differs from the take by so much at most. */
const CHORUS_MS = 45;
/** More is never taken out undecided (T1.5). */
export const MOST_UNDECIDED_MS = 30;
/** The best offset has to be so many times as likely as the next, as a logarithm. */
const CLEARLY = 3;
/** Notes are not independent of one another: each counts for a part. */
const TEMPER = 0.35;
/** What is usual, where the latency was measured and where not. */
const PRIOR_MS = { measured: 45, unmeasured: 70 } as const;

/**
 * The lean of a take: the constant offset of its onsets from the played grid, by chorus.
 * Rule T1.6: deviations are known only modulo the grid; the offsets that fit it are weighed by chord tones on
 * beats, the long–short pattern of swing, and what is usual of latency.
 */
export function leanOf(
  notes: readonly PlayedNote[],
  timeline: Timeline,
  isLatencyMeasured: boolean,
): LeanEstimate {
  const onsets = lineOnsets(notes, timeline);
  if (onsets.length < ENOUGH) return noLean(isLatencyMeasured);
  const toMs = (beats: Beats) => beatsToSeconds(beats, timeline.tempo) * 1000;
  const toBeats = (ms: number) => secondsToBeats(ms / 1000, timeline.tempo);
  const fit = new GridFit(onsets, toBeats);
  const priorMs = PRIOR_MS[isLatencyMeasured ? 'measured' : 'unmeasured'];
  const peaks = hopeful(fit.peaks(), onsets.length);
  const weighed = peaks
    .map(({ ms, likelihood }) => ({
      ms,
      score:
        TEMPER * (likelihood + (peaks.length > 1 ? harmonyFit(onsets, timeline, toBeats(ms)) : 0)) -
        (ms * ms) / (2 * priorMs * priorMs),
    }))
    .sort((a, b) => b.score - a.score);
  const best = elementAt(weighed, 0);
  const next = weighed[1];
  const isDecided = !next || best.score - next.score >= CLEARLY || Math.abs(best.ms) <= MOST_UNDECIDED_MS / 2;
  const exact = settled(fit, best.ms, toMs);
  const taken = isDecided || Math.abs(exact) <= MOST_UNDECIDED_MS ? exact : 0;
  // a lean that could be nobody's is taken out where it is small, a larger one only where the onsets tell it
  const isTold = TEMPER * (fit.likelihoodAt(best.ms) - fit.likelihoodAt(0)) >= CLEARLY;
  const isTaken = Math.abs(taken) >= NOTHING_MS && (isTold || Math.abs(taken) <= MOST_UNDECIDED_MS);
  const byChorus = chorusLeans(onsets, timeline, fit, exact, toMs);
  const takenOf = (chorus: number): number => {
    if (!isTaken) return 0;
    const own = byChorus.find((one) => one.chorus === chorus + 1)?.leanMs;
    return own === null || own === undefined || !isDecided ? taken : own;
  };
  return {
    lean: {
      ms: exact,
      takenMs: isTaken ? taken : 0,
      isDecided,
      isMeasured: isLatencyMeasured,
    },
    byChorus,
    beatsOf: (chorus) => toBeats(takenOf(chorus)),
  };
}

/** Chord tones on beats weigh less than this per onset: what fits the rhythm so much worse needs no second look. */
const MOST_HARMONY = 0.4;

const hopeful = (peaks: readonly Peak[], onsets: number): Peak[] =>
  peaks.filter(({ likelihood }) => likelihood >= (peaks[0]?.likelihood ?? 0) - MOST_HARMONY * onsets);

const noLean = (isMeasured: boolean): LeanEstimate => ({
  lean: { ms: null, takenMs: 0, isDecided: false, isMeasured },
  byChorus: [],
  beatsOf: () => 0,
});

/** The middle of the deviations round an offset, taken anew until it stands still. */
function settled(fit: GridFit, from: number, toMs: (beats: Beats) => number): number {
  let ms = from;
  for (let round = 0; round < SETTLING; round++) ms += median(fit.deviations(ms).map(toMs)) ?? 0;
  return ms;
}

/** A lean that is known already, the same in all choruses. */
export const knownLean = (ms: number, { tempo }: Timeline, isMeasured: boolean): LeanEstimate => ({
  lean: { ms, takenMs: ms, isDecided: true, isMeasured },
  byChorus: [],
  beatsOf: () => secondsToBeats(ms / 1000, tempo),
});

type Peak = { readonly ms: number; readonly likelihood: number };
type Onset = { readonly beat: Beats; readonly pc: number };

/** One onset for what is struck together: the highest of its notes. */
function lineOnsets(notes: readonly PlayedNote[], timeline: Timeline): Onset[] {
  const together = secondsToBeats(0.05, timeline.tempo);
  const isOrdered = notes.every(
    (note, index) => index === 0 || notes[index - 1]!.onsetBeat <= note.onsetBeat,
  );
  const sorted = isOrdered ? notes : [...notes].sort((a, b) => a.onsetBeat - b.onsetBeat || a.midi - b.midi);
  const onsets: { beat: Beats; midi: number }[] = [];
  for (const { onsetBeat, midi } of sorted) {
    const last = onsets[onsets.length - 1];
    if (last && onsetBeat - last.beat < together) last.midi = Math.max(last.midi, midi);
    else onsets.push({ beat: onsetBeat, midi });
  }
  return onsets.map(({ beat, midi }) => ({ beat, pc: ((Math.round(midi) % 12) + 12) % 12 }));
}

const BINS = 240;
/** Where a beat's second eighth may lie: even, light swing, a triplet's. */
const SECONDS: readonly Beats[] = [0.5, 0.58, 2 / 3];
const FINER: readonly Beats[] = [0.25, 0.75, 1 / 3, 2 / 3];
const SPREAD_MS = 24;

/** How well the onsets fit the grid at an offset, by a histogram of their places in the beat. */
class GridFit {
  private readonly histogram = new Array<number>(BINS).fill(0);
  private readonly densities: readonly (readonly number[])[];
  constructor(
    private readonly onsets: readonly Onset[],
    private readonly toBeats: (ms: number) => Beats,
  ) {
    for (const { beat } of onsets) {
      const bin = Math.floor((beat - Math.floor(beat)) * BINS) % BINS;
      this.histogram[bin] = elementAt(this.histogram, bin) + 1;
    }
    this.densities = SECONDS.map((second) => densityOf(second, toBeats(SPREAD_MS)));
  }

  /** The offsets that fit better than all within 50 ms of them, the best first. */
  peaks(): Peak[] {
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
      const count = this.histogram[bin]!;
      if (count > 0) sum += count * density[(((bin - shift) % BINS) + BINS) % BINS]!;
    }
    return sum;
  }

  /** Beats from the nearest place of the grid, of the onsets that lie near one. */
  deviations(ms: number, onsets: readonly Onset[] = this.onsets): Beats[] {
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
    return elementAt(SECONDS, fits.indexOf(Math.max(...fits)));
  }
}

/** The logarithm of the chance of an onset at each place in the beat. */
function densityOf(second: Beats, spread: Beats): number[] {
  const places = [
    ...[0, second].map((at) => ({ at, weight: 0.38 })),
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

/** How much likelier a chord tone is on a strong beat, on a beat, and off it (common practice, no source). */
const CHORD_TONES = { strong: 0.8, beat: 0.7, off: 0.55 } as const;
const ON_BEAT: Beats = 0.13;

/** Do chord tones fall on the beats, once an offset is taken out? A logarithm of likelihood. */
function harmonyFit(onsets: readonly Onset[], timeline: Timeline, shift: Beats): number {
  let sum = 0;
  for (const { beat, pc } of onsets) {
    const at = beat - shift;
    if (at < -ON_BEAT) continue;
    const { chord } = soundingAt(timeline, Math.max(0, at + ON_BEAT / 2)).span;
    if (!chord) continue;
    const chance = CHORD_TONES[placeOf(timeline, at)];
    sum += Math.log(hasTone(chord, pc) ? chance : 1 - chance);
  }
  return sum;
}

function placeOf(timeline: Timeline, at: Beats): keyof typeof CHORD_TONES {
  const nearest = Math.round(at);
  if (Math.abs(at - nearest) > ON_BEAT || nearest < 0) return 'off';
  const { bar, beatInBar } = formPositionOf(timeline, nearest + 1e-6);
  return strongBeats(elementAt(timeline.bars, bar).meter).includes(Math.round(beatInBar)) ? 'strong' : 'beat';
}

/** Each chorus round the take's own lean; one that differs from it by too much is not told by its onsets. */
function chorusLeans(
  onsets: readonly Onset[],
  { formBeats }: Timeline,
  fit: GridFit,
  exactMs: number,
  toMs: (beats: Beats) => number,
): ChorusLean[] {
  const groups = new Map<number, Onset[]>();
  for (const onset of onsets) {
    const chorus = Math.max(0, Math.floor(onset.beat / formBeats + 1e-6));
    const group = groups.get(chorus);
    if (group) group.push(onset);
    else groups.set(chorus, [onset]);
  }
  return [...groups].map(([chorus, own]) => {
    const off = fit.deviations(exactMs, own).map(toMs);
    const middle = median(off);
    const told = middle !== null && off.length >= ENOUGH_IN_CHORUS && Math.abs(middle) <= CHORUS_MS;
    return {
      chorus: chorus + 1,
      onsets: own.length,
      leanMs: told ? exactMs + middle : null,
      spreadMs: told ? Math.sqrt(off.reduce((sum, one) => sum + (one - middle) ** 2, 0) / off.length) : null,
    };
  });
}
