import { unwrap, defined } from '../shared';
import type { Chart } from './chart';
import { harmonyOf } from './harmony';
import { readChart } from './readChart';
import { changesOf, timelineOf } from './timeline';
import { writeChart } from './writeChart';

/**
 * Some bars of a chart as a chart of their own, in the key they have in the whole.
 * @param from,to bars of the form from 1, both included
 */
export function passage(chart: Chart, from: number, to: number): Chart {
  const timeline = timelineOf(chart, 120);
  const { regions } = harmonyOf(chart, timeline);
  const first = timeline.chordSpans.findIndex(({ bar }) => bar === from - 1);
  const key = regions.find((region) => first >= region.from && first < region.to)?.key ?? chart.key;
  const bars = chart.bars
    .slice(from - 1, to)
    .map((bar, index) => (index === 0 ? { ...bar, repeats: false } : bar));
  const overrides = chart.overrides
    .filter(({ bar }) => bar >= from && bar <= to)
    .map((one) => ({ ...one, bar: one.bar - from + 1 }));
  return unwrap(
    readChart(
      writeChart({ ...chart, key, pickup: 0, bars, overrides, meter: bars[0]?.meter ?? chart.meter }),
    ),
  );
}

/**
 * Every change of a form with the bars to go round in to meet it: the bar it leads into and the one before;
 * where it lies within a bar,
 * that bar alone. A change into bar 1 is met by going round the whole form. Bars from 1, both included.
 */
export function changeLoops(chart: Chart): {
  readonly from: string;
  readonly to: string;
  readonly bar: number;
  readonly bars: readonly [number, number];
}[] {
  const timeline = timelineOf(chart, 120);
  return changesOf(timeline, 1).map(({ from, to, bar, at }) => {
    const onBar = at === defined(timeline.bars[bar]).start;
    return {
      from: from.symbol,
      to: to.symbol,
      bar: bar + 1,
      bars: [onBar ? bar : bar + 1, bar + 1] as const,
    };
  });
}

/**
 * The bars of every section, in order of the form: what a player may want to go round in. Bars from 1, both
 * included.
 */
export function sectionsOf({
  bars,
}: Chart): { readonly name: string; readonly bars: readonly [number, number] }[] {
  const found: { name: string; bars: [number, number] }[] = [];
  bars.forEach(({ section }, index) => {
    const last = found[found.length - 1];
    if (index > 0 && section === defined(bars[index - 1]).section) {
      if (last && section !== null) last.bars[1] = index + 1;
    } else if (section !== null) found.push({ name: section, bars: [index + 1, index + 1] });
  });
  return found;
}
