import type { Attack, Midi, Seconds } from '../shared';
import { FRAME_SECONDS, framesOf, type AnalysisFrame } from './frames';
import { riseAt } from './onsets';
import type { PitchTrack } from './path';
import type { StartingNote } from './noteOnsets';

/** How a note was come to: its attack, and the slide that led to it, if one did. */
export type Approach = {
  readonly attack: Attack;
  readonly slide?: { readonly from: Midi; readonly seconds: Seconds };
};

/** The single note before: where it stood. */
export type Before = { readonly pitch: Midi };

/** Without a rise of level or a strong peak of the flux a new pitch was made by the fretting hand. */
const PICKED_RISE = 2.5;
const PICKED_STRENGTH = 0.16;
const NEAR: Midi = 0.4;
/** The windows smear a hammered step; a slide between held pitches takes longer on its way. */
const SLIDE_TAKES = framesOf(0.046);
/** No hand hammers on wider than this (common practice, no source). */
const WIDEST_HAMMER: Midi = 4.6;
const LOOK_BACK = framesOf(0.26);
/** A slide into a note: it has left the note before by then, and has arrived by then. */
const GRACE = {
  earliest: framesOf(0.045),
  clearOfOld: framesOf(0.08),
  latest: framesOf(0.165),
  least: 0.45,
  widest: 4.2,
  quickest: framesOf(0.023),
  leap: 1.3,
};

/**
 * T4.1, and docs/ears.md, “Slides”; the times a hand takes are common practice, no source.
 * @param settled where the note stands once it has arrived; @param before the note it follows on a single
 *   line, or null
 */
export function approachOf(
  start: StartingNote,
  settled: Midi,
  before: Before | null,
  track: PitchTrack,
  frames: readonly AnalysisFrame[],
): Approach {
  const picked = (): Approach => {
    const slide = slideInto(start, settled, before, track);
    return slide ? { attack: 'pick', slide } : { attack: 'pick' };
  };
  if (isPicked(start, frames)) return picked();
  const step = before && stepFrom(before.pitch, settled, start.frame, track, frames);
  if (!before || step === null) return picked();
  const extent = settled - before.pitch;
  if (step.takes >= SLIDE_TAKES && !step.glides) return picked();
  if (step.takes < SLIDE_TAKES && Math.abs(extent) > WIDEST_HAMMER) return picked();
  if (step.takes >= SLIDE_TAKES)
    return { attack: 'slide', slide: { from: before.pitch, seconds: step.takes * FRAME_SECONDS } };
  return { attack: extent > 0 ? 'hammer' : 'pull' };
}

function isPicked({ frame, kind }: StartingNote, frames: readonly AnalysisFrame[]): boolean {
  let strength = 0;
  for (let at = Math.max(0, frame - 3); at < Math.min(frames.length, frame + 4); at++)
    strength = Math.max(strength, frames[at]!.flux);
  return riseAt(frames, frame) >= PICKED_RISE || (kind === 'attack' && strength >= PICKED_STRENGTH);
}

/** While a string glides it sounds on: its level does not fall by more between two notes. */
const SOUNDS_ON = 9;

/**
 * Frames between the last of the note before and the first of the new one, and whether the string glided there: its
 * pitch was seen on its way, or it had none the tracker could follow and sounded on; null where the track does not
 * lead from one to the other.
 */
function stepFrom(
  from: Midi,
  to: Midi,
  at: number,
  track: PitchTrack,
  frames: readonly AnalysisFrame[],
): { takes: number; glides: boolean } | null {
  if (Math.abs(to - from) < 0.6) return null;
  let leaving = -1;
  for (
    let frame = Math.max(0, at - LOOK_BACK);
    frame < Math.min(track.length, at + framesOf(0.08));
    frame++
  ) {
    if (Math.abs(track[frame]! - from) < NEAR) leaving = frame;
    else if (leaving >= 0 && Math.abs(track[frame]! - to) < NEAR) {
      let [between, seen, lowest] = [0, 0, Infinity];
      for (let way = leaving + 1; way < frame; way++) {
        if ((track[way]! - from) * (track[way]! - to) < 0) between++;
        if (!Number.isNaN(track[way]!)) seen++;
        lowest = Math.min(lowest, frames[way]!.level);
      }
      const isOnItsWay = seen > 0 && between >= 0.5 * (frame - leaving - 1);
      const isUnseen = between === seen && lowest > frames[leaving]!.level - SOUNDS_ON;
      return { takes: frame - leaving, glides: isOnItsWay || isUnseen };
    }
  }
  return null;
}

/** A slide right after the pick: back from where the pitch arrives for as long as it moves away. */
function slideInto(
  start: StartingNote,
  settled: Midi,
  before: Before | null,
  track: PitchTrack,
): Approach['slide'] | null {
  const otherwise = start.from === undefined ? null : merged(start.from, settled);
  const arrival = arrivalOf(start.frame, settled, track);
  if (arrival === null || arrival - start.frame < GRACE.earliest) return otherwise;
  const { leaving, away } = leavingBefore(arrival, start.frame, settled, track);
  const extent = Math.abs(away);
  // the tracker may still be on the note before: then it leaps from there, and does not glide
  const lingers =
    before !== null &&
    Math.abs(settled + away - before.pitch) < 0.5 &&
    arrival - start.frame < GRACE.clearOfOld &&
    !isGliding(track.subarray(leaving, arrival), settled, away);
  const isGrace = extent >= GRACE.least && extent <= GRACE.widest && arrival - leaving >= GRACE.quickest;
  if (!isGrace || lingers) return otherwise;
  return {
    from: settled + Math.sign(away) * Math.max(1, extent),
    seconds: (arrival - start.frame) * FRAME_SECONDS,
  };
}

/** Is the pitch seen on its way, in three frames or more, from `away` semitones off to where it settles? */
const isGliding = (span: PitchTrack, settled: Midi, away: Midi): boolean =>
  span.filter((pitch) => {
    const share = (pitch - settled) / away;
    return share > 0.2 && share < 0.8;
  }).length >= 3;

/** The frame from which the pitch stays where it settles; null where that is too late for a grace. */
function arrivalOf(start: number, settled: Midi, track: PitchTrack): number | null {
  const latest = Math.min(track.length - 3, start + GRACE.latest);
  for (let at = start + 3; at < latest; at++)
    if (Math.abs(track[at]! - settled) < NEAR && Math.abs(track[at + 2]! - settled) < NEAR) return at;
  return null;
}

/** Back from where the pitch arrives to where it began to move, and how far away it was there. */
function leavingBefore(
  arrival: number,
  start: number,
  settled: Midi,
  track: PitchTrack,
): { leaving: number; away: number } {
  let [leaving, away] = [arrival, 0];
  for (let frame = arrival - 1; frame > start; frame--) {
    const now = track[frame]! - settled;
    const isOneGlide = Math.abs(track[frame]! - track[frame + 1]!) < GRACE.leap && now * away >= 0;
    if (!isOneGlide || Math.abs(now) < Math.abs(away) - 0.3) break;
    if (Math.abs(now) > Math.abs(away) + 0.02) leaving = frame;
    if (Math.abs(now) > Math.abs(away)) away = now;
  }
  return { leaving, away };
}

/** Two claims that were made one: the first tells where the slide came from. */
function merged(from: Midi, settled: Midi): Approach['slide'] | null {
  const extent = from - settled;
  return Math.abs(extent) < GRACE.least || Math.abs(extent) > GRACE.widest
    ? null
    : {
        from: settled + Math.sign(extent) * Math.max(1, Math.abs(extent)),
        seconds: GRACE.clearOfOld * FRAME_SECONDS,
      };
}
