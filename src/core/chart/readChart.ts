import { LIMITS } from '../contracts';
import { accepted, refused, type Outcome, type Problem, defined } from '../shared';
import type { Key, Scale } from '../music';
import { readCells, wordsOf } from './barCells';
import type { Bar, Chart, Meter, WrittenBar } from './chart';
import { isHeader, readHeader } from './header';
import type { Override } from './override';
import { unfold } from './repeats';

/**
 * Reads chart text: header lines, `[A]` sections, bars between `|`, `%`, dotted bars, `|: :|` with `1.`
 * `2.` endings.
 * @returns the form with repeats written out, or every problem with line, column, bar and, where there is
 *   one, a suggestion
 * @example
 * unwrap(readChart('key: C | Dm7 | G7 | Cmaj7 | % |'.replace(' |', '\n|'))).bars.length // 4
 * readChart('| Dm7 | H7 |').ok // false
 */
export function readChart(text: string): Outcome<Chart> {
  if (text.length > LIMITS.chart.characters) return refused(tooLong(text.length));
  const reading = new ChartReading();
  text.split(/\r\n|\r|\n/).forEach((line, index) => reading.line(line, index + 1));
  return reading.finish(text);
}

const tooLong = (length: number): Problem => ({
  code: 'chart.too-long',
  line: 1,
  column: 1,
  message: `This text is ${length.toLocaleString('en')} characters long; a chart holds at most ${LIMITS.chart.characters.toLocaleString('en')}.`,
  suggestion: 'Paste the chart alone, without the words around it.',
});

/** One pass over the lines; keeps what headers and section names have set so far. */
class ChartReading {
  private readonly problems: Problem[] = [];
  private readonly written: WrittenBar[] = [];
  private head: {
    title: string;
    key: Key | null;
    home: Scale | null;
    tempo: number | null;
    feel: string | null;
    pickup: number;
    meter: Meter;
  } = {
    title: '',
    key: null,
    home: null,
    tempo: null,
    feel: null,
    pickup: 0,
    meter: { upper: 4, lower: 4 },
  };
  private readonly overrides: (Override & { readonly line: number })[] = [];
  private meter: Meter | null = null;
  private section: string | null = null;
  private sectionKey: Key | null = null;
  private sectionHome: Scale | null = null;

  line(line: string, number: number): void {
    if (line.trim() === '') return;
    if (isHeader(line)) return this.header(line, number);
    const section = /^\s*\[([^\]|]{1,40})\]\s*/.exec(line);
    if (section) {
      this.section = (section[1] ?? '').trim();
      this.sectionKey = null;
      this.sectionHome = null;
      const rest = line.slice(section[0].length);
      if (rest.trim() === '') return;
      if (isHeader(rest)) return this.header(' '.repeat(section[0].length) + rest, number);
    }
    const from = section?.[0].length ?? 0;
    if (!line.slice(from).includes('|')) this.noBars(line, number, from);
    else this.bars(line, number, from);
  }

  finish(text: string): Outcome<Chart> {
    if (this.written.length > LIMITS.chart.bars) return refused(tooManyBars(this.written));
    const unfolded = unfold(this.written);
    this.problems.push(...unfolded.problems);
    if (this.written.length === 0 && this.problems.length === 0) this.problems.push(empty);
    this.problems.push(...misplaced(this.overrides, unfolded.bars));
    if (unfolded.bars.length > LIMITS.chart.bars)
      return refused(tooManyBars(unfolded.bars.map((bar) => ({ ...bar }))));
    const [first, ...others] = [...this.problems].sort(
      (a, b) => (a.line ?? 0) - (b.line ?? 0) || (a.column ?? 0) - (b.column ?? 0),
    );
    if (first) return refused(first, ...others);
    return accepted({
      ...this.head,
      bars: unfolded.bars,
      written: this.written,
      overrides: this.overrides.map(({ line: _line, ...override }) => override),
      text,
    });
  }

  private header(line: string, number: number): void {
    const { header, problems } = readHeader(line);
    this.problems.push(...problems.map((problem) => ({ ...problem, line: number })));
    const before = this.written.length === 0;
    if (header.title !== undefined) this.head.title = header.title;
    if (header.tempo !== undefined) this.head.tempo = header.tempo;
    if (header.feel !== undefined) this.head.feel = header.feel;
    if (header.pickup !== undefined) this.head.pickup = header.pickup;
    if (header.reading) this.overrides.push({ ...header.reading, line: number });
    if (header.meter) {
      this.meter = header.meter;
      if (before) this.head.meter = header.meter;
    }
    // below a section name a key or a home scale holds for that section; above all of them it is the chart's
    if (header.key && this.section !== null) this.sectionKey = header.key;
    else if (header.key) this.head.key = header.key;
    if (header.home && this.section !== null) this.sectionHome = header.home;
    else if (header.home) this.head.home = header.home;
  }

  private noBars(line: string, number: number, from: number): void {
    const column = from + line.slice(from).length - line.slice(from).trimStart().length + 1;
    this.problems.push({
      code: 'chart.no-bars',
      line: number,
      column,
      length: line.trim().length,
      message: 'This line has no bar lines, and is no header.',
      suggestion: `| ${line.slice(from).trim()} |`,
    });
  }

  private bars(line: string, number: number, from: number): void {
    for (const piece of splitBars(line, from)) {
      const meter = this.meter ?? this.head.meter;
      const words = wordsOf(piece.text, piece.column);
      const bar = this.written.length + 1;
      const repeats = words.length === 1 && words[0]?.text === '%';
      const read = repeats ? this.bar(bar, number, piece.column) : readCells(words, meter, number);
      this.problems.push(...read.problems.map((problem) => ({ ...problem, bar })));
      const built: Bar = {
        cells: read.cells,
        meter,
        section: this.section,
        key: this.sectionKey ?? this.head.key,
        home: this.sectionHome ?? this.head.home,
        repeats,
        line: number,
        column: words[0]?.column ?? piece.column,
      };
      this.written.push({ ...built, opens: piece.opens, closes: piece.closes, ending: piece.ending });
    }
  }

  /** `%`: the bar before, again. */
  private bar(bar: number, line: number, column: number): { cells: Bar['cells']; problems: Problem[] } {
    const before = this.written[this.written.length - 1];
    if (before) return { cells: before.cells, problems: [] };
    return {
      cells: [],
      problems: [
        {
          code: 'chart.nothing-to-repeat',
          line,
          column: column + 1,
          length: 1,
          bar,
          message: '% repeats the bar before it, and this is the first bar.',
        },
      ],
    };
  }
}

/** Readings of chords that are not there. */
const misplaced = (
  overrides: readonly (Override & { readonly line: number })[],
  bars: readonly Bar[],
): Problem[] =>
  overrides
    .filter(({ bar, nth }) => !bars[bar - 1]?.cells[nth - 1]?.chord)
    .map(({ bar, nth, line }) => ({
      code: 'chart.reading',
      line,
      column: 1,
      message: `There is no chord ${nth} in bar ${bar}: this reading stands for nothing.`,
      suggestion: 'Name a bar of the form as it is played, or delete the line.',
    }));

const empty: Problem = {
  code: 'chart.empty',
  line: 1,
  column: 1,
  message: 'There are no bars here yet.',
  suggestion: '| C7 | F7 | C7 | % |',
};

function tooManyBars(bars: readonly Bar[]): Problem {
  const past = bars[LIMITS.chart.bars];
  return {
    code: 'chart.too-many-bars',
    line: past?.line ?? 1,
    column: past?.column ?? 1,
    bar: LIMITS.chart.bars + 1,
    message: `This chart has ${bars.length.toLocaleString('en')} bars; ${LIMITS.chart.bars} are the most a form can have here.`,
    suggestion: 'Write one form: it repeats by itself for as many choruses as you play.',
  };
}

type Piece = { text: string; column: number; opens: boolean; closes: boolean; ending: number | null };

/**
 * Cuts a line at its bar lines. `|:` opens and `:|` closes a repeat; `1.` after a bar line begins an ending.
 */
function splitBars(line: string, from: number): Piece[] {
  const pieces: Piece[] = [];
  let opens = false;
  let at = from;
  for (const { sign, end } of barLinesIn(line, from)) {
    const raw = line.slice(at, end);
    const isWritten = raw.trim() !== '';
    const closes = sign.startsWith(':');
    if (isWritten) pieces.push({ ...pieceOf(raw, at), opens, closes });
    else if (closes && pieces.length > 0) defined(pieces[pieces.length - 1]).closes = true;
    if (isWritten || sign !== '') opens = sign.endsWith(':');
    at = end + sign.length;
  }
  return pieces;
}

/** Bar lines with what they are made of, and the end of the line as one without a sign. */
const barLinesIn = (line: string, from: number): { readonly sign: string; readonly end: number }[] => [
  ...[...line.matchAll(/:?\|+[:\]]?/g)]
    .filter(({ index }) => index >= from)
    .map(({ 0: sign, index: end }) => ({ sign, end })),
  { sign: '', end: line.length },
];

/** The text of a bar without the number of its ending. */
function pieceOf(raw: string, at: number): Pick<Piece, 'text' | 'column' | 'ending'> {
  const numbered = /^\s*([1-9])\.\s*(?=\S)/.exec(raw);
  const skip = numbered?.[0].length ?? 0;
  return { text: raw.slice(skip), column: at + skip + 1, ending: numbered ? Number(numbered[1]) : null };
}
