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
export function chartTextOf(written: WrittenChart): string {
  const { readings, measures } = written;
  const lines = [...headOf(written), '', ...rowsOf(measures)];
  if (readings.length > 0) lines.push('', ...readings.map((reading) => `reading: ${reading}`));
  return `${lines.map((line) => line.replace(/^ \|/, '|')).join('\n')}\n`;
}

function headOf({ title, tempo, feel, pickup, measures: [head] }: WrittenChart): string[] {
  return [
    `title: ${title || 'Untitled'}`,
    ...(head?.key ? [`key: ${head.key}`] : []),
    `meter: ${meterOf(head)}`,
    ...(tempo === null ? [] : [`tempo: ${tempo}`]),
    ...(feel === null ? [] : [`feel: ${feel}`]),
    ...(pickup > 0 ? [`pickup: ${pickup}`] : []),
  ];
}

const BARS_A_LINE = 4;

function rowsOf(measures: readonly WrittenMeasure[]): string[] {
  const lines: string[] = [];
  let row = '';
  let count = 0;
  const endRow = () => {
    if (row) lines.push(`${row}${row.endsWith(':|') ? '' : ' |'}`);
    row = '';
    count = 0;
  };
  for (const [index, measure] of measures.entries()) {
    const news = newsOf(measure, index, measures);
    if (news.length > 0) endRow();
    lines.push(...news);
    row += `${row.endsWith(':|') ? '' : ' |'}${measureText(measure)}`;
    if (++count === BARS_A_LINE && measures[index + 1]?.ending == null) endRow();
  }
  endRow();
  return lines;
}

/** Lines of their own before a measure: a section, a key, a meter that begins there. */
function newsOf(measure: WrittenMeasure, index: number, measures: readonly WrittenMeasure[]): string[] {
  const before = measures[index - 1];
  const lines: string[] = [];
  // a key that changes needs a section of its own to hold in
  const moved = before !== undefined && measure.key !== before.key;
  if (measure.section !== null || moved) {
    lines.push(`[${measure.section ?? `bar ${index + 1}`}]`);
    if (measure.key !== null && measure.key !== measures[0]?.key) lines.push(`key: ${measure.key}`);
  }
  if (before && meterOf(measure) !== meterOf(before)) lines.push(`meter: ${meterOf(measure)}`);
  return lines;
}

function measureText(measure: WrittenMeasure): string {
  const { opens, closes, ending, repeats } = measure;
  const start = `${opens ? ':' : ''}${ending === null ? '' : `${ending}.`}`;
  return `${start} ${repeats ? '%' : barText(measure)}${closes ? ' :|' : ''}`;
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
