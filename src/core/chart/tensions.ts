import { modulo, type PitchClass } from '../shared';
import { degreeSemitones, isDominant, rootPc, toneByRole, type Chord, type Scale } from '../music';

/**
 * The colour tones over a chord.
 * Rule T3.7: scale tones a whole step above a chord tone; those written; on a dominant also ♭9 ♯9 ♯11
 * ♭13 of its scale; on a bare triad its scale's seventh, and its sixth where that is a whole step above the
 * fifth.
 */
export function availableTensions(chord: Chord, scale: Scale): Set<PitchClass> {
  const tensions = new Set(chord.colours.map((tone) => tone.pc));
  const add = (pc: PitchClass) => scale.pcs.includes(pc) && tensions.add(pc);
  for (const tone of chord.tones) add(modulo(tone.pc + 2, 12));
  const root = rootPc(chord);
  if (isDominant(chord)) for (const step of [1, 3, 6, 8]) add(modulo(root + step, 12));
  if (!toneByRole(chord, 'sixth', 'seventh') && chord.quality !== 'power')
    for (const degree of scale.degrees)
      if (degree.number === 7) add(modulo(root + degreeSemitones(degree), 12));
  for (const tone of chord.tones) tensions.delete(tone.pc);
  return tensions;
}
