import { median, type Cents, type Midi, type Seconds } from '../shared';
import { FRAME_SECONDS, framesOf, type AnalysisFrame } from './frames';
import { riseAt } from './onsets';

/** A note as it seems while it sounds. The one that is heard at the end of the take takes its place. */
export type ProvisionalNote = {
  readonly onsetSec: Seconds;
  readonly offsetSec: Seconds;
  readonly midi: Midi;
  readonly cents: Cents;
};

/** A pitch is shown once most of these last frames agree on it: 41 ms. */
const SURE = 7;
const AGREE = 5;
const NEAR: Midi = 0.6;
const CLEAR = 0.45;
const GAP = framesOf(0.07);
const STRUCK_RISE = 4;
const STRUCK_STRENGTH = 0.12;
/** A new note is drawn from its attack, which lies up to this far back. */
const LOOK_BACK = framesOf(0.09);
const HELD = 48;

type Growing = { from: number; last: number; midi: Midi };

/**
 * The live line: reads frames as they come and says what note sounds, about 70 ms after its attack (half a
 * window, then seven frames
 * that agree). Quick and single-voiced: chords and strings that ring into one another are for the end of
 * the take.
 */
export class LiveLine {
  private readonly recent: AnalysisFrame[] = [];
  private count = 0;
  private growing: Growing | null = null;
  private attack = -1000;

  /** @returns notes that began or grew with these frames, in order; of one onset the last counts */
  push(frames: readonly AnalysisFrame[]): ProvisionalNote[] {
    const changed = new Map<number, ProvisionalNote>();
    for (const frame of frames) {
      this.recent.push(frame);
      if (this.recent.length > HELD) this.recent.shift();
      this.count++;
      if (this.step() && this.growing) changed.set(this.growing.from, this.written(this.growing));
    }
    return [...changed.values()];
  }

  /** @returns whether a note began or grew */
  private step(): boolean {
    const now = this.count - 1;
    const newest = this.recent.length - 1;
    if (this.isAttack(newest - 2)) this.attack = now - 2;
    const pitch = this.agreed();
    if (pitch === null) {
      if (this.growing && now - this.growing.last > GAP) this.growing = null;
      return false;
    }
    const { growing } = this;
    const struckAgain = growing !== null && this.attack > growing.from + GAP && now - this.attack >= AGREE;
    if (growing && !struckAgain && Math.abs(growing.midi - pitch) < NEAR) {
      growing.last = now;
      return true;
    }
    const from =
      now - this.attack <= LOOK_BACK && this.attack > (growing?.from ?? -1) ? this.attack : now - AGREE;
    this.growing = { from: Math.max(0, from), last: now, midi: pitch };
    return true;
  }

  /** A peak of the flux with a rise of level. */
  private isAttack(at: number): boolean {
    if (at < 3) return false;
    const flux = (index: number) => this.recent[index]?.flux ?? 0;
    return (
      flux(at) > STRUCK_STRENGTH &&
      flux(at) >= flux(at - 1) &&
      flux(at) >= flux(at - 2) &&
      flux(at) > flux(at + 1) &&
      flux(at) > flux(at + 2) &&
      riseAt(this.recent, at) > STRUCK_RISE
    );
  }

  /** The pitch most of the last frames agree on; null where they do not. */
  private agreed(): Midi | null {
    const pitches = this.recent
      .slice(-SURE)
      .flatMap(({ candidates: [best] }) => (best && best.weight >= CLEAR ? [best.midi] : []));
    const middle = median(pitches);
    return middle !== null && pitches.filter((pitch) => Math.abs(pitch - middle) < NEAR).length >= AGREE
      ? middle
      : null;
  }

  private written({ from, last, midi }: Growing): ProvisionalNote {
    const whole = Math.round(midi);
    return {
      onsetSec: from * FRAME_SECONDS,
      offsetSec: (last + 1) * FRAME_SECONDS,
      midi: whole,
      cents: Math.round((midi - whole) * 100),
    };
  }
}
