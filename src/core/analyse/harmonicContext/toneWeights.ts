import type { PitchClass } from '../../shared';
import { fifthOf, hasTone, type Chord } from '../../music';

/**
 * What one note says for a chord.
 * Rule T12.1: third or sus note 1; seventh, sixth or altered fifth 0.8; root 0.6; fifth 0.5; another tone
 * of its scale 0; else −0.5; a foreign bass
 * gains nothing.
 */
export function toneWeightOn(chord: Chord, scale: ReadonlySet<PitchClass>, pc: PitchClass): number {
  const tone = chord.tones.find((own) => own.pc === pc && own.role !== 'bass');
  switch (tone?.role) {
    case 'third':
    case 'sus':
      return 1;
    case 'seventh':
    case 'sixth':
      return 0.8;
    case 'root':
      return 0.6;
    case 'fifth':
      return fifthOf(chord) === 0 ? 0.5 : 0.8;
    default:
      return scale.has(pc) || hasTone(chord, pc) ? 0 : -0.5;
  }
}

/** The gain of each pitch class on a chord with its scale. */
export const toneWeightsOn = (chord: Chord, scale: ReadonlySet<PitchClass>): number[] =>
  Array.from({ length: 12 }, (_, pc) => toneWeightOn(chord, scale, pc));
