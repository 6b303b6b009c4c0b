import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { writeMidi } from 'midi-file';
import { readChartMidi } from './chartMidi';
import { readMidi } from './midi';
import { readMidiFile } from './midiFile';

const hex = (text: string): Uint8Array => Uint8Array.from(Buffer.from(text.replaceAll(' ', ''), 'hex'));
const HEADER = '4D546864 00000006 0000 0001 01E0 ';
const track = (events: string): Uint8Array => {
  const bytes = hex(events);
  return hex(`${HEADER} 4D54726B ${bytes.length.toString(16).padStart(8, '0')} ${events}`);
};
const codeOf = (bytes: Uint8Array): string => {
  const read = readMidiFile(bytes);
  return read.ok ? 'read' : read.problems[0].message;
};

test('a length of five bytes is refused, through charts and lines alike', () => {
  const endless = hex(`${HEADER} 4D54726B 00000008 00 FF 01 8F FFFFFF 78`);
  for (const read of [readMidiFile(endless), readMidi(endless), readChartMidi(endless)]) {
    expect(read).toMatchObject({
      ok: false,
      problems: [{ code: 'midi.unreadable', path: expect.stringMatching(/^byte \d+$/) }],
    });
  }
});

// Standard MIDI File 1.0 (MIDI Manufacturers Association): chunk and event forms
test.each<[string, Uint8Array, string]>([
  ['a note on and off by running status', track('00 90 40 40 10 40 00 00 FF 2F 00'), 'read'],
  ['a system exclusive event', track('00 F0 03 01 02 F7 00 FF 2F 00'), 'read'],
  ['a program change has one data byte', track('00 C0 05 00 FF 2F 00'), 'read'],
  [
    'an unknown chunk is passed over',
    Uint8Array.from([...track('00 FF 2F 00'), ...hex('58585858 00000002 0102')]),
    'read',
  ],
  ['no header', hex('00 01 02 03 04 05 06 07 08 09 0A 0B 0C 0D'), 'does not begin with a MIDI header'],
  ['a chunk longer than the file', hex(`${HEADER} 4D54726B 0000FFFF 00 FF 2F 00`), 'longer than the file'],
  ['an event longer than its track', track('00 FF 01 40 41'), 'longer than its track'],
  ['data without a status', track('00 40 40'), 'no status'],
  ['a status that files do not have', track('00 F8'), 'status 248'],
])('%s', (_, bytes, expected) => {
  expect(codeOf(bytes)).toContain(expected);
});

test('any change to a file is read or refused, at once', () => {
  const whole = writeMidi({
    header: { format: 0, numTracks: 1, ticksPerBeat: 480 },
    tracks: [
      [
        { deltaTime: 0, meta: true, type: 'marker', text: 'Cm7' },
        { deltaTime: 0, type: 'noteOn', channel: 0, noteNumber: 60, velocity: 90 },
        { deltaTime: 480, type: 'noteOff', channel: 0, noteNumber: 60, velocity: 0 },
        { deltaTime: 0, meta: true, type: 'endOfTrack' },
      ],
    ],
  });
  const change = fc.record({ place: fc.nat(whole.length - 1), value: fc.nat(255) });
  fc.assert(
    fc.property(fc.array(change, { minLength: 1, maxLength: 12 }), (changes) => {
      const bytes = Uint8Array.from(whole);
      for (const { place, value } of changes) bytes[place] = value;
      expect(typeof readMidi(bytes).ok).toBe('boolean');
      expect(typeof readChartMidi(bytes).ok).toBe('boolean');
    }),
    { numRuns: 2000, seed: 11 },
  );
});
