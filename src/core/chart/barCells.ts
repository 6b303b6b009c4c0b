import { LIMITS } from '../contracts';
import Fraction from 'fraction.js';
import type { Problem } from '../shared';
import { readChord } from '../music';
import { beatsPerBar, type Cell, type Meter } from './chart';

/** A word in a bar with its 1-based column in the line. */
export type Word = { readonly text: string; readonly column: number };

const NO_CHORD = /^(?:N\.?C\.?|n\.c\.)$/;

/** Splits a bar's text into words; a chord may hold commas and parentheses but no space. */
export const wordsOf = (text: string, column: number): Word[] =>
  [...text.matchAll(/\S+/g)].map((found) => ({ text: found[0], column: column + found.index }));

/**
 * One bar's words as cells. Chords share the bar equally unless it is dotted; in a dotted bar a word or a
 * dot is one beat.
 * @returns the cells, with the problems found; a refused chord leaves a gap so that later bars are still read
 */
export function readCells(
  words: readonly Word[],
  meter: Meter,
  line: number,
): { cells: Cell[]; problems: Problem[] } {
  const problems: Problem[] = [];
  const beats = beatsPerBar(meter);
  const dotted = words.some((word) => word.text === '.');
  const problemAt = (word: Word | undefined, code: string, message: string, suggestion?: string) =>
    problems.push({
      code,
      message,
      line,
      column: word?.column ?? 1,
      length: word?.text.length ?? 1,
      ...(suggestion === undefined ? {} : { suggestion }),
    });
  if (words.length > LIMITS.chart.chordsPerBar)
    problemAt(
      words[0],
      'chart.crowded',
      `This bar holds ${words.length} words; ${LIMITS.chart.chordsPerBar} are the most.`,
    );
  if (words[0]?.text === '.')
    problemAt(words[0], 'chart.dot', 'A dot holds the chord before it; this bar starts with a dot.', '%');
  if (dotted && words.length !== beats)
    problemAt(
      words[words.length - 1],
      'chart.beats',
      `This dotted bar fills ${words.length} of ${beats} beats.`,
      suggestDots(words, beats),
    );
  const share = dotted ? new Fraction(1) : new Fraction(beats, Math.max(1, words.length));
  const cells: Cell[] = [];
  words.forEach((word, index) => {
    const last = cells[cells.length - 1];
    if (word.text === '.') {
      if (last) cells[cells.length - 1] = { ...last, beats: last.beats.add(share) };
      return;
    }
    const chord = NO_CHORD.test(word.text) ? null : readChord(word.text);
    if (chord && !chord.ok) problems.push(...chord.problems.map((p) => inLine(p, word, line)));
    cells.push({
      chord: chord?.ok ? chord.value : null,
      start: share.mul(index),
      beats: share,
      line,
      column: word.column,
    });
  });
  return { cells, problems };
}

function suggestDots(words: readonly Word[], beats: number): string {
  const chords = words.filter((word) => word.text !== '.').map((word) => word.text);
  if (chords.length > beats) return chords.join(' ');
  const filled = chords.flatMap((chord, index) => [
    chord,
    ...Array<string>(index === chords.length - 1 ? Math.max(0, beats - chords.length) : 0).fill('.'),
  ]);
  return filled.slice(0, beats).join(' ');
}

/**
 * A symbol's own column counts inside the word; in a chart it counts in the line. The suggestion replaces the
 * whole word.
 */
const inLine = (problem: Problem, word: Word, line: number): Problem => ({
  ...problem,
  line,
  column: word.column + (problem.column ?? 1) - 1,
});
