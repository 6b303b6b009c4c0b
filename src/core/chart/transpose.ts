import { accepted, modulo, refused, type Outcome, type Semitones, present, defined } from '../shared';
import {
  above,
  keyName,
  letterIndex,
  moveSymbol,
  noteName,
  pitchClass,
  readChord,
  readKey,
  readNote,
  USUAL_ROOTS,
  type Key,
  type SpelledNote,
} from '../music';
import { harmonyOf } from './harmony';
import { readChart } from './readChart';
import { timelineOf } from './timeline';

/** Where a chart is to go: a key, or so many semitones up (negative: down). */
export type Destination = { readonly to: string } | { readonly by: Semitones };

/** The usual spelling of each minor tonic: fewest accidentals in its key. Common practice, no source. */
const MINOR_TONICS = ['C', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'G#', 'A', 'Bb', 'B'];

/**
 * A chart's text in another key, respelled for it: chords, keys and basses change, everything else stays as
 * it was typed.
 * @returns the text, or what is wrong with the chart or the key
 * @example
 * unwrap(transposeText('| Dm7 | G7 |', { by: 3 })) // '| Fm7 | Bb7 |'
 */
export function transposeText(text: string, destination: Destination): Outcome<string> {
  const read = readChart(text);
  if (!read.ok) return read;
  const home = read.value.key ?? defined(harmonyOf(read.value, timelineOf(read.value, 120)).regions[0]).key;
  const goal = goalOf(home, destination);
  if (!goal.ok) return goal;
  const steps = letterIndex(goal.value) - letterIndex(home.tonic);
  const semitones = pitchClass(goal.value) - pitchClass(home.tonic);
  const move = (note: SpelledNote) => simple(above(note, steps, semitones), note);
  return accepted(
    text
      .split('\n')
      .map((line) => moveLine(line, move))
      .join('\n'),
  );
}

function goalOf(home: Key, destination: Destination): Outcome<SpelledNote> {
  if ('by' in destination) {
    const tonics = home.minor ? MINOR_TONICS : USUAL_ROOTS;
    return accepted(
      present(readNote(defined(tonics[modulo(pitchClass(home.tonic) + Math.round(destination.by), 12)])))
        .note,
    );
  }
  const key = readKey(destination.to);
  if (!key.ok) return key;
  if (key.value.minor !== home.minor && /[a-z]{2}|m/.test(destination.to))
    return refused({
      code: 'transpose.mode',
      message: `This chart is in ${keyName(home)}; it can be moved to another key, not from major to minor.`,
      suggestion: noteName(key.value.tonic) + (home.minor ? 'm' : ''),
    });
  return accepted(key.value.tonic);
}

/**
 * A note that would need a double accidental takes its plainer name, unless it had one before; more than a double
 * one nobody writes.
 */
function simple(note: SpelledNote, before: SpelledNote): SpelledNote {
  const most = Math.abs(before.alter) > 1 ? 2 : 1;
  if (Math.abs(note.alter) <= most) return note;
  const plain = above(note, note.alter > 0 ? 1 : -1, 0);
  return {
    letter: plain.letter,
    alter: modulo(pitchClass(note) - pitchClass({ letter: plain.letter, alter: 0 }) + 6, 12) - 6,
  };
}

function moveLine(line: string, move: (note: SpelledNote) => SpelledNote): string {
  if (/^\s*(?:title|feel|reading)\s*:/.test(line)) return line;
  const keyed = line.replace(
    /(\b(?:key|home)\s*:\s*)([A-G](?:bb?|##?|♭♭?|♯♯?)?)/u,
    (_, head: string, tonic: string) => head + moveSymbol(tonic, move),
  );
  if (!keyed.includes('|')) return keyed;
  const from = /^\s*\[[^\]|]*\]/.exec(keyed)?.[0].length ?? 0;
  return (
    keyed.slice(0, from) +
    keyed.slice(from).replace(/[^\s|]+/gu, (word) => (readChord(word).ok ? moveSymbol(word, move) : word))
  );
}
