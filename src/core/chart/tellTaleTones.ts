import { modulo, type PitchClass } from '../shared';
import { hasTone, toneByRole, type Chord, type ChordTone, type Scale } from '../music';

/** Tell-tale tones: the chord tones that a home scale lacks (T3.2). */
export const tellTaleTones = (chord: Chord, home: Scale): ChordTone[] =>
  chord.tones.filter((tone) => !home.pcs.includes(tone.pc));

/**
 * Avoid notes: home-scale tones one semitone above or below the chord's third or seventh that are not chord
 * tones (T3.3).
 */
export function avoidNotes(chord: Chord, home: Scale): PitchClass[] {
  const against = [toneByRole(chord, 'third'), toneByRole(chord, 'seventh')].flatMap((tone) =>
    tone ? [tone.pc] : [],
  );
  return home.pcs.filter(
    (pc) => !hasTone(chord, pc) && against.some((tone) => [1, 11].includes(modulo(pc - tone, 12))),
  );
}
