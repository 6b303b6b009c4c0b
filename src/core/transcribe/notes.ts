import { SILENCE } from '../sound';
import type { Attack, Cents, Decibels, Hz, Midi, Seconds } from '../shared';
import { approachOf, type Approach, type Before } from './approach';
import { gestureOf, type PitchGesture } from './contour';
import { FRAME_SECONDS, framesOf, type AnalysisFrame } from './frames';
import type { PitchTrack } from './path';
import type { Ringing } from './ringing';
import type { StartingNote, NoteOnset } from './noteOnsets';

/**
 * A note as heard (docs/architecture.md, “Notes”): seconds from the start of the take, MIDI number with its
 * deviation in cents.
 */
export type HeardNote = {
  readonly onsetSec: Seconds;
  readonly offsetSec: Seconds;
  /** Where it settles. */
  readonly midi: Midi;
  readonly cents: Cents;
  /** Corners of a bend: seconds from the onset, cents over `midi`; straight between. */
  readonly bend?: readonly (readonly [Seconds, Cents])[];
  readonly slide?: { readonly fromMidi: Midi; readonly seconds: Seconds };
  /** Swings a second, and cents to each side. */
  readonly vibrato?: { readonly hz: Hz; readonly cents: Cents };
  readonly attack: Attack;
  /** Peak level in dBFS. */
  readonly level: Decibels;
  /** Belief in the note, 0 to 1. */
  readonly confidence: number;
};

const GAP = framesOf(0.05);
/** The flux peaks this long after the string is let go: measured on recorded notes whose onset is known. */
const PEAK_LATE: Seconds = 0.006;
const SHORTEST = framesOf(0.03);
const FLASH = framesOf(0.09);
const SURE = 0.85;
const LEAST_TRACKED = framesOf(0.09);
const LONGEST_GESTURE = framesOf(6);

/** A note before it is known what the instrument is tuned to; in frames, pitches from A4 = 440 Hz. */
export type HeardSound = {
  readonly start: StartingNote;
  /** The frame its string was let go at: what is heard first lies a little later. */
  readonly began: number;
  readonly end: number;
  readonly gesture: PitchGesture;
  readonly approach: Approach;
  readonly level: Decibels;
};

/**
 * Strikes to sounds: each gets its pitch and gesture from the tracked pitch where one string sounds, from
 * the spectrum where several
 * do; its end where it dies, is stopped or is followed on its string.
 */
export function soundsOf(
  noteOnsets: readonly NoteOnset[],
  track: PitchTrack,
  frames: readonly AnalysisFrame[],
  ringing: Ringing,
): HeardSound[] {
  const sounds: HeardSound[] = [];
  let before: Before | null = null;
  noteOnsets.forEach((struck, index) => {
    const next = noteOnsets[index + 1]?.frame ?? frames.length;
    const endIn = (among: NoteOnset) => (start: StartingNote) =>
      endOf(start, among, index, noteOnsets, track, frames, ringing);
    const noteOnset = withoutFlashes(struck, next, endIn(struck));
    const isSingle = noteOnset.starts.length === 1;
    for (const start of noteOnset.starts) {
      const gesture = isSingle ? gestureAt(start, next, track) : { pitch: start.midi };
      const approach: Approach = isSingle
        ? approachOf(start, gesture.pitch, before, track, frames)
        : { attack: 'pick' };
      const end = endIn(noteOnset)(start);
      before = isSingle ? { pitch: gesture.bend?.at(-1)?.[1] ?? gesture.pitch } : null;
      if (end - start.frame < SHORTEST) continue;
      sounds.push({
        start,
        began: start.frame - (start.kind === 'attack' ? 1 : 0),
        end,
        gesture,
        approach,
        level: loudest(frames, start.frame, end),
      });
    }
  });
  return sounds;
}

function loudest(frames: readonly AnalysisFrame[], from: number, to: number): Decibels {
  let level = SILENCE;
  for (let frame = from; frame < Math.min(to, frames.length); frame++)
    level = Math.max(level, frames[frame]!.level);
  return level;
}

/** @param a4 frequency of A4 the pitches are counted from */
export function noteOf(
  { start, end, gesture, approach: { attack, slide }, level }: HeardSound,
  a4: Hz,
): HeardNote {
  const shift: Midi = 12 * Math.log2(a4 / 440);
  const judged = gesture.pitch - shift;
  const midi = Math.round(judged);
  return {
    onsetSec: round(Math.max(0, start.frame * FRAME_SECONDS - (start.kind === 'attack' ? PEAK_LATE : 0))),
    offsetSec: round(end * FRAME_SECONDS),
    midi,
    cents: Math.round((judged - midi) * 100),
    ...(gesture.bend
      ? {
          bend: gesture.bend.map(
            ([time, pitch]) => [round(time), Math.round((pitch - shift - midi) * 100)] as const,
          ),
        }
      : {}),
    ...(slide ? { slide: { fromMidi: Math.round(slide.from - shift), seconds: round(slide.seconds) } } : {}),
    ...(gesture.vibrato ? { vibrato: gesture.vibrato } : {}),
    attack,
    level: Math.round(level * 10) / 10,
    confidence: Math.round(start.belief * 1000) / 1000,
  };
}

const round = (seconds: Seconds): Seconds => Math.round(seconds * 1e5) / 1e5;

function gestureAt(start: StartingNote, next: number, track: PitchTrack): PitchGesture {
  const end = Math.min(voicedEnd(track, start.frame, next), start.frame + LONGEST_GESTURE);
  return gestureOf(track.subarray(start.frame, end), start.midi) ?? { pitch: start.midi };
}

/**
 * What is gone at once while another string struck with it sounds on was a partial of the pick, not a string.
 */
function withoutFlashes(
  noteOnset: NoteOnset,
  next: number,
  endOf: (start: StartingNote) => number,
): NoteOnset {
  if (noteOnset.starts.length < 2 || next - noteOnset.frame <= FLASH + framesOf(0.03)) return noteOnset;
  const surest = noteOnset.starts.reduce((best, start) => (start.belief > best.belief ? start : best));
  const starts = noteOnset.starts.filter(
    (start) => start === surest || start.belief >= SURE || endOf(start) - start.frame >= FLASH,
  );
  return starts.length === noteOnset.starts.length ? noteOnset : { ...noteOnset, starts };
}

/** Where the tracked pitch ends, or the next strike begins. */
function voicedEnd(track: PitchTrack, from: number, to: number): number {
  let [last, frame] = [from, from];
  for (; frame < to && frame - last <= GAP * (last === from ? 3 : 1); frame++)
    if (!Number.isNaN(track[frame]!)) last = frame;
  return frame >= to && frame - last <= GAP ? to : last + 1;
}

function endOf(
  start: StartingNote,
  noteOnset: NoteOnset,
  index: number,
  noteOnsets: readonly NoteOnset[],
  track: PitchTrack,
  frames: readonly AnalysisFrame[],
  ringing: Ringing,
): number {
  const companions = noteOnset.starts.filter((other) => other !== start).map(({ midi }) => midi);
  const next = noteOnsets[index + 1]?.frame ?? frames.length;
  // where strings ring into one another nothing has a period: the string's own harmonics say when it ends
  const tracked = companions.length === 0 ? voicedEnd(track, start.frame, next) : 0;
  let end =
    tracked - start.frame >= LEAST_TRACKED
      ? tracked
      : ringing.endWithin(start, Math.min(next, start.frame + framesOf(0.06)), next, companions);
  for (let later = index + 1; later < noteOnsets.length && end === noteOnsets[later]!.frame; later++) {
    const struck = noteOnsets[later]!.starts.map(({ midi }) => midi);
    const following = noteOnsets[later + 1]?.frame ?? frames.length;
    if (
      noteOnsets[later]!.frame - start.frame < framesOf(0.08) ||
      !ringing.ringsPast(start, end, following, struck)
    )
      break;
    end = ringing.endWithin(start, end + framesOf(0.06), following, struck);
  }
  return end;
}
