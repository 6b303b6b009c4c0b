import { elementAt, type Beats, type Midi } from '../shared';
import type { PhraseNote } from './phrase';

/** The line of a take as it is searched: onsets in beats, pitches, and the places where its phrases begin. */
export type SearchedLine = {
  readonly onsets: readonly Beats[];
  readonly pitches: readonly Midi[];
  readonly phraseStarts: readonly number[];
};

/**
 * A phrase met again: note by note, moved as a whole, or fitted, with the same rhythm and turns and at most two notes
 * changed (T10.3).
 */
export type Found = {
  /** Place of its first note in the line. */
  readonly at: number;
  readonly beat: Beats;
  readonly how: 'exact' | 'moved' | 'fitted';
  /** Notes of the phrase that were other ones, by their place in it. */
  readonly changed: readonly number[];
};

/** Two rhythms are one where their gaps agree to a sixteenth. */
const SAME_GAP: Beats = 0.15;
const MOST_CHANGED = 2;
/** Shorter ideas come up in every line. */
export const FEWEST_SEARCHED = 3;

/** Every place of a line where a phrase comes back. */
export function foundIn(line: SearchedLine, notes: readonly PhraseNote[]): Found[] {
  if (notes.length < FEWEST_SEARCHED) return [];
  const found: Found[] = [];
  for (let at = 0; at + notes.length <= line.onsets.length; at++) {
    const here = hasRhythm(line.onsets, at, notes) ? likenessAt(line.pitches, at, notes) : null;
    if (!here) continue;
    found.push({ at, beat: elementAt(line.onsets, at), ...here });
  }
  return found;
}

function hasRhythm(onsets: readonly Beats[], at: number, notes: readonly PhraseNote[]): boolean {
  for (let index = 1; index < notes.length; index++) {
    const gap = elementAt(onsets, at + index) - elementAt(onsets, at + index - 1);
    const own = elementAt(notes, index).onsetBeat - elementAt(notes, index - 1).onsetBeat;
    if (Math.abs(gap - own) > SAME_GAP) return false;
  }
  return true;
}

function likenessAt(
  pitches: readonly Midi[],
  at: number,
  notes: readonly PhraseNote[],
): Pick<Found, 'how' | 'changed'> | null {
  const shiftOf = (index: number) => elementAt(pitches, at + index) - elementAt(notes, index).midi;
  let [shift, fewest] = [0, Infinity];
  // with two notes changed at most, one of the first three is not
  for (let first = 0; first <= MOST_CHANGED; first++) {
    const candidate = shiftOf(first);
    const differing = countWhere(notes.length, (index) => shiftOf(index) !== candidate, fewest);
    if (differing < fewest) [shift, fewest] = [candidate, differing];
  }
  if (fewest === 0) return { how: shift === 0 ? 'exact' : 'moved', changed: [] };
  if (fewest > MOST_CHANGED) return null;
  const changed = notes.flatMap((_, index) => (shiftOf(index) === shift ? [] : [index]));
  const turnsAlike = notes.every(
    ({ midi }, index) =>
      index === 0 ||
      Math.sign(midi - elementAt(notes, index - 1).midi) ===
        Math.sign(elementAt(pitches, at + index) - elementAt(pitches, at + index - 1)),
  );
  return turnsAlike ? { how: 'fitted', changed } : null;
}

/** How many places answer to a question; counting stops where a limit is reached. */
function countWhere(length: number, asks: (index: number) => boolean, limit: number): number {
  let count = 0;
  for (let index = 0; index < length && count < limit; index++) if (asks(index)) count++;
  return count;
}

/** A phrase that comes back over many takes. */
export type CommonPhrase = {
  readonly count: number;
  /** How many takes hold it. */
  readonly takes: number;
  /** Where it was played last: which line, and which of its phrases. */
  readonly line: number;
  readonly phrase: number;
};

/** An idea that is in fewer takes than this is no habit. */
const FEWEST_TAKES = 2;
const FEWEST_NOTES = 4;

/**
 * Whole phrases that come back with the same intervals and rhythm, over several takes, most often first.
 * @param lines of takes, oldest first
 */
export function commonPhrases(lines: readonly SearchedLine[]): CommonPhrase[] {
  const seen = new Map<string, { count: number; lines: Set<number>; line: number; phrase: number }>();
  lines.forEach(({ onsets, pitches, phraseStarts }, line) =>
    phraseStarts.forEach((from, phrase) => {
      const to = phraseStarts[phrase + 1] ?? onsets.length;
      if (to - from < FEWEST_NOTES) return;
      const key = shapeKey(onsets.slice(from, to), pitches.slice(from, to));
      const before = seen.get(key) ?? { count: 0, lines: new Set<number>(), line, phrase };
      before.lines.add(line);
      seen.set(key, { ...before, count: before.count + 1, line, phrase });
    }),
  );
  return [...seen.values()]
    .filter(({ lines: takes }) => takes.size >= FEWEST_TAKES)
    .map(({ count, lines: takes, line, phrase }) => ({ count, takes: takes.size, line, phrase }))
    .sort((a, b) => b.takes - a.takes || b.count - a.count);
}

/** Intervals with gaps rounded to a quarter of a beat: what two statements of one idea share. */
const shapeKey = (onsets: readonly Beats[], pitches: readonly Midi[]): string =>
  pitches
    .slice(1)
    .map((pitch, index) => {
      const gap = elementAt(onsets, index + 1) - elementAt(onsets, index);
      return `${pitch - elementAt(pitches, index)}:${Math.round(4 * gap)}`;
    })
    .join(' ');
