import type { ChangeReport } from '../analyse';
import { formPositionOf } from '../chart';
import type { FindingContext } from './finding';

/** A change's bar counted through all choruses. */
export const throughBar = (
  { timeline }: FindingContext,
  change: Pick<ChangeReport, 'chorus' | 'bar'>,
): number => (change.chorus - 1) * timeline.bars.length + change.bar;

/** The bar a beat lies in, counted from 1 through all choruses. */
export function barAt({ timeline }: FindingContext, beat: number): number {
  const { chorus, bar } = formPositionOf(timeline, Math.max(0, beat) + 1e-6);
  return chorus * timeline.bars.length + bar + 1;
}
