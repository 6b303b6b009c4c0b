import { median, type Cents, type Decibels, type Hz, type Midi, type Seconds } from '../vocabulary';
import { FRAME_SECONDS, type Frame } from './frames';
import type { PitchTrack } from './path';
import type { Segment } from './segments';

/** A note as heard (4-architecture, "Notes"): seconds from the start of the take, MIDI number with its deviation in cents. */
export type HeardNote = {
  readonly onsetSec: Seconds;
  readonly offsetSec: Seconds;
  readonly midi: Midi;
  readonly cents: Cents;
  readonly bend?: readonly (readonly [Seconds, Cents])[];
  /** Peak level in dBFS. */
  readonly level: Decibels;
  /** Belief in the pitch, 0 to 1. */
  readonly confidence: number;
};

const ATTACK_FRAMES = Math.round(0.025 / FRAME_SECONDS);
const BAND: Midi = 0.4;
/** A bend settles this far from where it set out, at least. */
const BEND_SEMITONES = 0.6;
/** 24 dB under the playing level is bleed, hum or a hand on the strings. */
const UNDER_PLAYING: Decibels = 26;
const LEAST_CONFIDENCE = 0.12;

/**
 * Segments to notes: pitch is the densest 40-cent band past the attack, counted from the take's own tuning.
 * @param a4 frequency of A4 the pitches are counted from
 */
export function notesOf(segments: readonly Segment[], track: PitchTrack, frames: readonly Frame[], a4: Hz): HeardNote[] {
  const shift = 12 * Math.log2(a4 / 440);
  const playing = playingLevel(frames);
  return segments.flatMap((segment) => {
    const pitches = pitchesOf(track, segment);
    if (pitches.length === 0) return [];
    const level = Math.max(...frames.slice(segment.from, segment.to).map((frame) => frame.level));
    const confidence = confidenceOf(track, frames, segment);
    if (level < playing - UNDER_PLAYING || confidence < LEAST_CONFIDENCE) return [];
    const judged = densestBand(pitches) - shift;
    const midi = Math.round(judged);
    const start = segment.onset ? Math.min(segment.onset.frame, segment.from + ATTACK_FRAMES) : segment.from;
    const bend = bendOf(track, segment, judged + shift);
    return [{
      onsetSec: round(start * FRAME_SECONDS), offsetSec: round(segment.to * FRAME_SECONDS), midi, cents: Math.round((judged - midi) * 100),
      ...(bend ? { bend } : {}), level: Math.round(level * 10) / 10, confidence: Math.round(confidence * 1000) / 1000,
    }];
  });
}

const round = (seconds: Seconds): Seconds => Math.round(seconds * 1e5) / 1e5;

/** The level the take is played at: its loud frames, not its loudest one. */
export function playingLevel(frames: readonly Frame[]): Decibels {
  const levels = frames.map((frame) => frame.level).sort((a, b) => a - b);
  return levels[Math.floor(levels.length * 0.93)] ?? -120;
}

function pitchesOf(track: PitchTrack, segment: Segment): number[] {
  const skip = Math.min(ATTACK_FRAMES, Math.floor((segment.to - segment.from) / 3));
  return Array.from(track.subarray(segment.from + skip, segment.to)).filter((midi) => !Number.isNaN(midi));
}

/** Middle of the 40-cent band that holds most frames. */
function densestBand(pitches: readonly number[]): Midi {
  const sorted = [...pitches].sort((a, b) => a - b);
  let [from, most, end] = [0, 0, 0];
  for (let start = 0; start < sorted.length; start++) {
    while (end < sorted.length && sorted[end]! - sorted[start]! <= BAND) end++;
    if (end - start > most) [from, most] = [start, end - start];
  }
  return median(sorted.slice(from, from + most)) ?? NaN;
}

function confidenceOf(track: PitchTrack, frames: readonly Frame[], segment: Segment): number {
  let [sum, count] = [0, 0];
  for (let frame = segment.from; frame < segment.to; frame++) {
    const chosen = frames[frame]!.candidates.find((candidate) => candidate.midi === track[frame]);
    sum += chosen?.weight ?? 0;
    count++;
  }
  return count ? sum / count : 0;
}

/** A curve in cents over the judged pitch where the note set out elsewhere than it settled; undefined for a steady note. */
function bendOf(track: PitchTrack, segment: Segment, settled: Midi): (readonly [Seconds, Cents])[] | undefined {
  const points: [Seconds, Cents][] = [];
  for (let frame = segment.from + 4; frame < segment.to; frame += 4) {
    const midi = track[frame]!;
    if (!Number.isNaN(midi) && Math.abs(midi - settled) < 4.5) points.push([round((frame - segment.from) * FRAME_SECONDS), Math.round((midi - settled) * 100)]);
  }
  const early = median(points.slice(0, 3).map(([, cents]) => cents)) ?? 0;
  const late = median(points.slice(-4).map(([, cents]) => cents)) ?? 0;
  const bent = points.length >= 6 && (Math.abs(early) >= BEND_SEMITONES * 100 || Math.abs(late) >= BEND_SEMITONES * 100);
  return bent ? points : undefined;
}
