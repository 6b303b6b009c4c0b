import type { Chart, Timeline } from '../chart';
import { mostCommon } from './mostCommon';
import type { FindingPlace } from './finding';
import { elementAt } from '../shared';

/** First and last bar of the form to loop, counted from 1. */
export type BarRange = readonly [number, number];

/**
 * The part of the chart a drill loops: the first place of its change with the bar before it, the bars of
 * its chord, else the two bars round the place where it happened most,
 * or the whole form.
 */
export function spanOf(
  { bars: written }: Chart,
  { chordSpans: stretches, bars }: Timeline,
  where: FindingPlace,
): BarRange {
  const last = written.length;
  const around = (first: number, end: number): BarRange => [Math.max(1, first), Math.min(last, end)];
  if (where.change !== undefined) {
    const [from, to] = where.change.split('→');
    const at = stretches.findIndex(
      (stretch, index) =>
        stretch.chord?.symbol === to &&
        elementAt(stretches, (index - 1 + stretches.length) % stretches.length).chord?.symbol === from,
    );
    if (at >= 0)
      return at === 0
        ? [1, Math.min(last, 2)]
        : around(elementAt(stretches, at - 1).bar + 1, elementAt(stretches, at).bar + 1);
  }
  if (where.chord !== undefined) {
    const at = stretches.find((stretch) => stretch.chord?.symbol === where.chord);
    if (at) return around(at.bar, at.bar + 2);
  }
  const bar = mostCommon(where.bars.map((through) => ((through - 1) % bars.length) + 1))?.value;
  return bar === undefined ? [1, last] : around(bar - 1, Math.max(2, bar));
}
