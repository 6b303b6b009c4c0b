import type { MidiEvent } from 'midi-file';
import { accepted, refused, type Outcome } from '../shared';
import type { PlayedNote } from '../analyse';
import { COUNTS_FRAMES, readMidiFile } from './midiFile';

/**
 * Reads the notes of a Standard MIDI File 1.0 in beats (quarter notes) from its start; tempo events are
 * left aside, since beats are what is asked for.
 * @returns notes of all tracks and channels but the drum channel 10
 */
export function readMidi(bytes: Uint8Array): Outcome<PlayedNote[]> {
  const file = readMidiFile(bytes);
  if (!file.ok) return file;
  const { header, tracks } = file.value;
  const { ticksPerBeat } = header;
  if (!ticksPerBeat) return refused(COUNTS_FRAMES);
  const notes = tracks.flatMap((track) => notesOfTrack(track, ticksPerBeat));
  return accepted(notes.sort((a, b) => a.onsetBeat - b.onsetBeat || a.midi - b.midi));
}

const DRUM_CHANNEL = 9;

function notesOfTrack(track: readonly MidiEvent[], ticksPerBeat: number): PlayedNote[] {
  const notes: PlayedNote[] = [];
  // onsets of each pitch that still sound, the first to end at `next`
  const sounding = new Map<number, { readonly onsets: number[]; next: number }>();
  let ticks = 0;
  for (const event of track) {
    ticks += event.deltaTime;
    if ((event.type !== 'noteOn' && event.type !== 'noteOff') || event.channel === DRUM_CHANNEL) continue;
    const id = event.channel * 128 + event.noteNumber;
    const same = sounding.get(id) ?? { onsets: [], next: 0 };
    sounding.set(id, same);
    if (event.type === 'noteOn' && event.velocity > 0) same.onsets.push(ticks);
    else {
      const start = same.onsets[same.next];
      if (start !== undefined) same.next++;
      if (start !== undefined && ticks > start)
        notes.push({
          onsetBeat: start / ticksPerBeat,
          durationBeats: (ticks - start) / ticksPerBeat,
          midi: event.noteNumber,
        });
    }
  }
  return notes;
}
