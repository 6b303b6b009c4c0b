import { keyName } from '../music';
import type { Bar, Chart } from './chart';
import { writeOverride } from './override';
import { defined } from '../shared';

/**
 * A chart as chart text with repeats written out. Reading it back gives the same form, and writing that the
 * same text.
 */
export function writeChart(chart: Chart): string {
  const lines: string[] = [];
  if (chart.title) lines.push(`title: ${chart.title}`);
  if (chart.key) lines.push(`key: ${shortKey(keyName(chart.key))}`);
  if (chart.home) lines.push(`home: ${chart.home.name}`);
  lines.push(`meter: ${chart.meter.upper}/${chart.meter.lower}`);
  if (chart.tempo !== null) lines.push(`tempo: ${chart.tempo}`);
  if (chart.feel !== null) lines.push(`feel: ${chart.feel}`);
  if (chart.pickup > 0) lines.push(`pickup: ${chart.pickup}`);
  lines.push('', ...barLines(chart));
  if (chart.overrides.length > 0) lines.push('', ...chart.overrides.map(writeOverride));
  return lines.join('\n') + '\n';
}

const shortKey = (name: string): string => name.replace(' major', '').replace(' minor', 'm');

/** Four bars a line; a new line at each section, key or meter that begins. */
function barLines(chart: Chart): string[] {
  const lines: string[] = [];
  let row: string[] = [];
  let previous: Bar | null = null;
  let meter = `${chart.meter.upper}/${chart.meter.lower}`;
  const flush = () => {
    if (row.length > 0) lines.push(`| ${row.join(' | ')} |`);
    row = [];
  };
  for (const bar of chart.bars) {
    if (previous === null || bar.section !== previous.section) {
      flush();
      if (bar.section !== null) lines.push(`[${bar.section}]`);
      if (bar.section !== null && bar.key && bar.key !== chart.key)
        lines.push(`key: ${shortKey(keyName(bar.key))}`);
      if (bar.section !== null && bar.home && bar.home !== chart.home) lines.push(`home: ${bar.home.name}`);
    }
    const name = `${bar.meter.upper}/${bar.meter.lower}`;
    if (name !== meter) {
      flush();
      if (chart.home) lines.push(`home: ${chart.home.name}`);
      lines.push(`meter: ${name}`);
      meter = name;
    }
    row.push(barText(bar));
    if (row.length === 4) flush();
    previous = bar;
  }
  flush();
  return lines;
}

/** Bars alone, four a line, each written out: what stands below a chart's header. */
export function writeBars(bars: readonly Bar[]): string {
  const lines: string[] = [];
  for (let first = 0; first < bars.length; first += 4)
    lines.push(
      `| ${bars
        .slice(first, first + 4)
        .map((bar) => barText({ ...bar, repeats: false }))
        .join(' | ')} |`,
    );
  return lines.join('\n');
}

function barText(bar: Bar): string {
  if (bar.repeats) return '%';
  const symbol = (index: number) => bar.cells[index]?.chord?.symbol ?? 'N.C.';
  const equal = bar.cells.every((cell) => cell.beats.equals(defined(bar.cells[0]).beats));
  if (equal) return bar.cells.map((_, index) => symbol(index)).join(' ');
  return bar.cells.map((cell, index) => symbol(index) + ' .'.repeat(cell.beats.valueOf() - 1)).join(' ');
}
