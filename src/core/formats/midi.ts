import { parseMidi, type MidiEvent } from 'midi-file';
import { accepted, refused, type Outcome } from '../vocabulary';
import type { PlayedNote } from '../analyse';

/**
 * Reads the notes of a Standard MIDI File 1.0 in beats (quarter notes) from its start; tempo events are left aside, since beats are what is asked for.
 * @returns notes of all tracks and channels but the drum channel 10
 */
export function readMidi(bytes: Uint8Array): Outcome<PlayedNote[]> {
  try {
    const { header, tracks } = parseMidi(bytes);
    if (!header.ticksPerBeat) return refused({ code: 'midi.smpte', message: 'This MIDI file counts frames, not beats.', suggestion: 'Save it with ticks per quarter note.' });
    const notes = tracks.flatMap((track) => notesOfTrack(track, header.ticksPerBeat!));
    return accepted(notes.sort((a, b) => a.onsetBeat - b.onsetBeat || a.midi - b.midi));
  } catch (error) {
    return refused({ code: 'midi.unreadable', message: `This is not a MIDI file: ${error instanceof Error ? error.message : String(error)}.` });
  }
}

const DRUM_CHANNEL = 9;

function notesOfTrack(track: readonly MidiEvent[], ticksPerBeat: number): PlayedNote[] {
  const notes: PlayedNote[] = [];
  const sounding = new Map<number, number[]>();
  let ticks = 0;
  for (const event of track) {
    ticks += event.deltaTime;
    if ((event.type !== 'noteOn' && event.type !== 'noteOff') || event.channel === DRUM_CHANNEL) continue;
    const id = event.channel * 128 + event.noteNumber;
    if (event.type === 'noteOn' && event.velocity > 0) sounding.set(id, [...(sounding.get(id) ?? []), ticks]);
    else {
      const start = sounding.get(id)?.shift();
      if (start !== undefined && ticks > start) notes.push({ onsetBeat: start / ticksPerBeat, durationBeats: (ticks - start) / ticksPerBeat, midi: event.noteNumber });
    }
  }
  return notes;
}
