import { modulo } from '../shared';
import { isDominant, pitchClass, type Chord } from '../music';
import type { BandEvent } from './events';
import { nearest } from './bass/bassNote';
import { AT_REST, voiceLed } from './keys/voicing';
import type { WalkForm } from './walk';

/** How long the last chord rings, in beats. */
export const ENDING_BEATS = 4;

/**
 * The chord everybody ends on, on the first beat after the last chorus: the one the form begins with where
 * it ends on a dominant that leads
 * there, else its last one.
 */
export function ending({ timeline, choruses }: WalkForm): BandEvent[] {
  const chord = lastChord(timeline.chordSpans.map((one) => one.chord));
  if (!chord) return [];
  const beat = choruses * timeline.formBeats;
  return [
    {
      part: 'bass',
      beat,
      beats: ENDING_BEATS * 0.9,
      midi: nearest(pitchClass(chord.bass), 34),
      loudness: 0.82,
    },
    ...voiceLed(chord, AT_REST).map((midi): BandEvent => ({
      part: 'chords',
      beat,
      beats: ENDING_BEATS * 0.9,
      midi,
      loudness: 0.6,
    })),
    { part: 'drums', drum: 'kick', beat, loudness: 0.5 },
    { part: 'drums', drum: 'crash', beat, loudness: 0.36 },
  ];
}

function lastChord(chords: readonly (Chord | null)[]): Chord | null {
  const last = chords.findLast((one) => one !== null) ?? null;
  const first = chords.find((one) => one !== null) ?? null;
  if (!last || !first) return last;
  const down = modulo(pitchClass(last.root) - pitchClass(first.root), 12);
  return isDominant(last) && (down === 7 || down === 1) ? first : last;
}
