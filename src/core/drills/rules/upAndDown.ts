import type { Report } from '../../analyse';
import { elementAt, present } from '../../shared';
import { overBars } from './context';
import type { RuleKind } from './ruleKind';
import { SHAPES } from './shape';

type Shape = 'arpeggio' | 'scale-run';
/** In each bar of one chord: up by the one, down by the other. */
export type UpAndDownRule = { readonly kind: 'up-and-down'; readonly up: Shape; readonly down: Shape };

/** Up by one shape and down by the other, in this order, both reaching into the bar. */
function turns(report: Report, indices: readonly number[], { up, down }: UpAndDownRule): boolean {
  // a shape may have begun in the bar before: only what lies in this one has to go the one way
  const moving = (kind: string, way: number) =>
    report.shapes
      .filter((shape) => shape.kind === kind)
      .map(({ noteIndices }) => noteIndices.filter((index) => indices.includes(index)))
      .filter(
        (inside) =>
          inside.length >= 3 &&
          inside
            .slice(1)
            .every(
              (index, at) =>
                (elementAt(report.notes, index).midi - present(report.notes[elementAt(inside, at)]).midi) *
                  way >
                0,
            ),
      );
  return moving(up, 1).some((rise) =>
    moving(down, -1).some(
      (fall) =>
        elementAt(fall, 0) > elementAt(rise, 0) && elementAt(rise, rise.length - 1) <= elementAt(fall, 1),
    ),
  );
}

export const UP_AND_DOWN: RuleKind<UpAndDownRule> = {
  id: 'up-and-down',
  judge: (rule, { report, timeline }) =>
    overBars(report, timeline, (indices) => turns(report, indices, rule), true),
  counted: () => 'bars',
  words: ({ up, down }) => `In every bar of one chord up by ${SHAPES[up]}, down by ${SHAPES[down]}.`,
};
