import { writeMidi, type MidiEvent } from 'midi-file';
import type { Chart, Timeline } from '../../chart';
import type { WrittenNote } from './written';
import { quartersOf } from './written';
import { elementAt } from '../../shared';

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
};

/**
 * A take's line as a Standard MIDI File 1.0: notes where they were played, to a 960th of a quarter note,
 * chords as markers, bends on the
 * pitch wheel, ghosts soft. What begins before bar 1 moves the whole file by as many bars as it needs.
 */
export function writeLineMidi({ chart, timeline, tempo, title, notes, choruses }: LineSheet): Uint8Array {
  const quarters = quartersOf(chart.meter);
  const barBeats = elementAt(timeline.bars, 0).end;
  const lead =
    Math.max(0, Math.ceil(-Math.min(0, ...notes.map(({ onsetBeat }) => onsetBeat)) / barBeats)) * barBeats;
  const ticks = (beat: number) => Math.max(0, Math.round((beat + lead) * quarters * TICKS));
  const events: Timed[] = [
    { at: 0, order: 0, event: meta({ type: 'trackName', text: title }) },
    {
      at: 0,
      order: 0,
      event: meta({ type: 'setTempo', microsecondsPerBeat: Math.round(60e6 / (tempo * quarters)) }),
    },
    {
      at: 0,
      order: 0,
      event: meta({
        type: 'timeSignature',
        numerator: chart.meter.upper,
        denominator: chart.meter.lower,
        metronome: 24,
        thirtyseconds: 8,
      }),
    },
    ...[
      [101, 0],
      [100, 0],
      [6, REACH],
      [38, 0],
    ].map(([controllerType, value]) => ({
      at: 0,
      order: 1,
      event: voice({ type: 'controller', controllerType, value }),
    })),
  ];
  for (let chorus = 0; chorus < choruses; chorus++)
    for (const stretch of timeline.chordSpans)
      events.push({
        at: ticks(chorus * timeline.formBeats + stretch.start),
        order: 0,
        event: meta({ type: 'marker', text: stretch.chord?.symbol ?? 'N.C.' }),
      });
  for (const note of notes) {
    const [from, to] = [
      ticks(note.onsetBeat),
      Math.max(ticks(note.onsetBeat) + 1, ticks(note.onsetBeat + note.durationBeats)),
    ];
    const noteNumber = Math.round(note.midi);
    events.push(
      {
        at: from,
        order: 3,
        event: voice({ type: 'noteOn', noteNumber, velocity: note.ghost ? 20 : velocityOf(note.level) }),
      },
      { at: to, order: 1, event: voice({ type: 'noteOff', noteNumber, velocity: 0 }) },
    );
    for (const [seconds, cents] of note.bend ?? [])
      events.push({
        at: Math.min(to - 1, ticks(note.onsetBeat + (seconds * tempo) / 60)),
        order: 2,
        event: voice({
          type: 'pitchBend',
          value: Math.max(-8192, Math.min(8191, Math.round((cents / 100 / REACH) * 8192))),
        }),
      });
    if (note.bend) events.push({ at: to, order: 2, event: voice({ type: 'pitchBend', value: 0 }) });
  }
  events.sort((a, b) => a.at - b.at || a.order - b.order);
  let last = 0;
  const track = events.map(({ at, event }) => {
    const deltaTime = at - last;
    last = at;
    return { ...event, deltaTime };
  });
  return Uint8Array.from(
    writeMidi({
      header: { format: 0, numTracks: 1, ticksPerBeat: TICKS },
      tracks: [[...track, meta({ type: 'endOfTrack' })]],
    }),
  );
}

/** Peak level to velocity: 40 dB from softest to loudest (common practice, no source). */
const velocityOf = (level: number | undefined): number =>
  level === undefined ? 80 : Math.max(30, Math.min(120, Math.round(110 + level * 2)));
