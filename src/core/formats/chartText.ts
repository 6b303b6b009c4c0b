import { isCompound, type Meter } from '../chart';

/** A chord at a place in its measure, in quarter notes. */
export type PlacedChord = { readonly at: number; readonly symbol: string };

/** A measure read from another format, with what stands around it. */
export type WrittenMeasure = {
  readonly chords: readonly PlacedChord[];
  readonly meter: Meter;
  readonly key: string | null;
  readonly section: string | null;
  readonly opens: boolean;
  readonly closes: boolean;
  readonly ending: number | null;
  readonly repeats: boolean;
};

export type WrittenChart = {
  readonly title: string;
  readonly tempo: number | null;
  readonly feel: string | null;
  readonly pickup: number;
  readonly readings: readonly string[];
  readonly measures: readonly WrittenMeasure[];
};

/** Chart text for measures of another format: four bars a line, a new line at sections, keys and meters. */
export function chartTextOf({ title, tempo, feel, pickup, readings, measures }: WrittenChart): string {
  const head = measures[0];
  const lines = [`title: ${title || 'Untitled'}`];
  if (head?.key) lines.push(`key: ${head.key}`);
  lines.push(`meter: ${meterOf(head)}`);
  if (tempo !== null) lines.push(`tempo: ${tempo}`);
  if (feel !== null) lines.push(`feel: ${feel}`);
  if (pickup > 0) lines.push(`pickup: ${pickup}`);
  lines.push('');
  let row = '';
  let count = 0;
  const flush = () => {
    if (row) lines.push(`${row}${row.endsWith(':|') ? '' : ' |'}`);
    row = '';
    count = 0;
  };
  measures.forEach((measure, index) => {
    const before = measures[index - 1];
    // a key that changes needs a section of its own to hold in
    const moved = before !== undefined && measure.key !== before.key;
    if (measure.section !== null || moved) {
      flush();
      lines.push(`[${measure.section ?? `bar ${index + 1}`}]`);
      if (measure.key !== null && measure.key !== head?.key) lines.push(`key: ${measure.key}`);
    }
    if (before && meterOf(measure) !== meterOf(before)) {
      flush();
      lines.push(`meter: ${meterOf(measure)}`);
    }
    row += `${row.endsWith(':|') ? '' : ' |'}${measure.opens ? ':' : ''}${measure.ending === null ? '' : `${measure.ending}.`} ${measure.repeats ? '%' : barText(measure)}`;
    if (measure.closes) row += ' :|';
    if (++count === 4 && measures[index + 1]?.ending == null) flush();
  });
  flush();
  if (readings.length > 0) lines.push('', ...readings.map((reading) => `reading: ${reading}`));
  return `${lines.map((line) => line.replace(/^ \|/, '|')).join('\n')}\n`;
}

const meterOf = (measure: WrittenMeasure | undefined): string =>
  measure ? `${measure.meter.upper}/${measure.meter.lower}` : '4/4';

/** Shared equally where it falls so; else dotted, each chord on the beat it is nearest to. */
function barText({ chords, meter }: WrittenMeasure): string {
  const beat = (4 / meter.lower) * (isCompound(meter) ? 3 : 1);
  const beats = isCompound(meter) ? meter.upper / 3 : meter.upper;
  const share = beats / chords.length;
  if (chords.every(({ at }, index) => Math.abs(at / beat - index * share) < 1e-3))
    return chords.map(({ symbol }) => symbol).join(' ');
  const slots: (string | null)[] = Array<string | null>(beats).fill(null);
  for (const { at, symbol } of chords)
    slots[Math.min(beats - 1, Math.max(0, Math.round(at / beat)))] = symbol;
  return slots
    .map((slot) => slot ?? '.')
    .join(' ')
    .replace(/^\./, 'N.C.');
}
