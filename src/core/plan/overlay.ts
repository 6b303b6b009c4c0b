import { accepted, refused, type Outcome, defined } from '../shared';
import Fraction from 'fraction.js';
import { readChart, timelineOf, writeBars, type Bar, type Cell, type Chart } from '../chart';
import { readChord } from '../music';

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
      key: defined(written.bars[index]).key,
      home: defined(written.bars[index]).home,
      section: defined(written.bars[index]).section,
    })),
  });
}

/**
 * Chords laid over one chord of the form: the overlay's text with them, the last one standing to the chord's end.
 * @param overlay the overlay so far; '' for the written chords
 * @param index which chord of the form, as its timeline counts
 * @returns refused where the chord is too short for so many
 */
export function layOver(
  written: Chart,
  overlay: string,
  index: number,
  chords: readonly string[],
): Outcome<string> {
  const laid = overlay.trim() === '' ? accepted(written) : overlayOf(written, overlay);
  if (!laid.ok) return laid;
  const span = defined(timelineOf(written, 120).chordSpans[index]);
  const bar = defined(written.bars[span.bar]);
  const nth = index - timelineOf(written, 120).chordSpans.findIndex((one) => one.bar === span.bar);
  const place = defined(bar.cells[nth]);
  const beats = Math.floor(place.beats.valueOf() / chords.length);
  if (beats < 1)
    return refused({
      code: 'overlay.short',
      bar: span.bar + 1,
      message: `${chords.length} chords do not fit into ${place.beats.valueOf()} beats.`,
    });
  const cells = chords.flatMap((symbol, number): Cell[] => {
    const chord = readChord(symbol);
    const isLast = number === chords.length - 1;
    const start = place.start.add(new Fraction(beats * number));
    const length = isLast ? place.beats.sub(new Fraction(beats * number)) : new Fraction(beats);
    return chord.ok ? [{ ...place, chord: chord.value, start, beats: length }] : [];
  });
  const inside = ({ start, beats: own }: Cell) =>
    start.compare(place.start) >= 0 && start.add(own).compare(place.start.add(place.beats)) <= 0;
  const bars = laid.value.bars.map((one, at): Bar => {
    if (at !== span.bar) return one;
    const others = one.cells.filter((cell) => !inside(cell));
    const all = [...others, ...cells].sort((a, b) => a.start.compare(b.start));
    return { ...one, cells: all, repeats: false };
  });
  return accepted(writeBars(bars));
}
