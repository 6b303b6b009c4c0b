import { framesOf, type AnalysisFrame } from './frames';

/** An attack: the frame where it was struck and how strongly it stood out of its surroundings. */
export type Onset = { readonly frame: number; readonly strength: number; readonly rise: number };

const PEAK_REACH = framesOf(0.02);
const MEDIAN_REACH = framesOf(0.12);
const LEAST_GAP = framesOf(0.045);
/** The spectrum sees an attack before it is at its centre: measured on recorded notes whose onset is known. */
const CORRECTION = framesOf(0.006);
const THRESHOLD = { factor: 1.5, floor: 0.035 };
const LENIENT = { factor: 1.15, floor: 0.015 };
const LENIENT_GAP = framesOf(0.035);
const RISE_BEFORE = framesOf(0.03);
const SILENT = -100;
const RISE_AFTER = framesOf(0.05);

/**
 * Peaks of the onset strength over the local median (peak picking as in Böck, Krebs and Schedl, ISMIR 2012).
 */
export const onsetsOf = (frames: readonly AnalysisFrame[]): Onset[] => peaksOf(frames, THRESHOLD, LEAST_GAP);

/** Every peak that may be an attack, weak ones too: what is none is for the judge to say. */
export const attacksOf = (frames: readonly AnalysisFrame[]): Onset[] => peaksOf(frames, LENIENT, LENIENT_GAP);

function peaksOf(frames: readonly AnalysisFrame[], threshold: typeof THRESHOLD, leastGap: number): Onset[] {
  const onsets: Onset[] = [];
  for (let frame = 0; frame < frames.length; frame++) {
    const strength = frames[frame]!.flux;
    if (strength < threshold.floor || !isPeak(frames, frame)) continue;
    if (strength < threshold.floor + threshold.factor * localMedian(frames, frame)) continue;
    const onset = {
      frame: Math.min(frames.length - 1, frame + CORRECTION),
      strength,
      rise: riseAt(frames, frame),
    };
    const last = onsets[onsets.length - 1];
    if (last && onset.frame - last.frame < leastGap) {
      if (onset.strength > last.strength * 1.5) onsets[onsets.length - 1] = onset;
    } else onsets.push(onset);
  }
  return onsets;
}

function isPeak(frames: readonly AnalysisFrame[], at: number): boolean {
  for (
    let frame = Math.max(0, at - PEAK_REACH);
    frame <= Math.min(frames.length - 1, at + PEAK_REACH);
    frame++
  )
    if (frames[frame]!.flux > frames[at]!.flux || (frames[frame]!.flux === frames[at]!.flux && frame < at))
      return false;
  return true;
}

function localMedian(frames: readonly AnalysisFrame[], at: number): number {
  const around: number[] = [];
  for (
    let frame = Math.max(0, at - MEDIAN_REACH);
    frame <= Math.min(frames.length - 1, at + MEDIAN_REACH);
    frame++
  )
    around.push(frames[frame]!.flux);
  return around.sort((a, b) => a - b)[around.length >> 1]!;
}

/** How far the level rises across a place, in dB: from the lowest just before to the highest just after. */
export function riseAt(frames: readonly AnalysisFrame[], at: number): number {
  // before the first frame there was silence
  let [low, high] = [at < RISE_BEFORE ? SILENT : Infinity, -Infinity];
  for (let frame = Math.max(0, at - RISE_BEFORE); frame <= Math.min(frames.length - 1, at + 1); frame++)
    low = Math.min(low, frames[frame]!.level);
  for (let frame = at; frame <= Math.min(frames.length - 1, at + RISE_AFTER); frame++)
    high = Math.max(high, frames[frame]!.level);
  return high - low;
}
