import { accepted, refused, type Midi, type Outcome, elementAt } from '../shared';
import { pitchClass, readNote } from '../music';
import type { Tuning } from './fretboard';

const NAMES = ['C', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'];
const FEWEST = 4;
const MOST = 10;

/** Tunings people ask for by name, low to high. Common practice, no source. */
export const TUNINGS: Readonly<Record<string, string>> = {
  Standard: 'E2 A2 D3 G3 B3 E4',
  'Low string to D': 'D2 A2 D3 G3 B3 E4',
  'Half step down': 'Eb2 Ab2 Db3 Gb3 Bb3 Eb4',
  'Whole step down': 'D2 G2 C3 F3 A3 D4',
  'Fourths throughout': 'E2 A2 D3 G3 C4 F4',
  'D A D G A D': 'D2 A2 D3 G3 A3 D4',
  'Open G': 'D2 G2 D3 G3 B3 D4',
  'Open D': 'D2 A2 D3 F#3 A3 D4',
  'Seven strings': 'B1 E2 A2 D3 G3 B3 E4',
  'Eight strings': 'F#1 B1 E2 A2 D3 G3 B3 E4',
};

/** A pitch with its octave, as in `Bb3`; middle C is C4 = MIDI 60. */
export const pitchName = (midi: Midi): string =>
  `${NAMES[((midi % 12) + 12) % 12]}${Math.floor(midi / 12) - 1}`;

/**
 * Reads open strings from low to high: `E2 A2 D3 G3 B3 E4`.
 * @returns the tuning from string 1 (the highest) down, or a problem with its column and a way out
 */
export function readTuning(text: string): Outcome<Tuning> {
  const words = [...text.matchAll(/[^\s,]+/g)];
  const open: Midi[] = [];
  for (const word of words) {
    const midi = readPitch(word[0]);
    if (midi === null)
      return refused({
        code: 'tuning.pitch',
        column: word.index + 1,
        length: word[0].length,
        message: `“${word[0]}” is not a pitch with its octave.`,
        suggestion: 'E2 A2 D3 G3 B3 E4',
      });
    const before = open[open.length - 1];
    if (before !== undefined && midi < before)
      return refused({
        code: 'tuning.order',
        column: word.index + 1,
        length: word[0].length,
        message: `Strings are named from low to high: ${word[0]} is lower than ${elementAt(words, open.length - 1)[0]} before it.`,
        suggestion: words
          .map((one) => one[0])
          .sort((a, b) => (readPitch(a) ?? 0) - (readPitch(b) ?? 0))
          .join(' '),
      });
    open.push(midi);
  }
  if (open.length < FEWEST || open.length > MOST)
    return refused({
      code: 'tuning.strings',
      message: `A tuning names ${FEWEST} to ${MOST} strings; this names ${open.length}.`,
      suggestion: 'E2 A2 D3 G3 B3 E4',
    });
  return accepted(open.reverse());
}

function readPitch(text: string): Midi | null {
  const read = readNote(text.charAt(0).toUpperCase() + text.slice(1));
  const octave = read ? /^-?\d$/.exec(text.slice(read.length)) : null;
  if (!read || !octave) return null;
  const { letter, alter } = read.note;
  const natural = pitchClass({ letter, alter: 0 });
  const midi = 12 * (Number(octave[0]) + 1) + natural + alter;
  return midi >= 12 && midi <= 96 ? midi : null;
}

/** The tuning as it is read: low to high. */
export const writeTuning = (tuning: Tuning): string => [...tuning].reverse().map(pitchName).join(' ');

/** A string's name without its octave, for the side of a neck. */
export const stringName = (midi: Midi): string => elementAt(NAMES, ((midi % 12) + 12) % 12);
