import { SILENCE } from '../sound';
import type { Decibels } from '../shared';
import type { AnalysisFrame } from './frames';

const STEP: Decibels = 0.01;
const LOUDEST: Decibels = 12;
/** The share of frames that are quieter than the playing level. */
const SHARE = 0.93;

/**
 * The level a take is played at so far: its loud frames, not its loudest one. Counted to a hundredth of a dB,
 * whatever the length.
 */
export class PlayingLevel {
  private readonly counts = new Uint32Array(Math.round((LOUDEST - SILENCE) / STEP) + 1);
  private total = 0;

  add({ level }: AnalysisFrame): void {
    this.counts[Math.max(0, Math.min(this.counts.length - 1, Math.round((level - SILENCE) / STEP)))]!++;
    this.total++;
  }

  /** In dBFS; −120 where nothing was counted. */
  get value(): Decibels {
    let left = Math.floor(this.total * SHARE);
    for (let step = 0; step < this.counts.length; step++)
      if ((left -= this.counts[step]!) < 0) return SILENCE + step * STEP;
    return SILENCE;
  }
}
