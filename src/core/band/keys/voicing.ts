import { modulo, type Midi } from '../../shared';
import { isDominant, rootPc, type Chord } from '../../music';

/** Where the right hand of a keyboard lies, and the middle strings of a guitar. */
const LOWEST: Midi = 52;
const HIGHEST: Midi = 74;

/** Where the hand lies before the first chord. */
export const AT_REST: readonly Midi[] = [57, 60, 64, 67];

/** The tones worth playing: third and seventh first, then a colour or the fifth; the bass has the root. */
function voicingTones(chord: Chord): number[] {
  const root = rootPc(chord);
  const own = chord.tones
    .filter((tone) => tone.role !== 'root' && tone.role !== 'bass')
    .map((tone) => tone.pc);
  const colours = chord.colours.map((tone) => tone.pc);
  const plain = own.length < 3 && !isDominant(chord) ? [root] : [];
  return [...new Set([...own, ...colours, ...plain])].slice(0, 4);
}

/** Each tone as near as it can be to where a finger already is; voices move by less than an octave. */
export function voiceLed(chord: Chord, hand: readonly Midi[]): Midi[] {
  const centre = hand.reduce((sum, midi) => sum + midi, 0) / Math.max(1, hand.length);
  const middle = Math.max(LOWEST + 8, Math.min(HIGHEST - 8, centre));
  const placed = voicingTones(chord).map((pc) => {
    const near =
      [...hand].sort(
        (a, b) => Math.abs(modulo(a - pc + 6, 12) - 6) - Math.abs(modulo(b - pc + 6, 12) - 6),
      )[0] ?? middle;
    const around = (near + middle) / 2;
    const midi = Math.round(around) - modulo(Math.round(around) - pc, 12);
    const best = around - midi <= 6 ? midi : midi + 12;
    if (best < LOWEST) return best + 12;
    if (best > HIGHEST) return best - 12;
    return best;
  });
  return [...new Set(placed)].sort((a, b) => a - b);
}
