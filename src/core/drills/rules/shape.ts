import type { Report } from '../../analyse';
import { elementAt } from '../../shared';
import { overBars } from './context';
import type { RuleKind } from './ruleKind';

/** In each bar that is played in: a shape of this kind; `cell`: a pattern of so many notes. */
export type ShapeRule = {
  readonly kind: 'shape';
  readonly shapes: readonly ('arpeggio' | 'scale-run' | 'sequence')[];
  readonly cell?: 2 | 3 | 4;
};

/** The least number of notes after which a pattern says itself again, a step on. */
function cellOf(report: Report, indices: readonly number[]): number | null {
  const pitches = indices.map((index) => Math.round(elementAt(report.notes, index).midi));
  const way = Math.sign(elementAt(pitches, pitches.length - 1) - elementAt(pitches, 0));
  return (
    [2, 3, 4].find(
      (size) =>
        pitches.length >= 3 * size &&
        pitches
          .slice(size)
          .every(
            (pitch, index) =>
              (pitch - elementAt(pitches, index)) * way >= 1 &&
              (pitch - elementAt(pitches, index)) * way <= 3,
          ),
    ) ?? null
  );
}

const PATTERNS = { 2: 'a pattern of skips', 3: 'a pattern of threes', 4: 'a pattern of fours' } as const;
export const SHAPES = { arpeggio: 'an arpeggio', 'scale-run': 'a scale run' } as const;

const shapeWords = (shape: ShapeRule['shapes'][number], cell: ShapeRule['cell']): string => {
  if (shape !== 'sequence') return SHAPES[shape];
  return cell === undefined ? 'a pattern that moves' : PATTERNS[cell];
};

export const SHAPE: RuleKind<ShapeRule> = {
  id: 'shape',
  // a pattern of one cell size needs bars of one chord: half a bar holds no three statements
  judge: ({ shapes, cell }, { report, timeline }) => {
    const fitting = report.shapes.filter(
      ({ kind, noteIndices }) =>
        (shapes as readonly string[]).includes(kind) &&
        (cell === undefined || cellOf(report, noteIndices) === cell),
    );
    const inside = new Set(fitting.flatMap(({ noteIndices }) => noteIndices));
    const hasShape = (indices: readonly number[]) => indices.some((index) => inside.has(index));
    return overBars(report, timeline, hasShape, cell !== undefined);
  },
  counted: () => 'bars',
  words: ({ shapes, cell }) => `In every bar ${shapes.map((shape) => shapeWords(shape, cell)).join(' or ')}.`,
  example: ({ shapes, cell }, recipe) => {
    if (cell === undefined && !shapes.includes('sequence')) return recipe;
    return { ...recipe, written: { kind: 'pattern', cell: cell ?? 2 } };
  },
};
