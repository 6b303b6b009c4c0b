import { modulo, type PitchClass } from '../shared';
import { spellOver, type Chord } from './chord';
import { leansSharp, scaleNotes, type Scale } from './scale';
import { NATURAL, pitchClass, LETTERS, type SpelledNote } from './spelling';

/** A note without double accidentals: `F##` is G, `Ebb` is D (T3.13). */
export function plainNote(note: SpelledNote): SpelledNote {
  if (Math.abs(note.alter) < 2) return note;
  const pc = pitchClass(note);
  const natural = LETTERS.find((_, index) => NATURAL[index] === pc);
  if (natural) return { letter: natural, alter: 0 };
  const alter = note.alter > 0 ? 1 : -1;
  const letter = LETTERS.find((_, index) => modulo((NATURAL[index] ?? 0) + alter, 12) === pc);
  return letter ? { letter, alter } : note;
}

/**
 * How pitch classes are named where a chord stands beside a home scale: the chord's own tones by the chord, other
 * tones of the home scale by the scale's letters, the rest by the chord. One pitch class has one name (T3.13).
 * @returns the speller of one card
 */
export function spellerOf(chord: Chord | null, home: Scale | null): (pc: PitchClass) => SpelledNote {
  const names = new Map<PitchClass, SpelledNote>();
  if (home) for (const note of scaleNotes(home)) names.set(pitchClass(note), plainNote(note));
  for (const tone of chord?.tones ?? []) names.set(tone.pc, plainNote(tone.note));
  return (pc) => names.get(pc) ?? spelledBeside(chord, home, pc);
}

/** A note of neither: a natural where it is one, over the chord, else in flats or sharps as the home scale leans. */
function spelledBeside(chord: Chord | null, home: Scale | null, pc: PitchClass): SpelledNote {
  const natural = LETTERS.find((_, index) => NATURAL[index] === pc);
  if (natural) return { letter: natural, alter: 0 };
  if (chord) return plainNote(spellOver(chord, pc));
  const alter = home && leansSharp(home) ? 1 : -1;
  const letter = LETTERS.find((_, index) => modulo((NATURAL[index] ?? 0) + alter, 12) === pc) ?? 'C';
  return { letter, alter };
}
