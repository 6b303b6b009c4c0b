import { beatsToSeconds, median, type Beats } from '../vocabulary';
import type { Scene } from './belonging';
import type { Event } from './voice';

export type TimeReport = {
  /** Median deviation from the grid after the take's own offset is taken out; positive is late. */
  readonly medianMs: number | null;
  readonly spreadMs: number | null;
  /** The median offset that was taken out. */
  readonly offsetMs: number | null;
  /** Where the second of two notes in a beat falls, 0.5 = even; null under 8 pairs. */
  readonly swing: number | null;
  readonly upbeats: number | null;
};

const FEWEST_PAIRS = 8;
const GOOD_FIT: Beats = 0.08;
const FINEST_GRID_MS = 80;

/** Ahead or behind, spread and swing of a line (2-theory, "Time, line, arc"). */
export function timingOf(scene: Scene, events: readonly Event[]): TimeReport {
  const swing = swingOf(scene, events);
  const inMs = (beats: Beats) => beatsToSeconds(beats, scene.timeline.tempo) * 1000;
  const offset = median(events.map(({ onset }) => deviation(onset, [0, swing ?? 0.5, 1])));
  if (offset === null) return { medianMs: null, spreadMs: null, offsetMs: null, swing, upbeats: null };
  const left = byBeat(events, offset).flatMap((onsets) => deviationsOf(onsets, grids(swing, inMs)).map(inMs));
  const mean = left.reduce((sum, value) => sum + value, 0) / left.length;
  const spread = Math.sqrt(left.reduce((sum, value) => sum + (value - mean) ** 2, 0) / left.length);
  const up = events.filter(({ onset }) => Math.abs(onset - Math.round(onset)) > 0.2).length;
  return { medianMs: median(left), spreadMs: spread, offsetMs: inMs(offset), swing, upbeats: up / events.length };
}

/** Eighth, swung eighth at the take's own ratio, triplet, sixteenth: coarsest first, none finer than 80 ms. */
function grids(swing: number | null, inMs: (beats: Beats) => number): number[][] {
  const all: [Beats, number[]][] = [
    [0.5, [0, 0.5, 1]], ...(swing === null ? [] : [[Math.min(swing, 1 - swing), [0, swing, 1]] as [Beats, number[]]]), [1 / 3, [0, 1 / 3, 2 / 3, 1]], [0.25, [0, 0.25, 0.5, 0.75, 1]],
  ];
  return all.filter(([step], index) => index === 0 || inMs(step) >= FINEST_GRID_MS).map(([, lines]) => lines);
}

/** Onsets grouped by the beat they fall in; one just before a beat belongs to it. */
function byBeat(events: readonly Event[], offset: Beats): Beats[][] {
  const beats = new Map<number, Beats[]>();
  for (const { onset } of events) {
    const at = onset - offset;
    const beat = Math.floor(at + 0.12);
    beats.set(beat, [...(beats.get(beat) ?? []), at - beat]);
  }
  return [...beats.values()];
}

/** Deviations from the coarsest grid that fits within 0.08 beat RMS, else from the one that fits best. */
function deviationsOf(onsets: readonly Beats[], lines: readonly number[][]): Beats[] {
  const fits = lines.map((grid) => onsets.map((onset) => deviation(onset, grid)));
  const rms = (values: readonly number[]) => Math.sqrt(values.reduce((sum, value) => sum + value * value, 0) / values.length);
  return fits.find((fit) => rms(fit) <= GOOD_FIT) ?? fits.reduce((best, fit) => (rms(fit) < rms(best) ? fit : best));
}

function deviation(onset: Beats, grid: readonly number[]): Beats {
  const inBeat = onset - Math.floor(onset);
  return grid.map((line) => inBeat - line).reduce((best, value) => (Math.abs(value) < Math.abs(best) ? value : best));
}

/** Median place of the second onset over beats with exactly two onsets, the first near the beat. */
function swingOf({ windows }: Scene, events: readonly Event[]): number | null {
  const ratios: number[] = [];
  events.forEach((event, index) => {
    const beat = Math.round(event.onset);
    if (Math.abs(event.onset - beat) > windows.on) return;
    const inside = events.slice(index + 1, index + 6).filter(({ onset }) => onset < beat + 1 - windows.on);
    if (inside.length === 1) ratios.push((inside[0]!.onset - event.onset) / (beat + 1 - event.onset));
  });
  return ratios.length >= FEWEST_PAIRS ? median(ratios) : null;
}
