import { LIMITS } from '../contracts';
import { parseMidi, type MidiData } from 'midi-file';
import { accepted, refused, type Outcome, type Problem } from '../shared';

/** A file with SMPTE time instead of beats. */
export const COUNTS_FRAMES: Problem = {
  code: 'midi.smpte',
  message: 'This MIDI file counts frames, not beats.',
  suggestion: 'Save it with ticks per quarter note.',
};

/** What is wrong with a file, thrown while it is walked through; `at` is a byte of the file. */
class Malformed extends Error {
  constructor(
    readonly at: number,
    message: string,
  ) {
    super(message);
  }
}

/**
 * Reads a Standard MIDI File 1.0. The parser behind it trusts lengths: one of five bytes becomes negative
 * there and is read for ever.
 * So the chunks and every event of every track are walked through first.
 */
export function readMidiFile(bytes: Uint8Array): Outcome<MidiData> {
  try {
    checkChunks(bytes);
    return accepted(parseMidi(bytes));
  } catch (error) {
    return refused(unreadable(error));
  }
}

function unreadable(error: unknown): Problem {
  const where = error instanceof Malformed ? { path: `byte ${error.at}` } : {};
  return {
    code: 'midi.unreadable',
    ...where,
    message: `This is not a MIDI file: ${(error as Error).message}.`,
  };
}

function checkChunks(bytes: Uint8Array): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 14 || nameAt(bytes, 0) !== 'MThd')
    throw new Malformed(0, 'it does not begin with a MIDI header');
  let events = 0;
  for (let at = 0; at < bytes.length;) {
    if (at + 8 > bytes.length) throw new Malformed(at, 'it breaks off in a chunk header');
    const end = at + 8 + view.getUint32(at + 4);
    if (end > bytes.length) throw new Malformed(at, 'a chunk is longer than the file');
    if (nameAt(bytes, at) === 'MTrk') events += checkTrack(bytes.subarray(0, end), at + 8);
    if (events > LIMITS.midi.events) throw new Malformed(at, `it has more than ${LIMITS.midi.events} events`);
    at = end;
  }
}

const nameAt = (bytes: Uint8Array, at: number): string => String.fromCharCode(...bytes.subarray(at, at + 4));

/**
 * How many events a track has that ends where `bytes` ends. SMF 1.0, "MTrk chunks": delta time, then a MIDI,
 * system exclusive or meta event.
 */
function checkTrack(bytes: Uint8Array, from: number): number {
  let [at, running, events] = [from, 0, 0];
  while (at < bytes.length) {
    at = lengthAt(bytes, at).next;
    const status = bytes[at] ?? 0;
    if (status >= 0xf0) at = afterSystemEvent(bytes, at, status);
    else {
      if (status >= 0x80) [running, at] = [status, at + 1];
      if (running === 0) throw new Malformed(at, 'an event has no status');
      at += dataBytes(running);
    }
    if (at > bytes.length) throw new Malformed(at, 'an event is longer than its track');
    events++;
  }
  return events;
}

function afterSystemEvent(bytes: Uint8Array, at: number, status: number): number {
  if (status !== 0xff && status !== 0xf0 && status !== 0xf7)
    throw new Malformed(at, `an event has the status ${status}`);
  const { length, next } = lengthAt(bytes, status === 0xff ? at + 2 : at + 1);
  return next + length;
}

/** Program change and channel pressure have one data byte, all other channel messages two. */
const dataBytes = (status: number): number => ((status & 0xe0) === 0xc0 ? 1 : 2);

/** A variable-length quantity: seven bits a byte, four bytes at most. */
function lengthAt(bytes: Uint8Array, at: number): { length: number; next: number } {
  let length = 0;
  for (let place = at; place < at + 4; place++) {
    const byte = bytes[place];
    if (byte === undefined) throw new Malformed(place, 'it breaks off in a length');
    length = length * 128 + (byte & 0x7f);
    if (byte < 0x80) return { length, next: place + 1 };
  }
  throw new Malformed(at, 'a length has more than four bytes');
}
