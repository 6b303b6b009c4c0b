import { fifthsTags, harmonyTag, scoreText, tag, tempoTag, type Xml } from '../musicxml/write';
import { FLAT_NAMES, LETTERS, NATURAL, readNote, spellOver, type Chord } from '../../music';
import { soundingAt, type Meter, type Timeline } from '../../chart';
import { modulo, type Midi, elementAt, present } from '../../shared';
import type { LineSheet } from './midi';
import { barsOf, quartersOf, TICKS, writtenLine, type WrittenNote, type WrittenLine } from './written';

/** Divisions of a quarter note: a tick of every meter's beat is a whole number of them. */
const DIVISIONS = 4 * TICKS;

/** Durations that one head can say, in divisions: type, dots, and whether three stand for two. */
const HEADS: readonly (readonly [size: number, type: string, dots: number, triplet: boolean])[] = [
  [192, 'whole', 0, false],
  [144, 'half', 1, false],
  [96, 'half', 0, false],
  [72, 'quarter', 1, false],
  [48, 'quarter', 0, false],
  [36, 'eighth', 1, false],
  [32, 'quarter', 0, true],
  [24, 'eighth', 0, false],
  [18, '16th', 1, false],
  [16, 'eighth', 0, true],
  [12, '16th', 0, false],
  [8, '16th', 0, true],
  [6, '32nd', 0, false],
  [4, '32nd', 0, true],
  [3, '64th', 0, false],
  [2, '64th', 0, true],
  [1, '128th', 0, true],
];

/**
 * A take's line as a MusicXML score: the form written out chorus by chorus with its chords, each beat on
 * the plainest grid, slides as
 * scoops and falls into their note, bends and vibrato as such, ghosts with a cross. How each note was
 * really played stands in its
 * `attack` and `release`, so that the page can be read and the take is not lost.
 * Source: MusicXML 3.0 and later, elements `note`, `technical`, `articulations`.
 */
export function writeLineMusicXml(sheet: LineSheet): string {
  const { chart, timeline, notes, title, swing } = sheet;
  const line = writtenLine(notes, swing);
  const bars = scoreBars(sheet, line);
  const hasLeadIn = elementAt(bars, 0).start < 0;
  let at = 0;
  const measures = bars.map((bar, number) => {
    const [from, until] = [Math.round(bar.start * TICKS), Math.round((bar.start + bar.beats) * TICKS)];
    const inside: WrittenLine[] = [];
    while (at < line.length && elementAt(line, at).until <= from) at++;
    for (let index = at; index < line.length && elementAt(line, index).at < until; index++)
      inside.push(elementAt(line, index));
    const children = measureHead(sheet, bars, number);
    measureNotes(
      inside,
      from,
      until,
      quartersOf(chart.meter) * 4,
      chordsOfBar(timeline, bar),
      children,
      (beat) => (beat < 0 ? elementAt(timeline.chordSpans, 0).chord : soundingAt(timeline, beat).span.chord),
    );
    return tag('measure', children, { number: hasLeadIn ? number : number + 1 });
  });
  return scoreText(title, [tag('score-part', [tag('part-name', 'Guitar')], { id: 'P1' })], measures);
}

/** A bar of the score; one before or past the form has neither chorus nor index. */
type ScoreBar = {
  readonly chorus: number;
  readonly index: number;
  readonly start: number;
  readonly beats: number;
};

/** Bars of the form chorus by chorus; a pickup and what rings on have bars of their own around them. */
function scoreBars({ timeline, notes, choruses }: LineSheet, line: readonly WrittenLine[]): ScoreBar[] {
  const beats = elementAt(timeline.bars, 0).end;
  const outside = (start: number): ScoreBar => ({ chorus: -1, index: -1, start, beats });
  const earliest = Math.min(0, ...notes.map(({ onsetBeat }) => onsetBeat));
  const leadIns = earliest < -1 / TICKS ? Math.ceil(-earliest / beats) : 0;
  const bars = [
    ...Array.from({ length: leadIns }, (_, n) => outside((n - leadIns) * beats)),
    ...barsOf(timeline, choruses),
  ];
  const ends = Math.max(0, ...line.map(({ until }) => until)) / TICKS;
  for (let start = choruses * timeline.formBeats; start < ends; start += beats) bars.push(outside(start));
  return bars;
}

const timeTag = ({ upper, lower }: Meter): Xml => tag('time', [tag('beats', upper), tag('beat-type', lower)]);

const directionTag = (inside: Xml): Xml =>
  tag('direction', [tag('direction-type', [inside])], { placement: 'above' });

/** What stands before the notes of a measure: attributes, the chorus, tempo and swing. */
function measureHead(sheet: LineSheet, bars: readonly ScoreBar[], number: number): Xml[] {
  const { chart, tempo, swing } = sheet;
  const meterAt = ({ index }: ScoreBar): Meter => chart.bars[index]?.meter ?? chart.meter;
  const bar = elementAt(bars, number);
  const meter = meterAt(bar);
  const chorus =
    bar.chorus >= 0 && bar.index === 0 ? [directionTag(tag('rehearsal', `Chorus ${bar.chorus + 1}`))] : [];
  if (number > 0) {
    const before = meterAt(elementAt(bars, number - 1));
    const isNew = meter.upper !== before.upper || meter.lower !== before.lower;
    return [...(isNew ? [tag('attributes', [timeTag(meter)])] : []), ...chorus];
  }
  const attributes = tag('attributes', [
    tag('divisions', DIVISIONS),
    ...fifthsTags(elementAt(chart.bars, 0).key),
    timeTag(meter),
    tag('clef', [tag('sign', 'G'), tag('line', 2), tag('clef-octave-change', -1)]),
  ]);
  return [
    attributes,
    ...chorus,
    tempoTag(tempo, meter),
    ...(swing === null ? [] : [directionTag(tag('words', `Swing ${swing.toFixed(1)} : 1`))]),
  ];
}

/** Chords that are written in a bar, by the tick they begin on. */
function chordsOfBar(
  timeline: Timeline,
  { index, start }: ScoreBar,
): { tick: number; chord: Chord | null }[] {
  if (index < 0) return [];
  const inForm = elementAt(timeline.bars, index).start;
  return timeline.chordSpans
    .filter((span) => span.bar === index)
    .map((span) => ({ tick: Math.round((start + span.start - inForm) * TICKS), chord: span.chord }));
}

type Chords = readonly { readonly tick: number; readonly chord: Chord | null }[];

/**
 * A bar's notes and rests; a note that is held over a border is tied. Chords stand before what sounds at
 * their place.
 * @param scale divisions in a tick
 */
function measureNotes(
  line: readonly WrittenLine[],
  from: number,
  until: number,
  scale: number,
  chords: Chords,
  children: Xml[],
  chordAt: (beat: number) => Chord | null,
): void {
  const [first, end] = [from * scale, until * scale];
  const cuts = chords.map(({ tick, chord }) => ({ at: Math.round(tick * scale), chord }));
  let now = first;
  const say = () => {
    for (const { at, chord } of cuts) if (at === now) children.push(harmonyTag(chord));
  };
  say();
  const advance = (to: number, write: (duration: number, opens: boolean, closes: boolean) => void) => {
    const start = now;
    while (now < to) {
      const border = Math.min(to, ...cuts.map(({ at }) => at).filter((at) => at > now));
      for (const duration of headsFor(border - now)) {
        write(duration, now === start, now + duration === to);
        now += duration;
      }
      if (now < end) say();
    }
  };
  const rest = (duration: number) =>
    children.push(
      tag('note', [tag('rest', []), tag('duration', duration), tag('voice', 1), ...headTags(duration)]),
    );
  for (const written of line) {
    const [at, last] = [written.at * scale, written.until * scale];
    if (at > now) advance(Math.min(at, end), rest);
    advance(Math.min(last, end), (duration, opens, closes) =>
      written.notes.forEach((note, index) =>
        children.push(
          noteTag(
            note,
            duration,
            scale,
            index > 0,
            opens && at >= first,
            closes && last <= end,
            written,
            chordAt(note.onsetBeat + 1e-6),
          ),
        ),
      ),
    );
  }
  if (now < end) advance(end, rest);
}

/** A length as the fewest heads, longest first. */
function headsFor(duration: number): number[] {
  const heads: number[] = [];
  for (let left = duration; left > 0;) {
    const [head] = present(HEADS.find(([size]) => size <= left));
    heads.push(head);
    left -= head;
  }
  return heads;
}

function headTags(duration: number): Xml[] {
  const head = HEADS.find(([size]) => size === duration);
  if (!head) return [];
  const [, type, dots, triplet] = head;
  return [
    tag('type', type),
    ...Array.from({ length: dots }, () => tag('dot', [])),
    ...(triplet ? [tag('time-modification', [tag('actual-notes', 3), tag('normal-notes', 2)])] : []),
  ];
}

function noteTag(
  note: WrittenNote,
  duration: number,
  scale: number,
  inChord: boolean,
  starts: boolean,
  ends: boolean,
  written: { at: number; until: number },
  chord: Chord | null,
): Xml {
  const spelled = spell(Math.round(note.midi), chord);
  const played = (beat: number, tick: number) => Math.round((beat * TICKS - tick) * scale * 1000) / 1000;
  const attributes = {
    ...(starts ? { attack: played(note.onsetBeat, written.at) } : {}),
    ...(ends ? { release: played(note.onsetBeat + note.durationBeats, written.until) } : {}),
  };
  const ties = [...(starts ? [] : ['stop']), ...(ends ? [] : ['start'])];
  const head = headTags(duration);
  const shown = note.ghost ? [tag('notehead', 'x')] : [];
  return tag(
    'note',
    [
      ...(inChord ? [tag('chord', [])] : []),
      tag('pitch', [
        tag('step', spelled.step),
        ...(spelled.alter === 0 ? [] : [tag('alter', spelled.alter)]),
        tag('octave', spelled.octave),
      ]),
      tag('duration', duration),
      ...ties.map((type) => tag('tie', [], { type })),
      tag('voice', 1),
      ...head,
      ...shown,
      ...notationsOf(note, ties, starts),
    ],
    Object.keys(attributes).length ? attributes : undefined,
  );
}

function notationsOf(note: WrittenNote, ties: readonly string[], starts: boolean): Xml[] {
  const inside: Xml[] = ties.map((type) => tag('tied', [], { type }));
  if (starts && note.bend) {
    const reach = note.bend.reduce(
      (most, [, cents]) =>
        Math.abs(cents - present(present(note.bend)[0])[1]) > Math.abs(most)
          ? cents - present(present(note.bend)[0])[1]
          : most,
      0,
    );
    const alter = Math.round(reach / 50) / 2;
    if (alter !== 0) inside.push(tag('technical', [tag('bend', [tag('bend-alter', alter)])]));
  }
  if (starts && note.slide)
    inside.push(tag('articulations', [tag(note.slide.fromMidi < note.midi ? 'scoop' : 'plop', [])]));
  return inside.length > 0 ? [tag('notations', inside)] : [];
}

/** A pitch as it sounds, spelled over its chord; in flats where there is none. */
function spell(midi: Midi, chord: Chord | null): { step: string; alter: number; octave: number } {
  const pc = modulo(midi, 12);
  const { letter, alter } = chord ? spellOver(chord, pc) : present(readNote(elementAt(FLAT_NAMES, pc))).note;
  return {
    step: letter,
    alter,
    octave: (midi - alter - elementAt(NATURAL, LETTERS.indexOf(letter))) / 12 - 1,
  };
}
