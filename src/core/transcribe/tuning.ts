import type { Hz } from '../vocabulary';
import type { PitchTrack } from './path';

/**
 * The take's own A4: the circular mean of how far voiced frames lie from equal temperament, as in a chroma-tuning estimate.
 * @returns a frequency within half a semitone of 440 Hz; 440 where the frames do not agree
 */
export function tuningOf(track: PitchTrack): Hz {
  let [x, y, count] = [0, 0, 0];
  for (const midi of track) {
    if (Number.isNaN(midi)) continue;
    const turn = 2 * Math.PI * (midi - Math.round(midi));
    x += Math.cos(turn);
    y += Math.sin(turn);
    count++;
  }
  if (count < 50 || Math.hypot(x, y) / count < 0.3) return 440;
  const semitones = Math.atan2(y, x) / (2 * Math.PI);
  return 440 * 2 ** (semitones / 12);
}
