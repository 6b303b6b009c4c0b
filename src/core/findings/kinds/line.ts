import { measure, type FindingContext, type Measure } from './finding';

const LONG_RUN = 5;
const ENOUGH_MOVES = 24;

export function scaleRunning(context: FindingContext): Measure[] {
  const { report } = context;
  const running = new Set(
    report.shapes
      .filter(({ kind, noteIndices }) => kind === 'scale-run' && noteIndices.length >= LONG_RUN)
      .flatMap(({ noteIndices }) => noteIndices),
  );
  const all = report.notes.filter((note) => note.top && note.function !== 'grace').length;
  return all < ENOUGH_MOVES
    ? []
    : measure(context, {
        kind: 'scale-running',
        where: { bars: [] },
        met: all - running.size,
        of: all,
        limit: 0.65,
        worth: 0.9,
        title: 'Out of the scale run',
        sentence: `${running.size} of ${all} notes ran up or down a scale, five or more at a time.`,
        drill: { target: 'groups of three, skips and turns', pass: 'no run longer than four' },
      });
}

export function leapsOnly(context: FindingContext): Measure[] {
  const { steps, skips, leaps } = context.report.line;
  const all = steps + skips + leaps;
  return all < ENOUGH_MOVES
    ? []
    : measure(context, {
        kind: 'leaps-only',
        where: { bars: [] },
        met: all - leaps,
        of: all,
        limit: 0.5,
        worth: 0.9,
        title: 'Steps between the leaps',
        sentence: `${leaps} of ${all} moves were leaps of a fourth or more.`,
        drill: { target: 'two steps after every leap', pass: '8 of 12 leaps followed by a step' },
      });
}

export function oneDirection(context: FindingContext): Measure[] {
  const { rising, falling } = context.report.line;
  const [all, rarer] = [rising + falling, Math.min(rising, falling)];
  return all < ENOUGH_MOVES
    ? []
    : measure(context, {
        kind: 'one-direction',
        where: { bars: [] },
        met: rarer,
        of: all,
        limit: 0.33,
        worth: 1,
        title: rising > falling ? 'Coming down too' : 'Going up too',
        sentence: `${all - rarer} of ${all} moves went ${rising > falling ? 'up' : 'down'}.`,
        drill: {
          target: rising > falling ? 'answer every rise with a fall' : 'answer every fall with a rise',
          pass: 'turn in every bar',
        },
      });
}
