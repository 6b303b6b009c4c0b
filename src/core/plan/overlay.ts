import { accepted, refused, type Outcome, elementAt } from '../shared';
import { readChart, timelineOf, type Chart } from '../chart';

/**
 * Superimposed changes, written as chart text over the same bars as the chart they are laid on.
 * The take is judged by them as by any chart, beside the written one (T14.4).
 * @returns the overlay with the written chart's key, tempo and feel; refused where its bars do not fit
 */
export function overlayOf(written: Chart, text: string): Outcome<Chart> {
  const meter = `meter: ${written.meter.upper}/${written.meter.lower}\n`;
  const read = readChart(/^\s*meter\s*:/m.test(text) ? text : meter + text);
  if (!read.ok) return read;
  const [own, laid] = [timelineOf(written, 120).bars, timelineOf(read.value, 120).bars];
  const place = own.findIndex((bar, index) => laid[index]?.end !== bar.end);
  if (place >= 0 || own.length !== laid.length)
    return refused({
      code: 'overlay.bars',
      bar: place < 0 ? own.length + 1 : place + 1,
      message: `An overlay covers the same bars as its chart: that has ${own.length} bars, this ${laid.length}.`,
      suggestion: 'Write % where a bar keeps its chord.',
    });
  const { key, home, tempo, feel } = written;
  return accepted({
    ...read.value,
    key,
    home,
    tempo,
    feel,
    bars: read.value.bars.map((bar, index) => ({
      ...bar,
      key: elementAt(written.bars, index).key,
      home: elementAt(written.bars, index).home,
      section: elementAt(written.bars, index).section,
    })),
  });
}
