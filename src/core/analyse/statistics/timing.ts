import { beatsToSeconds, median, type Beats, present, defined } from '../../shared';
import { formPositionOf, chorusAt } from '../../chart';
import type { AnalysisScene } from '../harmonicContext/chordAssignment';
import { driftOf, type Drift } from '../time/drift';
import type { ChorusLean, Lean, LeanEstimate } from '../time/lean';
import { steadyLag } from './placeInForm';
import type { Event } from '../notes/voice';

export type TimeReport = {
  /** Median deviation from the grid after the take's own offset is taken out; positive is late. */
  readonly medianMs: number | null;
  readonly spreadMs: number | null;
  /** How far the take lies behind the grid in all: its lean and what is left of it. */
  readonly offsetMs: number | null;
  readonly lean: Lean;
  /** Each chorus against the grid as it was played. */
  readonly byChorus: readonly ChorusLean[];
  /** Getting faster or slower; null under 24 onsets. */
  readonly drift: Drift | null;
  /** Long eighth to short, 1 = even, 2 = a triplet; null under 8 pairs. */
  readonly swing: number | null;
  readonly upbeats: number | null;
  /** Beats the whole line runs behind the chords; negative: ahead of them. */
  readonly lagBeats: number;
  /** The same by eighth of the bar, those that were played; swung where the take is. */
  readonly byEighth: readonly EighthTime[];
};

/**
 * How onsets lie on one eighth of the bar: `beat` counts from 1, `and` is its second half. Positive is late.
 */
export type EighthTime = {
  readonly beat: number;
  readonly and: boolean;
  readonly count: number;
  readonly medianMs: number;
  /** Where the middle half lies. */ readonly middleMs: readonly [number, number];
};

const FEWEST_PAIRS = 8;
const GOOD_FIT: Beats = 0.08;
const FINEST_GRID_MS = 80;
const NEAR_BEAT: Beats = 0.2;

/**
 * Ahead or behind, spread and swing of a line.
 * Rule T11.1: Subtract the median offset; per beat the coarsest of eighth, swung eighth (the take's ratio),
 * triplet, sixteenth with RMS ≤ 0.08 beat and a
 * grid ≥ 80 ms; deviation median and spread in ms. Swing = median of (second onset − first)/(next beat −
 * second) over beats with exactly two onsets, at least 8 pairs.
 */
export function timingOf(scene: AnalysisScene, events: readonly Event[], estimate: LeanEstimate): TimeReport {
  let rhythm = known.get(events);
  if (!rhythm) known.set(events, (rhythm = rhythmOf(scene, events, estimate)));
  return { ...rhythm, lagBeats: steadyLag(scene) };
}

type Rhythm = Omit<TimeReport, 'lagBeats'>;

/** No plan and no home scale changes when a note began: kept with the events, which are those of one take. */
const known = new WeakMap<readonly Event[], Rhythm>();

function rhythmOf(scene: AnalysisScene, events: readonly Event[], estimate: LeanEstimate): Rhythm {
  const { lean, byChorus } = estimate;
  const inMs = (beats: Beats) => beatsToSeconds(beats, scene.timeline.tempo) * 1000;
  const onsets = events.map(({ onset }) => onset);
  const lag =
    median(onsets.map((onset) => onset - Math.round(onset)).filter((off) => Math.abs(off) <= NEAR_BEAT)) ?? 0;
  const swing = swingOf(
    onsets.map((onset) => onset - lag),
    scene.windows.on,
  );
  const second = swing === null ? 0.5 : swing / (1 + swing);
  const eighths = [0, second, 1];
  const offset = median(onsets.map((onset) => deviation(onset, eighths)));
  if (offset === null)
    return {
      medianMs: null,
      spreadMs: null,
      offsetMs: null,
      lean,
      byChorus,
      drift: null,
      swing,
      upbeats: null,
      byEighth: [],
    };
  const lines = grids(swing === null ? null : second, inMs);
  const left: number[] = [];
  for (const beat of byBeat(onsets, offset))
    for (const off of deviationsOf(beat, lines)) left.push(inMs(off));
  const up = onsets.filter((onset) => Math.abs(onset - Math.round(onset)) > NEAR_BEAT).length;
  return {
    medianMs: median(left),
    spreadMs: spreadOf(left),
    offsetMs: lean.takenMs + inMs(offset),
    lean,
    byChorus,
    drift: driftOf(drifting(onsets, eighths, inMs, scene, estimate)),
    swing,
    upbeats: up / onsets.length,
    byEighth: byEighth(
      scene,
      onsets.map((onset) => onset - offset),
      second,
      inMs,
    ),
  };
}

/** Standard deviation of all values. */
function spreadOf(values: readonly number[]): number {
  let [mean, square] = [0, 0];
  for (const value of values) mean += value / values.length;
  for (const value of values) square += (value - mean) ** 2;
  return Math.sqrt(square / values.length);
}

/** Each onset near a place of the beat with its milliseconds off it, as it was played. */
const drifting = (
  onsets: readonly Beats[],
  grid: readonly number[],
  inMs: (beats: Beats) => number,
  { timeline }: AnalysisScene,
  { beatsOf }: LeanEstimate,
): { at: Beats; ms: number }[] => {
  const near: { at: Beats; ms: number }[] = [];
  for (const at of onsets) {
    const off = deviation(at, grid);
    if (Math.abs(off) <= NEAR_BEAT) near.push({ at, ms: inMs(off + beatsOf(chorusAt(timeline, at))) });
  }
  return near;
};

/** Onsets within a fifth of a beat of an eighth, by its place in the bar. */
function byEighth(
  { timeline }: AnalysisScene,
  onsets: readonly Beats[],
  second: Beats,
  inMs: (beats: Beats) => number,
): EighthTime[] {
  const groups = new Map<number, number[]>();
  for (const onset of onsets) {
    const beat = Math.floor(onset + NEAR_BEAT);
    const inBeat = onset - beat;
    const and = Math.abs(inBeat) > Math.abs(inBeat - second);
    const away = and ? inBeat - second : inBeat;
    if (beat < 0 || Math.abs(away) > NEAR_BEAT) continue;
    const place = 2 * Math.floor(formPositionOf(timeline, beat + 1e-6).beatInBar) + (and ? 1 : 0);
    const group = groups.get(place);
    if (group) group.push(inMs(away));
    else groups.set(place, [inMs(away)]);
  }
  return [...groups]
    .sort(([a], [b]) => a - b)
    .map(([place, values]) => {
      const sorted = values.sort((a, b) => a - b);
      const at = (share: number) =>
        defined(sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]);
      return {
        beat: (place >> 1) + 1,
        and: place % 2 === 1,
        count: sorted.length,
        medianMs: present(median(sorted)),
        middleMs: [at(0.25), at(0.75)],
      };
    });
}

/** Eighth, swung eighth at the take's own ratio, triplet, sixteenth: coarsest first, none finer than 80 ms. */
function grids(second: Beats | null, inMs: (beats: Beats) => number): number[][] {
  const all: [Beats, number[]][] = [
    [0.5, [0, 0.5, 1]],
    ...(second === null ? [] : [[Math.min(second, 1 - second), [0, second, 1]] as [Beats, number[]]]),
    [1 / 3, [0, 1 / 3, 2 / 3, 1]],
    [0.25, [0, 0.25, 0.5, 0.75, 1]],
  ];
  return all.filter(([step], index) => index === 0 || inMs(step) >= FINEST_GRID_MS).map(([, lines]) => lines);
}

/**
 * Onsets grouped by the beat they fall in; one just before a beat belongs to it. Onsets are in order, so a
 * beat's are neighbours.
 */
function byBeat(onsets: readonly Beats[], offset: Beats): Beats[][] {
  const groups: Beats[][] = [];
  let last = NaN;
  for (const onset of onsets) {
    const at = onset - offset;
    const beat = Math.floor(at + 0.12);
    if (beat !== last) groups.push([]);
    defined(groups[groups.length - 1]).push(at - beat);
    last = beat;
  }
  return groups;
}

/** Deviations from the coarsest grid that fits within 0.08 beat RMS, else from the one that fits best. */
function deviationsOf(onsets: readonly Beats[], lines: readonly number[][]): readonly Beats[] {
  let best: { readonly grid: readonly number[]; readonly square: number } | null = null;
  for (const grid of lines) {
    let square = 0;
    for (const onset of onsets) square += deviation(onset, grid) ** 2 / onsets.length;
    if (!best || square < best.square) best = { grid, square };
    if (square <= GOOD_FIT * GOOD_FIT) break;
  }
  const { grid } = present(best);
  return onsets.map((onset) => deviation(onset, grid));
}

function deviation(onset: Beats, grid: readonly number[]): Beats {
  const inBeat = onset - Math.floor(onset);
  let nearest = Infinity;
  for (const line of grid) if (Math.abs(inBeat - line) < Math.abs(nearest)) nearest = inBeat - line;
  return nearest;
}

/**
 * Median of (second onset − first) / (next beat − second) over beats with exactly two onsets, the first on the
 * beat.
 */
function swingOf(onsets: readonly Beats[], window: Beats): number | null {
  const ratios: number[] = [];
  onsets.forEach((first, index) => {
    const beat = Math.round(first);
    const second = onsets[index + 1];
    if (Math.abs(first - beat) > window || second === undefined) return;
    const end = beat + 1 - window;
    if (second < end && (onsets[index + 2] ?? Infinity) >= end)
      ratios.push((second - first) / (beat + 1 - second));
  });
  return ratios.length >= FEWEST_PAIRS ? median(ratios) : null;
}
