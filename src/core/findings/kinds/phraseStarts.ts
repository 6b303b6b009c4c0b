import { formPositionOf } from '../../chart';
import { elementAt, type Beats } from '../../shared';
import type { FindingContext } from '../finding';

export const NEAR_ONE: Beats = 0.3;

/** Where in its bar a phrase starts, in beats; just before a bar line counts as on it. */
export function startInBar({ timeline }: FindingContext, startBeat: Beats): Beats {
  const { bar, beatInBar } = formPositionOf(timeline, Math.max(0, startBeat) + 1e-6);
  const span = elementAt(timeline.bars, bar);
  return beatInBar > span.end - span.start - NEAR_ONE ? 0 : beatInBar;
}
