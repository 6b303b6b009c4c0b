import { overChanges } from './context';
import type { RuleKind } from './ruleKind';

/** At each change: the landing is the target of an enclosure or of two half steps one way. */
export type FigureRule = {
  readonly kind: 'figure';
  readonly figures: readonly ('enclosure' | 'double-chromatic')[];
};

const NAMES = { enclosure: 'an enclosure', 'double-chromatic': 'two half steps one way' } as const;

export const FIGURE: RuleKind<FigureRule> = {
  id: 'figure',
  judge: ({ figures }, { report }) =>
    overChanges(report, ({ landing }) =>
      report.figures.some(
        ({ kind, targetIndex }) =>
          targetIndex === landing.noteIndex && (figures as readonly string[]).includes(kind),
      ),
    ),
  counted: () => 'lead-ins',
  words: ({ figures }) =>
    `Lead into the landing by ${figures.map((kind) => NAMES[kind]).join(' or ')} at every change.`,
  example: ({ figures }, recipe) => ({
    ...recipe,
    chromatic: 'only',
    lands: true,
    lead: figures.includes('double-chromatic') ? [[1], [1]] : [[-2, -3], [1]],
  }),
};
