import type { Line } from '../notes/voice';
import { defined } from '../../shared';

/**
 * Which earlier idea a phrase takes up: phrases with the same `motif` share its interval-and-rhythm shape,
 * those of one `theme` its rhythm and contour.
 */
export type Likeness = {
  readonly motif?: number;
  readonly theme?: number;
  /** Notes that differ from the theme's statement before, and whether each is now a tone of its chord. */
  readonly changed?: readonly { readonly noteIndex: number; readonly toChordTone: boolean }[];
};

const FEWEST = 3;
/** A rhythm is the same where its gaps agree to a sixteenth. */
const sameTime = (a: number, b: number): boolean => Math.abs(a - b) <= 0.13;

type MotifShape = { readonly gaps: readonly number[]; readonly moves: readonly number[] };

/**
 * Motifs and themes among phrases.
 * Rule T10.3: Motif: repeated interval-and-rhythm shape (exact, moved, fitted). Theme: statements with the
 * same rhythm and contour that differ in at most
 * two notes; which note changed, and whether to the new chord's tone. Fitted: each move the same way and
 * within two semitones.
 */
export function likenessOf(
  phrases: readonly { readonly noteIndices: readonly number[] }[],
  line: Line,
  isChordTone: (place: number) => boolean,
): Likeness[] {
  const byIndex = new Map(line.map((note) => [note.index, note]));
  const lines = phrases.map((phrase) => phrase.noteIndices.flatMap((index) => byIndex.get(index) ?? []));
  const shapes = lines.map(shapeOf);
  const motifs = group(
    shapes,
    (a, b) =>
      sameRhythm(a, b) &&
      a.moves.every(
        (move, index) =>
          Math.sign(move) === Math.sign(defined(b.moves[index])) &&
          Math.abs(move - defined(b.moves[index])) <= 2,
      ),
  );
  const themes = group(
    shapes,
    (a, b) =>
      sameRhythm(a, b) &&
      a.moves.every((move, index) => Math.sign(move) === Math.sign(defined(b.moves[index]))) &&
      differing(a, b).length <= 2,
  );
  return phrases.map((_, index) => {
    const motif = defined(motifs[index]);
    const theme = defined(themes[index]);
    const before = theme === null ? -1 : themes.lastIndexOf(theme, index - 1);
    const changed =
      index > 0 && before >= 0
        ? differing(defined(shapes[before]), defined(shapes[index]))
            .map((at) => defined(defined(lines[index])[at]))
            .map((note) => ({ noteIndex: note.index, toChordTone: isChordTone(note.event) }))
        : [];
    return {
      ...(motif === null ? {} : { motif }),
      ...(theme === null ? {} : { theme }),
      ...(changed.length > 0 ? { changed } : {}),
    };
  });
}

const shapeOf = (notes: Line): MotifShape => ({
  gaps: notes.slice(1).map((note, index) => note.onset - defined(notes[index]).onset),
  moves: notes.slice(1).map((note, index) => note.pitch - defined(notes[index]).pitch),
});

const sameRhythm = (a: MotifShape, b: MotifShape): boolean =>
  a.gaps.length === b.gaps.length &&
  a.gaps.length >= FEWEST - 1 &&
  a.gaps.every((gap, index) => sameTime(gap, defined(b.gaps[index])));

/** Places of the notes that differ once the first are laid on one another. */
function differing(a: MotifShape, b: MotifShape): number[] {
  let [pitchA, pitchB] = [0, 0];
  return a.moves.flatMap((move, index) => {
    pitchA += move;
    pitchB += defined(b.moves[index]);
    return pitchA === pitchB ? [] : [index + 1];
  });
}

/** Numbers the groups of shapes that are alike; null where a shape stands alone. */
function group(
  shapes: readonly MotifShape[],
  alike: (a: MotifShape, b: MotifShape) => boolean,
): (number | null)[] {
  const groups: (number | null)[] = shapes.map(() => null);
  // shapes of another number of notes are never alike
  const bySize = new Map<number, number[]>();
  shapes.forEach(({ gaps }, index) => {
    const size = bySize.get(gaps.length);
    if (size) size.push(index);
    else bySize.set(gaps.length, [index]);
  });
  let next = 0;
  shapes.forEach((shape, index) => {
    if (groups[index] !== null) return;
    const others = (bySize.get(shape.gaps.length) ?? []).filter(
      (other) => other > index && groups[other] === null && alike(shape, defined(shapes[other])),
    );
    if (others.length === 0) return;
    for (const one of [index, ...others]) groups[one] = next;
    next++;
  });
  return groups;
}
