import { median } from '../shared';
import { framesOf, type AnalysisFrame } from './frames';
import { attacksOf, onsetsOf } from './onsets';
import type { PitchTrack } from './path';

/** A place where a note may begin: an attack heard in the spectrum, or a step of the pitch. */
export type OnsetCandidate = {
  readonly frame: number;
  readonly kind: 'attack' | 'step';
  readonly strength: number;
  /** Stands so far out that what sounds after it is surely another thing. */ readonly clear: boolean;
};

const SIDE = framesOf(0.035);
const GUARD = 2;
const STEP = 0.65;
const SAME_PLACE = framesOf(0.03);
const ARRIVED = 0.35;
const LONGEST_GLIDE = framesOf(0.2);

/**
 * All places a note may begin, in order: peaks of the flux (Böck, Krebs and Schedl, ISMIR 2012) and steps
 * from plateau to plateau of the
 * tracked pitch (docs/ears.md). Far more than there are notes: what is not one is for the judge to say.
 */
export function onsetCandidatesOf(frames: readonly AnalysisFrame[], track: PitchTrack): OnsetCandidate[] {
  const clear = new Set(onsetsOf(frames).map(({ frame }) => frame));
  const onsetCandidates: OnsetCandidate[] = attacksOf(frames).map(({ frame, strength }) => ({
    frame,
    kind: 'attack' as const,
    strength,
    clear: clear.has(frame),
  }));
  for (const frame of stepsOf(track)) {
    if (!onsetCandidates.some((other) => Math.abs(other.frame - frame) <= SAME_PLACE))
      onsetCandidates.push({ frame, kind: 'step', strength: strongest(frames, frame), clear: true });
  }
  return onsetCandidates.sort((a, b) => a.frame - b.frame);
}

function strongest(frames: readonly AnalysisFrame[], at: number): number {
  let most = 0;
  for (let frame = Math.max(0, at - 4); frame <= Math.min(frames.length - 1, at + 4); frame++)
    most = Math.max(most, frames[frame]!.flux);
  return most;
}

/** Where the pitch arrives after leaving another; both sides voiced. */
function stepsOf(track: PitchTrack): number[] {
  const steps: number[] = [];
  let best: { frame: number; size: number } | null = null;
  for (let frame = SIDE + GUARD; frame < track.length - SIDE - GUARD; frame++) {
    const size = stepAt(track, frame);
    if (size >= STEP && (!best || size > best.size)) best = { frame, size };
    if (best && (size < STEP || frame - best.frame > SIDE)) {
      steps.push(arrival(track, best.frame));
      best = null;
    }
  }
  if (best) steps.push(arrival(track, best.frame));
  return steps;
}

function stepAt(track: PitchTrack, frame: number): number {
  const before = voiced(track, frame - SIDE - GUARD, frame - GUARD);
  const after = voiced(track, frame + GUARD, frame + GUARD + SIDE);
  return before.length > 2 && after.length > 2 ? Math.abs(median(after)! - median(before)!) : 0;
}

/** The first frame from which the pitch stays where it is going. */
function arrival(track: PitchTrack, around: number): number {
  let end = around + GUARD + SIDE;
  const goal = (from: number) => median(voiced(track, from, from + SIDE));
  let target = goal(around + GUARD);
  for (let further = 0; further < LONGEST_GLIDE && target !== null; further++) {
    const next = goal(end - SIDE + 2);
    if (next === null || Math.abs(next - target) < 0.08) break;
    target = next;
    end += 2;
  }
  if (target === null) return around;
  for (let frame = around - SIDE; frame < end; frame++)
    if (Math.abs((track[frame] ?? NaN) - target) < ARRIVED) return Math.max(frame, 0);
  return around;
}

function voiced(track: PitchTrack, from: number, to: number): number[] {
  const found: number[] = [];
  for (let frame = Math.max(0, from); frame < Math.min(to, track.length); frame++)
    if (!Number.isNaN(track[frame]!)) found.push(track[frame]!);
  return found;
}
