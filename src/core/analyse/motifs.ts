import type { Phrase } from './phrases';
import type { Line } from './voice';

/** Which earlier idea a phrase takes up: phrases with the same `motif` share its interval-and-rhythm shape, those of one `theme` its rhythm and contour. */
export type Likeness = { readonly motif?: number; readonly theme?: number };

const FEWEST = 3;
/** A rhythm is the same where its gaps agree to a sixteenth. */
const sameTime = (a: number, b: number): boolean => Math.abs(a - b) <= 0.13;

type Shape = { readonly gaps: readonly number[]; readonly moves: readonly number[] };

/**
 * Motifs and themes among phrases.
 * Rule: 2-theory, "Phrases": a motif is a repeated interval-and-rhythm shape, exact, moved or fitted (each move within two semitones, the same way); a theme
 * is stated again with the same rhythm and contour, differing in at most two notes.
 */
export function likenessOf(phrases: readonly Phrase[], line: Line): Likeness[] {
  const byIndex = new Map(line.map((note) => [note.index, note]));
  const shapes = phrases.map((phrase) => shapeOf(phrase.noteIndices.flatMap((index) => byIndex.get(index) ?? [])));
  const motifs = group(shapes, (a, b) => sameRhythm(a, b) && a.moves.every((move, index) => Math.sign(move) === Math.sign(b.moves[index]!) && Math.abs(move - b.moves[index]!) <= 2));
  const themes = group(shapes, (a, b) => sameRhythm(a, b) && a.moves.every((move, index) => Math.sign(move) === Math.sign(b.moves[index]!)) && differing(a, b) <= 2);
  return phrases.map((_, index) => ({ ...(motifs[index] === null ? {} : { motif: motifs[index]! }), ...(themes[index] === null ? {} : { theme: themes[index]! }) }));
}

const shapeOf = (notes: Line): Shape => ({ gaps: notes.slice(1).map((note, index) => note.onset - notes[index]!.onset), moves: notes.slice(1).map((note, index) => note.pitch - notes[index]!.pitch) });

const sameRhythm = (a: Shape, b: Shape): boolean => a.gaps.length === b.gaps.length && a.gaps.length >= FEWEST - 1 && a.gaps.every((gap, index) => sameTime(gap, b.gaps[index]!));

/** Notes that differ once the first are laid on one another. */
function differing(a: Shape, b: Shape): number {
  let [pitchA, pitchB, count] = [0, 0, 0];
  a.moves.forEach((move, index) => {
    pitchA += move;
    pitchB += b.moves[index]!;
    if (pitchA !== pitchB) count++;
  });
  return count;
}

/** Numbers the groups of shapes that are alike; null where a shape stands alone. */
function group(shapes: readonly Shape[], alike: (a: Shape, b: Shape) => boolean): (number | null)[] {
  const groups: (number | null)[] = shapes.map(() => null);
  let next = 0;
  shapes.forEach((shape, index) => {
    if (groups[index] !== null) return;
    const others = shapes.map((_, other) => other).filter((other) => other > index && groups[other] === null && alike(shape, shapes[other]!));
    if (others.length === 0) return;
    for (const one of [index, ...others]) groups[one] = next;
    next++;
  });
  return groups;
}
