import { FLAT_NAMES, LETTERS, NATURAL, readNote, spellOver, type Chord, type SpelledNote } from '../music';
import { elementAt, modulo, present, type Midi } from '../shared';

/** A spelled note in its octave; octaves as in MIDI 60 = C4. */
export type SpelledPitch = SpelledNote & { readonly octave: number };

/** A pitch as it sounds, spelled over its chord; in flats where there is none. */
export function spellPitch(midi: Midi, chord: Chord | null): SpelledPitch {
  const pc = modulo(midi, 12);
  const { letter, alter } = chord ? spellOver(chord, pc) : present(readNote(elementAt(FLAT_NAMES, pc))).note;
  return {
    letter,
    alter,
    octave: (midi - alter - elementAt(NATURAL, LETTERS.indexOf(letter))) / 12 - 1,
  };
}
