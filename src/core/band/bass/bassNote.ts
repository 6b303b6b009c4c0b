import { modulo, pitchClassOf, type Beats, type Midi } from '../../shared';
import { pitchClass, toneByRole, type Chord } from '../../music';

/** Open E to the octave over the open A: where a bass line lives. */
export const LOWEST: Midi = 28;
export const HIGHEST: Midi = 50;

export type BassNote = {
  readonly beat: Beats;
  readonly beats: Beats;
  readonly midi: Midi;
  readonly loudness: number;
};

/** The pitch class nearest a pitch, inside the bass's range. */
export function nearest(pc: number, to: Midi): Midi {
  const below = to - modulo(to - pc, 12);
  const best = to - below <= 6 ? below : below + 12;
  if (best < LOWEST) return best + 12;
  if (best > HIGHEST) return best - 12;
  return best;
}

export const inRange = (midi: Midi): boolean => midi >= LOWEST && midi <= HIGHEST;
/** A pitch an octave lower or higher where it would leave the range. */
export const folded = (midi: Midi): Midi => {
  if (midi > HIGHEST) return midi - 12;
  if (midi < LOWEST) return midi + 12;
  return midi;
};
export const bassOf = (chord: Chord): number => pitchClass(chord.bass);
export const thirdOf = (chord: Chord): number => toneByRole(chord, 'third', 'sus')?.pc ?? fifthOf(chord);
export const fifthOf = (chord: Chord): number =>
  toneByRole(chord, 'fifth')?.pc ?? modulo(pitchClass(chord.root) + 7, 12);
export const tonesOf = (chord: Chord): number[] => chord.tones.map((tone) => tone.pc);

/** The tone of a material nearest a pitch and other than it; the pitch itself where there is none. */
export function neighbour(from: Midi, towards: Midi, material: readonly number[]): Midi {
  const way = Math.sign(towards - from) || 1;
  for (const sign of [way, -way])
    for (let distance = 1; distance <= 7; distance++) {
      const midi = from + sign * distance;
      if (inRange(midi) && material.includes(pitchClassOf(midi))) return midi;
    }
  return from;
}
