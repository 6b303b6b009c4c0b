import type { Decibels } from '../vocabulary';
import { FRAME_SECONDS, type Frame } from './frames';
import type { HeardNote } from './notes';
import { onsetsOf } from './onsets';
import type { PitchTrack } from './path';

const SOUNDING: Decibels = 22;
const STEADY = 0.2;
const LOUD_ATTACK: Decibels = 14;
const NEAR = Math.round(0.06 / FRAME_SECONDS);

/**
 * How surely a take holds a played line: how much of its sounding time is covered by notes, how many of its loud attacks began one, how
 * steady the pitch stands inside them (a voice glides), and how firmly they are believed. The least of the four decides most.
 */
export function certaintyOf(notes: readonly HeardNote[], track: PitchTrack, frames: readonly Frame[], playing: Decibels): number {
  if (notes.length === 0) return 0;
  const covered = new Uint8Array(frames.length);
  for (const note of notes) covered.fill(1, Math.round(note.onsetSec / FRAME_SECONDS), Math.round(note.offsetSec / FRAME_SECONDS));
  let [sounding, held, pitched, steady] = [0, 0, 0, 0];
  frames.forEach(({ level }, frame) => {
    if (level < playing - SOUNDING) return;
    sounding++;
    if (!covered[frame]) return;
    held++;
    const move = Math.abs((track[frame + 4] ?? NaN) - track[frame]!);
    if (Number.isNaN(move)) return;
    pitched++;
    if (move < STEADY) steady++;
  });
  const starts = new Set(notes.flatMap(({ onsetSec }) => Array.from({ length: 2 * NEAR + 1 }, (_, n) => Math.round(onsetSec / FRAME_SECONDS) - NEAR + n)));
  const attacks = onsetsOf(frames).filter(({ frame, rise }) => rise > 6 && frames[Math.min(frames.length - 1, frame + 5)]!.level > playing - LOUD_ATTACK);
  const answered = attacks.length ? attacks.filter(({ frame }) => starts.has(frame)).length / attacks.length : 1;
  const belief = notes.reduce((sum, { confidence }) => sum + confidence, 0) / notes.length;
  const parts = [held / Math.max(1, sounding), answered, pitched ? steady / pitched : 0.5, belief];
  return Math.round(Math.min(...parts) * parts.reduce((product, part) => product * part, 1) ** 0.25 * 1000) / 1000;
}
