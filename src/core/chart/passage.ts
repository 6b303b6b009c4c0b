import { certain } from '../vocabulary';
import type { Chart } from './chart';
import { harmonyOf } from './harmony';
import { readChart } from './readChart';
import { timelineOf } from './timeline';
import { writeChart } from './writeChart';

/**
 * Some bars of a chart as a chart of their own, in the key they have in the whole.
 * @param from,to bars of the form from 1, both included
 */
export function passage(chart: Chart, from: number, to: number): Chart {
  const timeline = timelineOf(chart, 120);
  const { regions } = harmonyOf(chart, timeline);
  const first = timeline.stretches.findIndex(({ bar }) => bar === from - 1);
  const key = regions.find((region) => first >= region.from && first < region.to)?.key ?? chart.key;
  const bars = chart.bars.slice(from - 1, to).map((bar, index) => (index === 0 ? { ...bar, repeats: false } : bar));
  const overrides = chart.overrides.filter(({ bar }) => bar >= from && bar <= to).map((one) => ({ ...one, bar: one.bar - from + 1 }));
  return certain(readChart(writeChart({ ...chart, key, pickup: 0, bars, overrides, meter: bars[0]?.meter ?? chart.meter })));
}

/** The bars of every section, in order of the form: what a player may want to go round in. Bars from 1, both included. */
export function sectionsOf({ bars }: Chart): { readonly name: string; readonly bars: readonly [number, number] }[] {
  const found: { name: string; bars: [number, number] }[] = [];
  bars.forEach(({ section }, index) => {
    const last = found[found.length - 1];
    if (index > 0 && section === bars[index - 1]!.section) { if (last && section !== null) last.bars[1] = index + 1; }
    else if (section !== null) found.push({ name: section, bars: [index + 1, index + 1] });
  });
  return found;
}
