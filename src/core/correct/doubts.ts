import type { CorrectedNote, NoteId } from './edits';
import { elementAt, type Cents, type Midi } from '../shared';

/**
 * What a doubtful note may have been, and how likely: two readings, the likelier first. `midi` null: nothing
 * was played there.
 */
export type PitchReading = { readonly midi: Midi | null; readonly belief: number };
export type Doubt = {
  readonly id: NoteId;
  readonly why: 'octave' | 'between' | 'faint';
  readonly readings: readonly [PitchReading, PitchReading];
};

/** Notes believed less are asked about. */
const SURE = 0.8;
/** A pitch this near the middle between two keys may be either. */
const BETWEEN: Cents = 35;
const OCTAVE = 12;
/** An octave doubt: an octave or more out of the line on both sides while the octave nearer fits it. */
const LEAP = 10;
const NEAR = 7;

/**
 * Notes that may have been heard wrongly, the least sure first: pitches between two keys, octaves that leap
 * out of the line, and what is
 * hardly believed at all. Octaves, and bends between keys, are (docs/ears.md) the likeliest mistakes of any
 * pitch tracker.
 */
export function doubtsOf(notes: readonly CorrectedNote[]): Doubt[] {
  const asked = notes.flatMap((note, index): (Doubt & { sure: number })[] => {
    if (note.edited || note.ghost || note.sure) return [];
    const sure = note.confidence ?? 1;
    const octave = octaveDoubt(notes, index);
    if (octave !== null)
      return [
        {
          id: note.id,
          why: 'octave',
          readings: ranked({ midi: note.midi, belief: sure * 0.6 }, { midi: octave, belief: 1 - sure * 0.6 }),
          sure: sure * 0.6,
        },
      ];
    const cents = note.cents ?? 0;
    if (Math.abs(cents) >= BETWEEN && !note.bend) {
      const belief = 1 - Math.abs(cents) / 100;
      return [
        {
          id: note.id,
          why: 'between',
          readings: ranked(
            { midi: note.midi, belief },
            { midi: note.midi + Math.sign(cents), belief: 1 - belief },
          ),
          sure: Math.min(sure, belief),
        },
      ];
    }
    return sure < SURE
      ? [
          {
            id: note.id,
            why: 'faint',
            readings: ranked({ midi: note.midi, belief: sure }, { midi: null, belief: 1 - sure }),
            sure,
          },
        ]
      : [];
  });
  return asked.sort((a, b) => a.sure - b.sure).map(({ sure: _sure, ...doubt }) => doubt);
}

const ranked = (a: PitchReading, b: PitchReading): readonly [PitchReading, PitchReading] =>
  b.belief > a.belief ? [b, a] : [a, b];

/** The octave that would fit the line, where this one leaps out of it and is not surely believed. */
function octaveDoubt(notes: readonly CorrectedNote[], index: number): Midi | null {
  const note = elementAt(notes, index);
  if ((note.confidence ?? 1) >= 0.93) return null;
  const [before, after] = [notes[index - 1], notes[index + 1]];
  if (!before || !after) return null;
  const apart = (midi: Midi) => Math.max(Math.abs(midi - before.midi), Math.abs(midi - after.midi));
  const least = Math.min(Math.abs(note.midi - before.midi), Math.abs(note.midi - after.midi));
  if (least < LEAP) return null;
  const other = [note.midi - OCTAVE, note.midi + OCTAVE].find((midi) => apart(midi) <= NEAR);
  return other ?? null;
}
