import { LIMITS } from '../contracts';
import { writeMidi, type MidiData, type MidiEvent } from 'midi-file';
import { accepted, refused, type Outcome, elementAt } from '../shared';
import { isCompound, type Chart } from '../chart';
import { fifthsOf, readChord } from '../music';
import { COUNTS_FRAMES, readMidiFile } from './midiFile';
import { chartTextOf, type PlacedChord, type WrittenMeasure } from './chartText';

const TICKS = 480;

type Timed = { readonly at: number; readonly event: MidiEvent };
const meta = (event: Record<string, unknown>): MidiEvent =>
  ({ deltaTime: 0, meta: true, ...event }) as unknown as MidiEvent;

/**
 * A chart as a Standard MIDI File 1.0 of markers: a marker for every chord and, in brackets, for every
 * section; with tempo, meters and keys.
 * Repeats are written out.
 */
export function writeChartMidi(chart: Chart): Uint8Array {
  const events: Timed[] = [{ at: 0, event: meta({ type: 'trackName', text: chart.title || 'Untitled' }) }];
  if (chart.tempo !== null)
    events.push({
      at: 0,
      event: meta({
        type: 'setTempo',
        microsecondsPerBeat: Math.round(60e6 / (chart.tempo * beatQuarters(chart.meter))),
      }),
    });
  let at = 0;
  chart.bars.forEach((bar, index) => {
    const before = chart.bars[index - 1];
    if (!before || before.meter.upper !== bar.meter.upper || before.meter.lower !== bar.meter.lower)
      events.push({
        at,
        event: meta({
          type: 'timeSignature',
          numerator: bar.meter.upper,
          denominator: bar.meter.lower,
          metronome: 24,
          thirtyseconds: 8,
        }),
      });
    if (bar.key && bar.key !== before?.key && Math.abs(fifthsOf(bar.key)) <= 7)
      events.push({
        at,
        event: meta({ type: 'keySignature', key: fifthsOf(bar.key), scale: bar.key.minor ? 1 : 0 }),
      });
    if (bar.section !== null && bar.section !== before?.section)
      events.push({ at, event: meta({ type: 'marker', text: `[${bar.section}]` }) });
    for (const cell of bar.cells) {
      events.push({ at, event: meta({ type: 'marker', text: cell.chord?.symbol ?? 'N.C.' }) });
      at += cell.beats.valueOf() * beatQuarters(bar.meter) * TICKS;
    }
  });
  events.push({ at, event: meta({ type: 'endOfTrack' }) });
  let last = 0;
  const track = events.map(({ at: when, event }) => {
    const tick = Math.round(when);
    const delta = tick - last;
    last = tick;
    return { ...event, deltaTime: delta };
  });
  const data: MidiData = { header: { format: 0, numTracks: 1, ticksPerBeat: TICKS }, tracks: [track] };
  return Uint8Array.from(writeMidi(data));
}

/** Quarter notes in a beat: the denominator's unit, dotted in compound meters. */
const beatQuarters = (meter: { upper: number; lower: number }): number =>
  (4 / meter.lower) * (isCompound(meter) ? 3 : 1);

const MAJOR = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#'];
const MINOR = [
  'Abm',
  'Ebm',
  'Bbm',
  'Fm',
  'Cm',
  'Gm',
  'Dm',
  'Am',
  'Em',
  'Bm',
  'F#m',
  'C#m',
  'G#m',
  'D#m',
  'A#m',
];

/**
 * Chart text from the markers of a MIDI file: those that read as chords, by meter; a marker in brackets names
 * a section.
 */
export function readChartMidi(bytes: Uint8Array): Outcome<string> {
  const file = readMidiFile(bytes);
  if (!file.ok) return file;
  const ticks = file.value.header.ticksPerBeat;
  if (!ticks) return refused(COUNTS_FRAMES);
  const events = file.value.tracks
    .flatMap((track) => {
      let at = 0;
      return track.map((event) => ({ at: (at += event.deltaTime) / ticks, event }));
    })
    .sort((a, b) => a.at - b.at);
  const marks = events.flatMap(({ at, event }) =>
    event.type === 'marker' || event.type === 'text' ? [{ at, text: event.text.trim() }] : [],
  );
  const chords = marks
    .filter(({ text }) => text === 'N.C.' || readChord(text).ok)
    .map(({ at, text }) => ({ at, symbol: text }));
  if (chords.length === 0)
    return refused({
      code: 'midi.no-markers',
      message: 'No marker of this file reads as a chord.',
      suggestion: 'Name the chords as markers, one at each change.',
    });
  return accepted(
    chartTextOf({
      title: titleOf(events),
      tempo: tempoOf(events),
      feel: null,
      pickup: 0,
      readings: [],
      measures: measuresOf(events, chords, marks),
    }),
  );
}

type Laid = readonly { readonly at: number; readonly event: MidiEvent }[];
const titleOf = (events: Laid): string =>
  events.flatMap(({ event }) => (event.type === 'trackName' ? [event.text] : []))[0] ?? '';

function tempoOf(events: Laid): number | null {
  const tempo = events.flatMap(({ event }) =>
    event.type === 'setTempo' ? [event.microsecondsPerBeat] : [],
  )[0];
  const meter = events.flatMap(({ event }) =>
    event.type === 'timeSignature' ? [{ upper: event.numerator, lower: event.denominator }] : [],
  )[0] ?? { upper: 4, lower: 4 };
  const beats = tempo ? Math.round(60e6 / tempo / beatQuarters(meter)) : 0;
  return beats >= 20 && beats <= 400 ? beats : null;
}

function measuresOf(
  events: Laid,
  chords: readonly PlacedChord[],
  marks: readonly { at: number; text: string }[],
): WrittenMeasure[] {
  const end = Math.max(
    elementAt(events, events.length - 1).at,
    elementAt(chords, chords.length - 1).at + 1e-3,
  );
  const latest = <T>(at: number, read: (event: MidiEvent) => T | null): T | null =>
    events.reduce<T | null>((found, one) => (one.at <= at + 1e-6 ? (read(one.event) ?? found) : found), null);
  const measures: WrittenMeasure[] = [];
  let sounding = 'N.C.';
  for (let at = 0; at < end - 1e-6 && measures.length < LIMITS.midi.bars;) {
    const meter = latest(at, (event) =>
      event.type === 'timeSignature' ? { upper: event.numerator, lower: event.denominator } : null,
    ) ?? { upper: 4, lower: 4 };
    const length = (meter.upper * 4) / meter.lower;
    const inside = chords
      .filter((chord) => chord.at >= at - 1e-6 && chord.at < at + length - 1e-6)
      .map((chord) => ({ ...chord, at: chord.at - at }));
    const laid = (inside[0]?.at ?? 1) > 1e-6 ? [{ at: 0, symbol: sounding }, ...inside] : inside;
    sounding = elementAt(laid, laid.length - 1).symbol;
    const key = latest(at, (event) =>
      event.type === 'keySignature' ? ((event.scale === 1 ? MINOR : MAJOR)[event.key + 7] ?? null) : null,
    );
    const section =
      marks.find((mark) => Math.abs(mark.at - at) < 1e-6 && /^\[.+\]$/.test(mark.text))?.text.slice(1, -1) ??
      null;
    measures.push({
      chords: laid,
      meter,
      key,
      section,
      opens: false,
      closes: false,
      ending: null,
      repeats: false,
    });
    at += length;
  }
  return measures;
}
