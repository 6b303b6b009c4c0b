import {
  beatsToSeconds,
  median,
  secondsToBeats,
  type BeatsPerMinute,
  type Cents,
  type Seconds,
  defined,
} from '../../shared';
import type { BendCurve, PlayedNote } from './played';

/** A plateau lasts this long at least, within this many cents (T4.1). */
const PLATEAU_SECONDS = 0.08;
const PLATEAU_CENTS = 30;
const STEP_SECONDS = 0.005;
const GLIDE_SECONDS = 0.15;

type BendPlateau = { readonly from: Seconds; readonly to: Seconds; readonly cents: Cents };

/**
 * A played note with bend and slide judged: one note at the pitch where it settles, or two where a release
 * is held.
 *
 * Rule T4.1: the longest plateau (≥ 80 ms within 30 cents) after the glide, else the median of its last
 * half. A bend with a release is one note in the
 * transcription …; the analysis takes a release held ≥ 80 ms as a second line note. A slide's onset is the
 * pick, unless the glide lasts over 150 ms: then the arrival.
 */
export function judgePitch(note: PlayedNote, tempo: BeatsPerMinute): PlayedNote[] {
  return bendOf(slideOf(note, tempo), tempo);
}

function slideOf(note: PlayedNote, tempo: BeatsPerMinute): PlayedNote {
  if (!note.slide || note.slide.seconds <= GLIDE_SECONDS) return note;
  const glide = Math.min(secondsToBeats(note.slide.seconds, tempo), note.durationBeats * 0.9);
  return { ...note, onsetBeat: note.onsetBeat + glide, durationBeats: note.durationBeats - glide };
}

function bendOf(note: PlayedNote, tempo: BeatsPerMinute): PlayedNote[] {
  if (!note.bend || note.bend.length === 0) return [note];
  const length = beatsToSeconds(note.durationBeats, tempo);
  const curve = sample(note.bend, length);
  const plateaus = plateausOf(curve);
  const from = note.midi + (note.cents ?? 0) / 100;
  const at = (cents: Cents): Partial<PlayedNote> => {
    const judged = from + cents / 100;
    return {
      midi: Math.round(judged),
      cents: Math.round((judged - Math.round(judged)) * 100),
      bend: note.bend,
    };
  };
  if (plateaus.length === 0) return [{ ...note, ...at(median(curve.slice(curve.length >> 1)) ?? 0) }];
  const release = plateaus.findIndex(
    (plateau, index) => index > 0 && plateau.cents < defined(plateaus[index - 1]).cents - 50,
  );
  const before = release < 0 ? plateaus : plateaus.slice(0, release);
  const first = { ...note, ...at(longest(afterTheGlide(before)).cents) };
  if (release < 0) return [first];
  const start = secondsToBeats(defined(plateaus[release]).from, tempo);
  const second = {
    ...note,
    ...at(longest(plateaus.slice(release)).cents),
    onsetBeat: note.onsetBeat + start,
    phrase: undefined,
    attack: undefined,
    durationBeats: note.durationBeats - start,
  };
  return [{ ...first, durationBeats: start }, second];
}

/** A first plateau that a rise follows is where the bend set out from, not where it settled. */
const afterTheGlide = (plateaus: readonly BendPlateau[]): readonly BendPlateau[] =>
  plateaus.length > 1 && defined(plateaus[1]).cents > defined(plateaus[0]).cents + 50
    ? plateaus.slice(1)
    : plateaus;

const longest = (plateaus: readonly BendPlateau[]): BendPlateau =>
  plateaus.reduce((best, plateau) => (plateau.to - plateau.from > best.to - best.from ? plateau : best));

/** A string does not ring longer; what a curve says after that is not looked at. */
const LONGEST_RING: Seconds = 60;

/** The curve every 5 ms, linear between its points and held beyond them. */
function sample(curve: BendCurve, length: Seconds): Cents[] {
  const count = Math.max(2, Math.round(Math.min(length, LONGEST_RING) / STEP_SECONDS));
  let after = 0;
  return Array.from({ length: count }, (_, index) => {
    const time = index * STEP_SECONDS;
    while (after < curve.length && defined(curve[after])[0] < time) after++;
    return between(curve[after - 1], curve[after], time);
  });
}

type Point = BendCurve[number];

/** The cents at a time from the points before and after it. */
function between(before: Point | undefined, next: Point | undefined, time: Seconds): Cents {
  if (!before || !next) return (before ?? next)?.[1] ?? 0;
  const [[t0, c0], [t1, c1]] = [before, next];
  return t1 === t0 ? c1 : c0 + ((c1 - c0) * (time - t0)) / (t1 - t0);
}

function plateausOf(values: readonly Cents[]): BendPlateau[] {
  const plateaus: BendPlateau[] = [];
  let start = 0;
  while (start < values.length) {
    let end = start;
    let [low, high] = [defined(values[start]), defined(values[start])];
    while (end + 1 < values.length) {
      const next = defined(values[end + 1]);
      if (Math.max(high, next) - Math.min(low, next) > PLATEAU_CENTS) break;
      [low, high] = [Math.min(low, next), Math.max(high, next)];
      end++;
    }
    if ((end - start) * STEP_SECONDS >= PLATEAU_SECONDS - 1e-9) {
      plateaus.push({
        from: start * STEP_SECONDS,
        to: (end + 1) * STEP_SECONDS,
        cents: median(values.slice(start, end + 1)) ?? 0,
      });
      start = end + 1;
    } else start++;
  }
  return plateaus;
}
