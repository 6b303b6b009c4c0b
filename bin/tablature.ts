import type { Timeline } from '@/core/chart';
import { noteName, typeset } from '@/core/music';
import { pathOf, STANDARD_INSTRUMENT, stringName, type Instrument } from '@/core/neck';
import { scoreOf, type ScoreBar, type ScoreEntry, type WrittenNote } from '@/core/notation';

const BARS_A_LINE = 4;
const NAME_WIDTH = 3;

export type TabSheet = {
  readonly timeline: Timeline;
  readonly notes: readonly WrittenNote[];
  readonly choruses: number;
  readonly instrument?: Instrument;
};

/**
 * A line as text tablature: chords above, note names, then a row for each string, the highest first.
 * @returns rows of text, four bars a line; where no fingering exists the names stand alone
 */
export function tablatureOf({
  timeline,
  notes,
  choruses,
  instrument = STANDARD_INSTRUMENT,
}: TabSheet): string[] {
  const path = pathOf(notes, { instrument });
  const touches = path.ok ? path.value.path : [];
  const bars = scoreOf({
    timeline,
    notes,
    choruses,
    swing: null,
    touchAt: (index) => touches[index] ?? null,
  });
  const names = instrument.tuning.map(stringName);
  const rows: string[] = [];
  for (let first = 0; first < bars.length; first += BARS_A_LINE) {
    const blocks = bars.slice(first, first + BARS_A_LINE).map((bar) => blockOf(bar, names.length));
    const joined = (row: number, border: string) => blocks.map((block) => block[row]).join(border);
    rows.push(`${' '.repeat(NAME_WIDTH)} ${joined(0, ' ')}`.trimEnd());
    rows.push(`${' '.repeat(NAME_WIDTH)} ${joined(1, ' ')}`.trimEnd());
    names.forEach((name, row) => rows.push(`${name.padEnd(NAME_WIDTH)}|${joined(row + 2, '|')}|`));
    rows.push('');
  }
  return rows;
}

/** The rows of one bar, all of one width: chords, names, one for each string. */
function blockOf(bar: ScoreBar, strings: number): string[] {
  const rows = Array.from({ length: strings + 2 }, () => '');
  const pad = () => {
    const width = Math.max(...rows.map((row) => row.length));
    rows.forEach((row, index) => (rows[index] = row.padEnd(width, index < 2 ? ' ' : '-')));
  };
  for (const at of momentsOf(bar)) {
    pad();
    const chord = bar.chords.find((one) => one.at === at);
    if (chord) rows[0] += `${chord.chord ? typeset(chord.chord.symbol) : 'N.C.'} `;
    const entry = bar.entries.find((one) => one.at === at);
    if (entry) addEntry(rows, entry);
  }
  pad();
  return rows;
}

/** Where something begins in a bar, in its own divisions. */
const momentsOf = (bar: ScoreBar): number[] =>
  [...new Set([...bar.chords, ...bar.entries].map(({ at }) => at))].sort((a, b) => a - b);

/** A struck note gets its name and its fret; a rest and what is held over leave room. */
function addEntry(rows: string[], { pitches }: ScoreEntry): void {
  const struck = pitches.filter(({ tie }) => !tie.from);
  rows[1] += `${struck.map((pitch) => typeset(noteName(pitch))).join('')} `;
  for (let string = 1; string <= rows.length - 2; string++) {
    const touch = struck.find((pitch) => pitch.touch?.string === string)?.touch;
    rows[string + 1] += touch ? `-${touch.fret}-` : '---';
  }
}
