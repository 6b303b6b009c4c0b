import type { Decibels } from '../shared';
import { FRAME_SECONDS, type AnalysisFrame } from './frames';
import type { LeftOut } from './noteOnsets';
import type { HeardSound } from './notes';
import { onsetsOf } from './onsets';
import type { PitchTrack } from './path';

const SOUNDING: Decibels = 22;
const STEADY = 0.2;
const LOUD_ATTACK: Decibels = 14;
const LOUD_RISE: Decibels = 6;
/**
 * Of playing, so much is held, answered and steady at least: measured on takes of every kind; of a voice, less. Attacks
 * of a band that leaks in are answered by no note.
 */
const PLAYED = { held: 0.6, answered: 0.3, steady: 0.6 };
const NEAR = Math.round(0.06 / FRAME_SECONDS);

/**
 * How surely a take holds a played line that was heard right. Counts how much of its sounding time is covered by
 * notes, how many of its loud attacks began one, how steady the pitch stands inside them (a voice glides), and how
 * firmly each note is believed and each that was left out is not.
 */
export class Certainty {
  private frames = { sounding: 0, held: 0, pitched: 0, steady: 0 };
  private attacks = { all: 0, answered: 0 };
  private notes = { count: 0, belief: 0, leftOut: 0 };

  /** Counts the frames of a stretch from one to another; what sounds beside them is told too. */
  add(
    {
      sounds,
      leftOut,
      track,
    }: {
      readonly sounds: readonly HeardSound[];
      readonly leftOut: readonly LeftOut[];
      readonly track: PitchTrack;
    },
    frames: readonly AnalysisFrame[],
    playing: Decibels,
    from: number,
    to: number,
  ): void {
    const covered = new Uint8Array(frames.length);
    const started = new Uint8Array(frames.length);
    for (const { start, end, began } of sounds) {
      covered.fill(1, Math.max(0, began), end);
      started.fill(1, Math.max(0, began - NEAR), began + NEAR + 1);
      if (start.frame < from || start.frame >= to) continue;
      this.notes.count++;
      this.notes.belief += start.belief;
    }
    for (const { frame, belief } of leftOut) if (frame >= from && frame < to) this.notes.leftOut += belief;
    this.countFrames(track, frames, covered, playing - SOUNDING, from, to);
    for (const { frame, rise } of onsetsOf(frames)) {
      if (frame < from || frame >= to || rise <= LOUD_RISE) continue;
      if (frames[Math.min(frames.length - 1, frame + 5)]!.level <= playing - LOUD_ATTACK) continue;
      this.attacks.all++;
      if (started[frame]) this.attacks.answered++;
    }
  }

  /** Counts frames that sound, those that a note covers, and those of them whose pitch stands still. */
  private countFrames(
    track: PitchTrack,
    frames: readonly AnalysisFrame[],
    covered: Uint8Array,
    least: Decibels,
    from: number,
    to: number,
  ): void {
    for (let frame = from; frame < to; frame++) {
      if (frames[frame]!.level < least) continue;
      this.frames.sounding++;
      if (!covered[frame]) continue;
      this.frames.held++;
      const move = Math.abs((track[frame + 4] ?? NaN) - track[frame]!);
      if (Number.isNaN(move)) continue;
      this.frames.pitched++;
      if (move < STEADY) this.frames.steady++;
    }
  }

  /**
   * 0 to 1: the F1 to be expected of the notes, from what is believed of each that was taken and of each that was
   * left out; less where too little of what sounds is held by notes, answered by them, or steady in them.
   */
  get value(): number {
    const { frames, attacks, notes } = this;
    if (notes.count === 0) return 0;
    const expected = (2 * notes.belief) / (notes.count + notes.belief + notes.leftOut);
    const shares = {
      held: frames.held / Math.max(1, frames.sounding),
      answered: attacks.all ? attacks.answered / attacks.all : 1,
      steady: frames.pitched ? frames.steady / frames.pitched : 1,
    };
    const played = (['held', 'answered', 'steady'] as const).reduce(
      (product, of) => product * Math.min(1, shares[of] / PLAYED[of]),
      1,
    );
    return Math.round(expected * played * 1000) / 1000;
  }
}
