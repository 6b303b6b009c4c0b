import type { Decibels, Midi } from '../shared';
import { plateausOf } from './contour';
import { framesOf, type AnalysisFrame } from './frames';
import { onsetsOf, riseAt } from './onsets';
import type { PitchTrack } from './path';
import type { StartingNote, NoteOnset } from './noteOnsets';

const NEAR: Midi = 0.35;
const SAME_NOTE = framesOf(0.055);
const SAME_PITCH: Midi = 0.75;
/** The windows smear a hammered step over about this long: what takes longer is a glide of the hand. */
const QUICKEST = framesOf(0.048);
const LONGEST = framesOf(0.3);
/** A finger that slides or bends adds no energy. */
const STILL_RISE: Decibels = 2.5;
const STILL_STRENGTH = 0.3;
/** From a held note, three semitones or more within about a tenth of a second are a new note at the arrival. */
const NEW_NOTE: Midi = 2.6;
const WIDER_THAN_BENDS: Midi = 3.5;
const SLIDE_AT_MOST = { narrow: framesOf(0.105), wide: framesOf(0.19) };
const HELD = framesOf(0.14);
/** A slide into a note has arrived by then. */
const GRACE = {
  rise: 7,
  arrives: framesOf(0.165),
  widest: 3.8,
  quickest: framesOf(0.023),
  attack: framesOf(0.035),
};
const PICKED: Decibels = 2.5;
const SAME_ATTACK = framesOf(0.03);
const STOOD = 5;
/** Pitches this near, claimed of one moment while the pitch glides, are one string on its way. */
const ON_THE_WAY: Midi = 2.2;

/**
 * Follows glides from one believed note into the next: a slide into a note and a bend are one note, a slide
 * between held pitches two,
 * the second beginning where it arrives.
 */
export function settleGlides(
  noteOnsets: readonly NoteOnset[],
  track: PitchTrack,
  frames: readonly AnalysisFrame[],
): NoteOnset[] {
  const settled: NoteOnset[] = [];
  const picks = onsetsOf(frames)
    .filter(({ rise }) => rise >= PICKED)
    .map(({ frame }) => frame);
  for (const one of noteOnsets) {
    const last = settled.at(-1);
    const noteOnset = fromItsPick(oneOnItsWay(one, track), last?.frame ?? 0, picks, frames);
    if (last && isTwice(last, noteOnset)) {
      if (noteOnset.starts[0]!.belief > last.starts[0]!.belief)
        settled[settled.length - 1] = moved(noteOnset, last.frame);
      continue;
    }
    const glide = last ? glideBetween(last, noteOnset, track, frames) : null;
    if (!last || !glide) settled.push(noteOnset);
    else if (glide.isNewNote) settled.push(moved(noteOnset, glide.arrival));
    else
      settled[settled.length - 1] = {
        ...last,
        starts: [joined(last.starts[0]!, noteOnset.starts[0]!, glide.arrival)],
      };
  }
  return settled.flatMap((noteOnset, index) => [
    noteOnset,
    ...slidesWithin(noteOnset, settled[index + 1]?.frame ?? frames.length, track),
  ]);
}

/** The start of a glide and its arrival may both have been believed to be the note that it led to. */
const isTwice = (last: NoteOnset, noteOnset: NoteOnset): boolean =>
  last.starts.length === 1 &&
  noteOnset.starts.length === 1 &&
  noteOnset.frame - last.frame < SAME_NOTE &&
  Math.abs(last.starts[0]!.midi - noteOnset.starts[0]!.midi) < SAME_PITCH;

const moved = (noteOnset: NoteOnset, frame: number): NoteOnset => ({
  frame,
  starts: noteOnset.starts.map((start): StartingNote => ({ ...start, frame, kind: 'step' })),
});

/** A slide into the note is told where it came from; a bend is one note from its pick. */
const joined = (first: StartingNote, second: StartingNote, arrival: number): StartingNote => ({
  ...first,
  belief: Math.max(first.belief, second.belief),
  ...(arrival - first.frame <= GRACE.arrives ? { midi: second.midi, from: first.from ?? first.midi } : {}),
});

/**
 * While a string slides right after the pick nothing may be believed of it until it has arrived: it began at
 * the pick all the same.
 */
function fromItsPick(
  noteOnset: NoteOnset,
  last: number,
  picks: readonly number[],
  frames: readonly AnalysisFrame[],
): NoteOnset {
  if (noteOnset.starts.length > 1) return noteOnset;
  const pick = picks.findLast((frame) => frame < noteOnset.frame - SAME_ATTACK);
  if (pick === undefined || noteOnset.frame - pick > GRACE.arrives || pick - last < SAME_NOTE)
    return noteOnset;
  if (
    !isStill(frames, pick + GRACE.attack, noteOnset.frame) ||
    !isUnsettledFrom(pick, noteOnset.frame, noteOnset.starts[0]!.midi, frames)
  )
    return noteOnset;
  return { frame: pick, starts: [{ ...noteOnset.starts[0]!, frame: pick, kind: 'attack' }] };
}

/** Two near pitches claimed while the tracked pitch runs through both are one. */
function oneOnItsWay(noteOnset: NoteOnset, track: PitchTrack): NoteOnset {
  const { starts } = noteOnset;
  if (starts.length !== 2 || starts[1]!.midi - starts[0]!.midi > ON_THE_WAY) return noteOnset;
  let [low, high, count] = [Infinity, -Infinity, 0];
  for (
    let frame = noteOnset.frame + 3;
    frame < Math.min(track.length, noteOnset.frame + framesOf(0.14));
    frame++
  ) {
    const pitch = track[frame]!;
    if (Number.isNaN(pitch)) continue;
    low = Math.min(low, pitch);
    high = Math.max(high, pitch);
    count++;
  }
  const runs =
    count > framesOf(0.07) &&
    high - low > 0.6 &&
    high - low < GRACE.widest + 1 &&
    low < starts[1]!.midi &&
    high > starts[0]!.midi;
  if (!runs) return noteOnset;
  const best = starts[0]!.belief >= starts[1]!.belief ? starts[0]! : starts[1]!;
  return { frame: noteOnset.frame, starts: [best] };
}

/**
 * The glide that leads from one strike to the next, if one does: both of one string, the pitch never silent
 * and never struck again.
 */
function glideBetween(
  last: NoteOnset,
  noteOnset: NoteOnset,
  track: PitchTrack,
  frames: readonly AnalysisFrame[],
): Glide | null {
  if (last.starts.length > 1 || noteOnset.starts.length > 1) return null;
  if (noteOnset.frame - last.frame > framesOf(4)) return null;
  const goal = noteOnset.starts[0]!.midi;
  const arrival = firstNear(
    track,
    goal,
    Math.max(last.frame + 2, noteOnset.frame - SLIDE_AT_MOST.wide),
    noteOnset.frame + SLIDE_AT_MOST.wide,
  );
  // where the path was held by what was believed first, the glide is seen in the period tracker alone
  const settles = arrival ?? noteOnset.frame;
  if (isUnsettled(last, settles, goal, frames) && isStill(frames, last.frame + GRACE.attack, settles))
    return { arrival: settles, isNewNote: false };
  if (arrival === null) return null;
  const leaving = leavingOf(track, arrival, last.frame, goal);
  if (leaving === null) return null;
  const extent = Math.abs(goal - track[leaving]!);
  if (arrival - last.frame <= GRACE.arrives && extent <= GRACE.widest)
    return graceBetween(last, leaving, arrival, extent, frames);
  return slideBetween(last, noteOnset, leaving, arrival, extent, frames);
}

type Glide = { readonly arrival: number; readonly isNewNote: boolean };

/** A quick move right after the pick belongs to the note it leads to. */
function graceBetween(
  last: NoteOnset,
  leaving: number,
  arrival: number,
  extent: number,
  frames: readonly AnalysisFrame[],
): Glide | null {
  const still = isStill(frames, Math.max(leaving + 2, last.frame + GRACE.attack), arrival);
  return extent >= 0.4 && arrival - leaving >= GRACE.quickest && still ? { arrival, isNewNote: false } : null;
}

function slideBetween(
  last: NoteOnset,
  noteOnset: NoteOnset,
  leaving: number,
  arrival: number,
  extent: number,
  frames: readonly AnalysisFrame[],
): Glide | null {
  const takes = arrival - leaving;
  if (extent < 0.6 || takes < QUICKEST || takes > LONGEST) return null;
  const isPicked =
    riseAt(frames, noteOnset.frame) >= STILL_RISE ||
    strongest(frames, leaving + 2, arrival + 3) >= STILL_STRENGTH;
  if (isPicked) return null;
  return { arrival, isNewNote: isSlide(extent, takes) && leaving - last.frame >= HELD };
}

const isStill = (frames: readonly AnalysisFrame[], from: number, arrival: number): boolean =>
  strongest(frames, from, arrival + 3) < STILL_STRENGTH && riseWithin(frames, from, arrival + 6) < GRACE.rise;

/**
 * What was believed first is near the goal and the tracked pitch never stood on it: the string was on its way.
 */
function isUnsettled(
  last: NoteOnset,
  arrival: number,
  goal: Midi,
  frames: readonly AnalysisFrame[],
): boolean {
  const apart = Math.abs(last.starts[0]!.midi - goal);
  if (arrival - last.frame > GRACE.arrives || apart < 0.4 || apart > GRACE.widest) return false;
  return isUnsettledFrom(last.frame, arrival, goal, frames);
}

/**
 * The string stood nowhere but at the goal, and was seen on its way to it: asked of the period tracker
 * itself, since the path may have
 * been held by what was believed.
 */
function isUnsettledFrom(
  from: number,
  arrival: number,
  goal: Midi,
  frames: readonly AnalysisFrame[],
): boolean {
  let [run, last, nearer, seen, first] = [0, NaN, 0, 0, NaN];
  for (let frame = from + 2; frame < arrival; frame++) {
    const pitch =
      frames[frame]!.candidates.find(({ midi }) => Math.abs(midi - goal) < GRACE.widest)?.midi ?? NaN;
    run = Math.abs(pitch - last) < 0.12 && Math.abs(pitch - goal) > NEAR ? run + 1 : 0;
    if (run >= STOOD) return false;
    if (!Number.isNaN(pitch)) {
      if (Number.isNaN(first)) first = pitch;
      if (Math.abs(pitch - goal) < Math.abs(last - goal) + 0.02) nearer++;
      seen++;
    }
    last = pitch;
  }
  return seen >= 5 && nearer >= 0.6 * seen && Math.abs(first - goal) > NEAR;
}

const isSlide = (extent: Midi, takes: number): boolean =>
  extent >= NEW_NOTE && takes <= (extent >= WIDER_THAN_BENDS ? SLIDE_AT_MOST.wide : SLIDE_AT_MOST.narrow);

/** Slides between held pitches that nothing claimed: from plateau to plateau of the tracked pitch. */
function slidesWithin(noteOnset: NoteOnset, next: number, track: PitchTrack): NoteOnset[] {
  if (noteOnset.starts.length > 1 || next - noteOnset.frame < 2 * HELD) return [];
  const span = track.subarray(noteOnset.frame, Math.min(next, noteOnset.frame + framesOf(8)));
  const levels = plateausOf(span).filter(({ from, to }) => to - from >= HELD);
  return levels.slice(1).flatMap((level, index) => {
    const before = levels[index]!;
    const takes = level.from - before.to + framesOf(0.03);
    const extent = Math.abs(level.pitch - before.pitch);
    const returns = [levels[index - 1], levels[index + 2]].some(
      (other, side) => other && Math.abs(other.pitch - (side === 0 ? level : before).pitch) < 0.6,
    );
    // up and back again is a bend with its release
    if (returns || !isSlide(extent, takes) || takes < QUICKEST || !isUnbroken(span, before.to, level.from))
      return [];
    const frame = noteOnset.frame + level.from;
    return [
      {
        frame,
        starts: [{ frame, midi: level.pitch, belief: noteOnset.starts[0]!.belief, kind: 'step' as const }],
      },
    ];
  });
}

/** The pitch is there all the way, without a leap. */
function isUnbroken(track: Float64Array, from: number, to: number): boolean {
  for (let frame = Math.max(1, from); frame <= to; frame++)
    if (!(Math.abs(track[frame]! - track[frame - 1]!) < 1.6)) return false;
  return true;
}

function firstNear(track: PitchTrack, pitch: Midi, from: number, to: number): number | null {
  for (let frame = from; frame < Math.min(to, track.length); frame++)
    if (Math.abs(track[frame]! - pitch) < NEAR && Math.abs((track[frame + 3] ?? NaN) - pitch) < NEAR)
      return frame;
  return null;
}

/**
 * Back from the arrival for as long as the pitch moves away from the goal: where the glide began. Null where
 * it leaps.
 */
function leavingOf(track: PitchTrack, arrival: number, earliest: number, goal: Midi): number | null {
  let [frame, away, still] = [arrival, Math.abs(track[arrival]! - goal), 0];
  let leaving = arrival;
  while (frame > earliest && still < 3) {
    frame--;
    const pitch = track[frame]!;
    if (Number.isNaN(pitch)) break;
    const now = Math.abs(pitch - goal);
    // right after an attack the first frames may still tell of the note before
    if (Math.abs(pitch - track[frame + 1]!) > 1.6)
      return frame - earliest < GRACE.attack && leaving < arrival ? leaving : null;
    if (now < away - 0.3) return null;
    if (now > away + 0.03) {
      leaving = frame;
      still = 0;
    } else still++;
    away = Math.max(away, now);
  }
  return leaving < arrival ? leaving : null;
}

function strongest(frames: readonly AnalysisFrame[], from: number, to: number): number {
  let most = 0;
  for (let frame = Math.max(0, from); frame < Math.min(frames.length, to); frame++)
    most = Math.max(most, frames[frame]!.flux);
  return most;
}

/** From the lowest level so far to what follows it, in dB. */
function riseWithin(frames: readonly AnalysisFrame[], from: number, to: number): Decibels {
  let [low, rise] = [Infinity, 0];
  for (let frame = Math.max(0, from); frame < Math.min(frames.length, to); frame++) {
    low = Math.min(low, frames[frame]!.level);
    rise = Math.max(rise, frames[frame]!.level - low);
  }
  return rise;
}
