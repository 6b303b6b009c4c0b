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

/** Ahead or behind, spread and swing of a line (2-theory, "Time, line, arc"; grids by beat follow with the judgement issue). */
export function timingOf(scene: Scene, events: readonly Event[]): TimeReport {
  const swing = swingOf(scene, events);
  const grid = [0, swing ?? 0.5, 1, 1 / 3, 2 / 3];
  const raw = events.map(({ onset }) => nearestDeviation(onset, grid));
  const offset = median(raw);
  const inMs = (beats: Beats) => beatsToSeconds(beats, scene.timeline.tempo) * 1000;
  if (offset === null) return { medianMs: null, spreadMs: null, offsetMs: null, swing, upbeats: null };
  const left = raw.map((value) => inMs(value - offset));
  const mean = left.reduce((sum, value) => sum + value, 0) / left.length;
  const spread = Math.sqrt(left.reduce((sum, value) => sum + (value - mean) ** 2, 0) / left.length);
  const up = events.filter(({ onset }) => Math.abs(onset - Math.round(onset)) > 0.2).length;
  return { medianMs: median(left), spreadMs: spread, offsetMs: inMs(offset), swing, upbeats: up / events.length };
}

function nearestDeviation(onset: Beats, grid: readonly number[]): Beats {
  const inBeat = onset - Math.floor(onset);
  return grid.map((line) => inBeat - line).reduce((best, value) => (Math.abs(value) < Math.abs(best) ? value : best));
}

/** Median place of the second onset over beats with exactly two onsets, the first near the beat. */
function swingOf({ windows }: Scene, events: readonly Event[]): number | null {
  const ratios: number[] = [];
  events.forEach((event, index) => {
    const beat = Math.round(event.onset);
    if (Math.abs(event.onset - beat) > windows.on) return;
    const inside = events.slice(index + 1).filter(({ onset }) => onset < beat + 1 - windows.on);
    if (inside.length === 1) ratios.push((inside[0]!.onset - event.onset) / (beat + 1 - event.onset));
  });
  return ratios.length >= FEWEST_PAIRS ? median(ratios) : null;
}
