import { soundingAt, type Meter, type Timeline } from '../chart';
import type { Chord, Key } from '../music';
import type { Touch } from '../neck';
import { elementAt, type Beats } from '../shared';
import { headsFor, DIVISIONS, type Counting, type Head } from './heads';
import { spellPitch, type SpelledPitch } from './spelling';
import {
  barsOf,
  quartersOf,
  TICKS,
  writtenLine,
  type GridAt,
  type WrittenLine,
  type WrittenNote,
} from './written';

/** A line with all that its page needs. */
export type ScoreSheet = {
  readonly timeline: Timeline;
  readonly notes: readonly WrittenNote[];
  readonly choruses: number;
  /** Long eighth to short as the take has it; null for even. */
  readonly swing: number | null;
  /** Where the reader has chosen triplets or sixteenths. */
  readonly gridAt?: GridAt;
  /** Where a note lies on the neck; asked when its bar is looked at, for a fingering takes its time. */
  readonly touchAt?: (index: number) => Touch | null;
  /** The chord each note was played for, where that is known: a note pushed ahead belongs to the next one. */
  readonly chords?: readonly (Chord | null)[];
};

/** One pitch of an entry. */
export type ScorePitch = SpelledPitch & {
  /** Its place among the notes of the sheet. */
  readonly index: number;
  readonly note: WrittenNote;
  readonly touch: Touch | null;
  /** Held over from the entry before, or into the next. */
  readonly tie: { readonly from: boolean; readonly to: boolean };
};

/** What one head says: pitches struck together, or a rest where there are none. Places in divisions of the bar. */
export type ScoreEntry = {
  readonly at: number;
  readonly head: Head;
  readonly pitches: readonly ScorePitch[];
};

export type ScoreBar = {
  /** Chorus and bar of the form, from 0; −1 for a bar before or after it. */
  readonly chorus: number;
  readonly index: number;
  readonly start: Beats;
  readonly meter: Meter;
  /** The key it is written in; that of the first bar before and after the form. */
  readonly key: Key | null;
  readonly counting: Counting;
  readonly chords: readonly { readonly at: number; readonly chord: Chord | null }[];
  readonly entries: readonly ScoreEntry[];
};

/**
 * A line as it stands on a page: bar by bar, each note as heads that show the beats, rests between, ties over
 * borders. A pickup and what rings on have bars of their own around the form.
 */
export function scoreOf(sheet: ScoreSheet): ScoreBar[] {
  const line = writtenLine(sheet.notes, sheet.swing, sheet.gridAt);
  const places = new Map(sheet.notes.map((note, index) => [note, index]));
  let first = 0;
  return emptyBars(sheet, line).map((bar): ScoreBar => {
    const [from, until] = [bar.start * TICKS, (bar.start + bar.beats) * TICKS].map(Math.round) as [
      number,
      number,
    ];
    while (first < line.length && elementAt(line, first).until <= from) first++;
    let last = first;
    while (last < line.length && elementAt(line, last).at < until) last++;
    const { meter, key } = sheet.timeline.bars[bar.index] ?? elementAt(sheet.timeline.bars, 0);
    const scale = (DIVISIONS * quartersOf(meter)) / TICKS;
    const counting = { beat: TICKS * scale, bar: (until - from) * scale };
    return {
      ...bar,
      meter,
      key,
      counting,
      chords: chordsOf(sheet.timeline, bar, scale),
      entries: entriesOf(line.slice(first, last), { from, scale, counting, sheet, places }),
    };
  });
}

type EmptyBar = {
  readonly chorus: number;
  readonly index: number;
  readonly start: Beats;
  readonly beats: Beats;
};

/** Bars of the form chorus by chorus, with those that a pickup and a last note need. */
function emptyBars({ timeline, notes, choruses }: ScoreSheet, line: readonly WrittenLine[]): EmptyBar[] {
  const beats = elementAt(timeline.bars, 0).end;
  const outside = (start: Beats): EmptyBar => ({ chorus: -1, index: -1, start, beats });
  const earliest = notes.reduce((least, { onsetBeat }) => Math.min(least, onsetBeat), 0);
  const leadIns = earliest < -1 / TICKS ? Math.ceil(-earliest / beats) : 0;
  const bars = [
    ...Array.from({ length: leadIns }, (_, n) => outside((n - leadIns) * beats)),
    ...barsOf(timeline, choruses),
  ];
  const ends = line.reduce((most, { until }) => Math.max(most, until), 0) / TICKS;
  for (let start = choruses * timeline.formBeats; start < ends; start += beats) bars.push(outside(start));
  return bars;
}

function chordsOf(timeline: Timeline, { index }: EmptyBar, scale: number): ScoreBar['chords'] {
  if (index < 0) return [];
  const { start } = elementAt(timeline.bars, index);
  return timeline.chordSpans
    .filter((span) => span.bar === index)
    .map((span) => ({ at: Math.round((span.start - start) * TICKS * scale), chord: span.chord }));
}

type InBar = {
  /** Tick of the take at which the bar begins. */
  readonly from: number;
  /** Divisions in a tick. */
  readonly scale: number;
  readonly counting: Counting;
  readonly sheet: ScoreSheet;
  readonly places: ReadonlyMap<WrittenNote, number>;
};

function entriesOf(line: readonly WrittenLine[], bar: InBar): ScoreEntry[] {
  const { from, scale, counting } = bar;
  // an empty bar is a whole rest in any meter
  if (line.length === 0)
    return [{ at: 0, head: { size: counting.bar, type: 'whole', dots: 0, triplet: false }, pitches: [] }];
  const entries: ScoreEntry[] = [];
  let now = 0;
  const add = (
    until: number,
    pitches: (opens: boolean, closes: boolean) => readonly ScorePitch[],
    isRest: boolean,
  ) => {
    const begun = now;
    for (const head of headsFor(now, until - now, counting, isRest)) {
      entries.push({ at: now, head, pitches: pitches(now === begun, now + head.size === until) });
      now += head.size;
    }
  };
  for (const written of line) {
    const [at, until] = [(written.at - from) * scale, (written.until - from) * scale].map(Math.round) as [
      number,
      number,
    ];
    if (at > now) add(at, () => [], true);
    add(
      Math.min(until, counting.bar),
      (opens, closes) => pitchesOf(written, bar, opens && at >= 0, closes && until <= counting.bar),
      false,
    );
  }
  if (now < counting.bar) add(counting.bar, () => [], true);
  return entries;
}

function pitchesOf(
  { notes, at }: WrittenLine,
  { sheet, places }: InBar,
  opens: boolean,
  closes: boolean,
): ScorePitch[] {
  return notes.map((note) => {
    const index = places.get(note) ?? -1;
    const chord = sheet.chords?.[index];
    return {
      ...spellPitch(Math.round(note.midi), chord === undefined ? chordAt(sheet.timeline, at / TICKS) : chord),
      index,
      note,
      get touch() {
        return sheet.touchAt?.(index) ?? null;
      },
      tie: { from: !opens, to: !closes },
    };
  });
}

const chordAt = (timeline: Timeline, beat: Beats): Chord | null =>
  beat < 0 ? elementAt(timeline.chordSpans, 0).chord : soundingAt(timeline, beat + 1e-6).span.chord;
