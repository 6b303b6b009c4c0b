import { writeMidi, type MidiEvent } from 'midi-file';
import type { Chart, Timeline } from '../../chart';
import type { Touch } from '../../neck';
import { quartersOf, type WrittenNote } from '../../notation';
import { elementAt, present } from '../../shared';

const TICKS = 960;
/** Semitones a full pitch wheel reaches: as far as any bend, set by registered parameter 0. */
const REACH = 12;

type Timed = { readonly at: number; readonly order: number; readonly event: MidiEvent };
const meta = (event: Record<string, unknown>): MidiEvent =>
  ({ deltaTime: 0, meta: true, ...event }) as unknown as MidiEvent;
const voice = (event: Record<string, unknown>): MidiEvent =>
  ({ deltaTime: 0, channel: 0, ...event }) as unknown as MidiEvent;

export type LineSheet = {
  readonly chart: Chart;
  readonly timeline: Timeline;
  readonly tempo: number;
  readonly title: string;
  readonly notes: readonly WrittenNote[];
  readonly choruses: number;
  readonly swing: number | null;
  /** Where a note lies on the neck, where that is known. */
  readonly touchAt?: (index: number) => Touch | null;
};

/**
 * A take's line as a Standard MIDI File 1.0: notes where they were played, to a 960th of a quarter note,
 * chords as markers, bends on the
 * pitch wheel, ghosts soft. What begins before bar 1 moves the whole file by as many bars as it needs.
 */
export function writeLineMidi(sheet: LineSheet): Uint8Array {
  const { chart, timeline, notes, tempo } = sheet;
  const quarters = quartersOf(chart.meter);
  const barBeats = elementAt(timeline.bars, 0).end;
  const earliest = Math.min(0, ...notes.map(({ onsetBeat }) => onsetBeat));
  const lead = Math.max(0, Math.ceil(-earliest / barBeats)) * barBeats;
  const ticks: ToTicks = (beat) => Math.max(0, Math.round((beat + lead) * quarters * TICKS));
  const events = [
    ...headEvents(sheet, quarters),
    ...markerEvents(sheet, ticks),
    ...notes.flatMap((note) => noteEvents(note, tempo, ticks)),
  ].sort((a, b) => a.at - b.at || a.order - b.order);
  let last = 0;
  const track = events.map(({ at, event }) => {
    const deltaTime = at - last;
    last = at;
    return { ...event, deltaTime };
  });
  return fileOf([...track, meta({ type: 'endOfTrack' })]);
}

const HEADER = { format: 0, numTracks: 1, ticksPerBeat: TICKS } as const;
/** Bytes before the events of a file's only track: the header's chunk, and the name and length of the track's. */
const BEFORE_EVENTS = 14 + 8;
const AT_ONCE = 400;

/** The package that writes events takes time with the square of their number: it is given some at a time. */
function fileOf(track: readonly MidiEvent[]): Uint8Array {
  const [head, ...parts] = Array.from({ length: Math.ceil(track.length / AT_ONCE) }, (_, part) =>
    Uint8Array.from(
      writeMidi({ header: HEADER, tracks: [track.slice(part * AT_ONCE, (part + 1) * AT_ONCE)] }),
    ),
  );
  const pieces = [present(head), ...parts.map((part) => part.subarray(BEFORE_EVENTS))];
  const file = new Uint8Array(pieces.reduce((sum, { length }) => sum + length, 0));
  pieces.reduce((at, piece) => (file.set(piece, at), at + piece.length), 0);
  new DataView(file.buffer).setUint32(BEFORE_EVENTS - 4, file.length - BEFORE_EVENTS);
  return file;
}

type ToTicks = (beat: number) => number;

/** Registered parameter 0, the range of the pitch bend, as four controllers (MIDI 1.0). */
const BEND_RANGE: readonly (readonly [controller: number, value: number])[] = [
  [101, 0],
  [100, 0],
  [6, REACH],
  [38, 0],
];

function headEvents({ chart, title, tempo }: LineSheet, quarters: number): Timed[] {
  const { upper, lower } = chart.meter;
  const microsecondsPerBeat = Math.round(60e6 / (tempo * quarters));
  const atStart = (event: Timed['event']): Timed => ({ at: 0, order: 0, event });
  return [
    atStart(meta({ type: 'trackName', text: title })),
    atStart(meta({ type: 'setTempo', microsecondsPerBeat })),
    atStart(
      meta({
        type: 'timeSignature',
        numerator: upper,
        denominator: lower,
        metronome: 24,
        thirtyseconds: 8,
      }),
    ),
    ...BEND_RANGE.map(([controllerType, value]) => ({
      at: 0,
      order: 1,
      event: voice({ type: 'controller', controllerType, value }),
    })),
  ];
}

/** Chords as markers, in every chorus. */
const markerEvents = ({ timeline, choruses }: LineSheet, ticks: ToTicks): Timed[] =>
  Array.from({ length: choruses }, (_, chorus) => chorus * timeline.formBeats).flatMap((start) =>
    timeline.chordSpans.map((span) => ({
      at: ticks(start + span.start),
      order: 0,
      event: meta({ type: 'marker', text: span.chord?.symbol ?? 'N.C.' }),
    })),
  );

const MOST_BENT = 8192;

/** A note with its bend, which is let go where it ends. */
function noteEvents(note: LineSheet['notes'][number], tempo: number, ticks: ToTicks): Timed[] {
  const at = ticks(note.onsetBeat);
  const to = Math.max(at + 1, ticks(note.onsetBeat + note.durationBeats));
  const noteNumber = Math.round(note.midi);
  const bendTo = (bendAt: number, value: number): Timed => ({
    at: bendAt,
    order: 2,
    event: voice({ type: 'pitchBend', value }),
  });
  const bend = (note.bend ?? []).map(([seconds, cents]) => {
    const value = Math.round((cents / 100 / REACH) * MOST_BENT);
    const bendAt = Math.min(to - 1, ticks(note.onsetBeat + (seconds * tempo) / 60));
    return bendTo(bendAt, Math.max(-MOST_BENT, Math.min(MOST_BENT - 1, value)));
  });
  const velocity = note.ghost ? 20 : velocityOf(note.level);
  return [
    { at, order: 3, event: voice({ type: 'noteOn', noteNumber, velocity }) },
    { at: to, order: 1, event: voice({ type: 'noteOff', noteNumber, velocity: 0 }) },
    ...bend,
    ...(note.bend ? [bendTo(to, 0)] : []),
  ];
}

/** Peak level to velocity: 40 dB from softest to loudest (common practice, no source). */
const velocityOf = (level: number | undefined): number =>
  level === undefined ? 80 : Math.max(30, Math.min(120, Math.round(110 + level * 2)));
