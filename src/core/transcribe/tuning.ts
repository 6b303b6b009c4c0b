import type { Hz } from '../shared';
import type { PitchTrack } from './path';

const ENOUGH = 50;
const AGREE = 0.3;

/**
 * A take's own A4: the circular mean of how far voiced frames lie from equal temperament, as in a
 * chroma-tuning estimate.
 */
export class OwnTuning {
  private x = 0;
  private y = 0;
  private count = 0;

  add(track: PitchTrack): void {
    for (const midi of track) {
      if (Number.isNaN(midi)) continue;
      const turn = 2 * Math.PI * (midi - Math.round(midi));
      this.x += Math.cos(turn);
      this.y += Math.sin(turn);
      this.count++;
    }
  }

  /** A frequency within half a semitone of 440 Hz; 440 where the frames do not agree. */
  get a4(): Hz {
    if (this.count < ENOUGH || Math.hypot(this.x, this.y) / this.count < AGREE) return 440;
    return 440 * 2 ** (Math.atan2(this.y, this.x) / (2 * Math.PI) / 12);
  }
}
