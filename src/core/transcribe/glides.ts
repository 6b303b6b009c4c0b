import { elementAt } from '../shared';
import { framesOf, type AnalysisFrame } from './frames';
import {
  GRACE,
  HELD,
  LONGEST,
  ON_THE_WAY,
  PICKED,
  QUICKEST,
  SAME_ATTACK,
  SAME_NOTE,
  SAME_PITCH,
  SLIDE_AT_MOST,
  STILL_RISE,
  STILL_STRENGTH,
  firstNear,
  isSlide,
  isStill,
  isUnsettled,
  isUnsettledFrom,
  leavingOf,
  slidesWithin,
  strongest,
} from './glideTrack';
import type { NoteOnset, StartingNote } from './noteOnsets';
import { onsetsOf, riseAt } from './onsets';
import type { PitchTrack } from './path';

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
      if (elementAt(noteOnset.starts, 0).belief > elementAt(last.starts, 0).belief)
        settled[settled.length - 1] = moved(noteOnset, last.frame);
      continue;
    }
    const glide = last ? glideBetween(last, noteOnset, track, frames) : null;
    if (!last || !glide) settled.push(noteOnset);
    else if (glide.isNewNote) settled.push(moved(noteOnset, glide.arrival));
    else
      settled[settled.length - 1] = {
        ...last,
        starts: [joined(elementAt(last.starts, 0), elementAt(noteOnset.starts, 0), glide.arrival)],
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
  Math.abs(elementAt(last.starts, 0).midi - elementAt(noteOnset.starts, 0).midi) < SAME_PITCH;

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
    !isUnsettledFrom(pick, noteOnset.frame, elementAt(noteOnset.starts, 0).midi, frames)
  )
    return noteOnset;
  return { frame: pick, starts: [{ ...elementAt(noteOnset.starts, 0), frame: pick, kind: 'attack' }] };
}

/** Two near pitches claimed while the tracked pitch runs through both are one. */
function oneOnItsWay(noteOnset: NoteOnset, track: PitchTrack): NoteOnset {
  const { starts } = noteOnset;
  if (starts.length !== 2 || elementAt(starts, 1).midi - elementAt(starts, 0).midi > ON_THE_WAY)
    return noteOnset;
  let [low, high, count] = [Infinity, -Infinity, 0];
  for (
    let frame = noteOnset.frame + 3;
    frame < Math.min(track.length, noteOnset.frame + framesOf(0.14));
    frame++
  ) {
    const pitch = elementAt(track, frame);
    if (Number.isNaN(pitch)) continue;
    low = Math.min(low, pitch);
    high = Math.max(high, pitch);
    count++;
  }
  const runs =
    count > framesOf(0.07) &&
    high - low > 0.6 &&
    high - low < GRACE.widest + 1 &&
    low < elementAt(starts, 1).midi &&
    high > elementAt(starts, 0).midi;
  if (!runs) return noteOnset;
  const best =
    elementAt(starts, 0).belief >= elementAt(starts, 1).belief ? elementAt(starts, 0) : elementAt(starts, 1);
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
  const goal = elementAt(noteOnset.starts, 0).midi;
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
  const extent = Math.abs(goal - elementAt(track, leaving));
  if (arrival - last.frame <= GRACE.arrives && extent <= GRACE.widest)
    return isStruckAgain(noteOnset) && leaving - last.frame > GRACE.stands
      ? null
      : graceBetween(last, leaving, arrival, extent, frames);
  return slideBetween(last, noteOnset, leaving, arrival, extent, frames);
}

const CERTAIN = 0.97;

/** An attack that is all but certain is one, however smoothly the tracker comes to its pitch. */
const isStruckAgain = ({ starts }: NoteOnset): boolean => {
  const { kind, belief } = elementAt(starts, 0);
  return kind === 'attack' && belief >= CERTAIN;
};

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
  const isNewNote = isSlide(extent, takes) && leaving - last.frame >= HELD;
  if (!isNewNote && isStruckAgain(noteOnset)) return null;
  return { arrival, isNewNote };
}
