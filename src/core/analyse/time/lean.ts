import { spanIndexAt, strongBeats, formPositionOf, type Timeline, chorusAt } from '../../chart';
import { hasTone, type Chord } from '../../music';
import { beatsToSeconds, median, secondsToBeats, type Beats, defined } from '../../shared';
import type { PlayedNote } from '../notes/played';
import { GridFit, type GridOnset, type GridPeak } from './gridFit';

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
/** Under this nothing is taken out: rounding, not time. */
const NOTHING_MS = 0.5;
/** So often the middle is taken anew, until it stands still. */
const SETTLING = 4;
const STANDS_STILL_MS = 1e-6;
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
  const best = defined(weighed[0]);
  const next = weighed[1];
  // an offset that the onsets do not tell is nobody's lean, unless it is small
  const isTold = TEMPER * (fit.likelihoodAt(best.ms) - fit.likelihoodAt(0)) >= CLEARLY;
  const from = isTold || Math.abs(best.ms) <= MOST_UNDECIDED_MS ? best.ms : 0;
  const isDecided = !next || best.score - next.score >= CLEARLY || Math.abs(from) <= MOST_UNDECIDED_MS / 2;
  const exact = settled(fit, from, toMs);
  const taken = isDecided || Math.abs(exact) <= MOST_UNDECIDED_MS ? exact : 0;
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

const hopeful = (peaks: readonly GridPeak[], onsets: number): GridPeak[] =>
  peaks.filter(({ likelihood }) => likelihood >= (peaks[0]?.likelihood ?? 0) - MOST_HARMONY * onsets);

const noLean = (isMeasured: boolean): LeanEstimate => ({
  lean: { ms: null, takenMs: 0, isDecided: false, isMeasured },
  byChorus: [],
  beatsOf: () => 0,
});

/** The middle of the deviations round an offset, taken anew until it stands still. */
function settled(fit: GridFit, from: number, toMs: (beats: Beats) => number): number {
  let ms = from;
  for (let round = 0; round < SETTLING; round++) {
    const off = toMs(median(fit.deviations(ms)) ?? 0);
    ms += off;
    if (Math.abs(off) < STANDS_STILL_MS) break;
  }
  return ms;
}

/** A lean that is known already, the same in all choruses. */
export const knownLean = (ms: number, { tempo }: Timeline, isMeasured: boolean): LeanEstimate => ({
  lean: { ms, takenMs: ms, isDecided: true, isMeasured },
  byChorus: [],
  beatsOf: () => secondsToBeats(ms / 1000, tempo),
});

/** One onset for what is struck together: the highest of its notes. */
function lineOnsets(notes: readonly PlayedNote[], timeline: Timeline): GridOnset[] {
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

/** How much likelier a chord tone is on a strong beat, on a beat, and off it (common practice, no source). */
const likelihoods = (chance: number) => ({ inChord: Math.log(chance), foreign: Math.log(1 - chance) });
const CHORD_TONES = { strong: likelihoods(0.8), beat: likelihoods(0.7), off: likelihoods(0.55) } as const;
const ON_BEAT: Beats = 0.13;

/** Do chord tones fall on the beats, once an offset is taken out? A logarithm of likelihood. */
function harmonyFit(onsets: readonly GridOnset[], timeline: Timeline, shift: Beats): number {
  let sum = 0;
  const tones = timeline.chordSpans.map(({ chord }) => chord && tonesOf(chord));
  for (const { beat, pc } of onsets) {
    const at = beat - shift;
    if (at < -ON_BEAT) continue;
    const inChord = tones[spanIndexAt(timeline, Math.max(0, at + ON_BEAT / 2))];
    if (!inChord) continue;
    const chances = CHORD_TONES[placeOf(timeline, at)];
    sum += inChord[pc] ? chances.inChord : chances.foreign;
  }
  return sum;
}

/** By pitch class: is it a tone of the chord? */
const tonesOf = (chord: Chord): readonly boolean[] =>
  Array.from({ length: 12 }, (_, pc) => hasTone(chord, pc));

function placeOf(timeline: Timeline, at: Beats): keyof typeof CHORD_TONES {
  const nearest = Math.round(at);
  if (Math.abs(at - nearest) > ON_BEAT || nearest < 0) return 'off';
  const { bar, beatInBar } = formPositionOf(timeline, nearest + 1e-6);
  return strongBeats(defined(timeline.bars[bar]).meter).includes(Math.round(beatInBar)) ? 'strong' : 'beat';
}

/** Each chorus round the take's own lean; one that differs from it by too much is not told by its onsets. */
function chorusLeans(
  onsets: readonly GridOnset[],
  { formBeats }: Timeline,
  fit: GridFit,
  exactMs: number,
  toMs: (beats: Beats) => number,
): ChorusLean[] {
  const groups = new Map<number, GridOnset[]>();
  for (const onset of onsets) {
    const chorus = chorusAt({ formBeats }, onset.beat);
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

/** Onsets as if the player had sat on the grid: what is judged is the line, not the latency (T1.6). */
export const withoutLean = (
  notes: readonly PlayedNote[],
  { formBeats }: Timeline,
  { lean, beatsOf }: LeanEstimate,
): readonly PlayedNote[] =>
  lean.takenMs === 0
    ? notes
    : notes.map((note) => ({
        ...note,
        onsetBeat: note.onsetBeat - beatsOf(chorusAt({ formBeats }, note.onsetBeat)),
      }));
