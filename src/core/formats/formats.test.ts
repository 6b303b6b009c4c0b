import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { writeMidi } from 'midi-file';
import { unwrap } from '../shared';
import { readChart } from '../chart';
import { analyse } from '../analyse';
import { readMidi, readNotes, readReport, readWav, toBeats, toMono, writeWav } from './index';

const code = (bytes: Uint8Array): string => {
  const read = readWav(bytes);
  return read.ok ? 'read' : read.problems[0].code;
};

/** A WAV by the RIFF text, written plainly here so that the reader is not tested against its own writer. */
function wav({
  tag = 1,
  bits = 16,
  channels = 1,
  rate = 44_100,
  data = new Uint8Array(8) as Uint8Array,
  extensible = false,
  odd = false,
}): Uint8Array {
  const fmt = extensible ? 40 : 16;
  const extra = odd ? 12 : 0; // a chunk of odd length with its padding byte
  const bytes = new Uint8Array(12 + 8 + fmt + extra + 8 + data.length);
  const view = new DataView(bytes.buffer);
  const word = (at: number, text: string) =>
    [...text].forEach((letter, index) => (bytes[at + index] = letter.charCodeAt(0)));
  word(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  word(8, 'WAVEfmt ');
  view.setUint32(16, fmt, true);
  view.setUint16(20, extensible ? 0xfffe : tag, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, (rate * channels * bits) / 8, true);
  view.setUint16(32, (channels * bits) / 8, true);
  view.setUint16(34, bits, true);
  if (extensible) {
    view.setUint16(36, 22, true);
    view.setUint16(44, tag, true);
  }
  let at = 20 + fmt;
  if (odd) {
    word(at, 'LIST');
    view.setUint32(at + 4, 3, true);
    at += 12;
  }
  word(at, 'data');
  view.setUint32(at + 4, data.length, true);
  bytes.set(data, at + 8);
  return bytes;
}

const packed = (write: (view: DataView) => void, length: number): Uint8Array => {
  const bytes = new Uint8Array(length);
  write(new DataView(bytes.buffer));
  return bytes;
};

test.each([
  ['8 bit', { bits: 8, data: new Uint8Array([128, 255, 0]) }, [0, 0.992, -1]],
  [
    '16 bit',
    {
      bits: 16,
      data: packed((view) => {
        view.setInt16(0, 16_384, true);
        view.setInt16(2, -32_768, true);
      }, 4),
    },
    [0.5, -1],
  ],
  ['24 bit', { bits: 24, data: new Uint8Array([0, 0, 0x40, 0, 0, 0x80]) }, [0.5, -1]],
  ['32 bit', { bits: 32, data: packed((view) => view.setInt32(0, 2 ** 30, true), 4) }, [0.5]],
  [
    '32-bit float',
    {
      tag: 3,
      bits: 32,
      data: packed((view) => {
        view.setFloat32(0, 0.25, true);
        view.setFloat32(4, NaN, true);
      }, 8),
    },
    [0.25, 0],
  ],
  ['64-bit float', { tag: 3, bits: 64, data: packed((view) => view.setFloat64(0, -0.75, true), 8) }, [-0.75]],
  ['extensible', { extensible: true, data: packed((view) => view.setInt16(0, 16_384, true), 2) }, [0.5]],
  ['after an odd chunk', { odd: true, data: packed((view) => view.setInt16(0, 16_384, true), 2) }, [0.5]],
  ['at 96 kHz', { rate: 96_000, data: packed((view) => view.setInt16(0, 16_384, true), 2) }, [0.5]],
])('WAV %s', (_, options, expected) => {
  const audio = unwrap(readWav(wav(options)));
  Array.from(audio.channels[0]!).forEach((value, index) => expect(value).toBeCloseTo(expected[index]!, 2));
  expect(audio.channels[0]).toHaveLength(expected.length);
});

test('stereo is two channels and their mean', () => {
  const audio = unwrap(
    readWav(writeWav([new Float32Array([0.5, 0.25]), new Float32Array([-0.5, 0.75])], 48_000)),
  );
  expect(audio.rate).toBe(48_000);
  expect(Array.from(toMono(audio)).map((value) => Math.round(value * 100) / 100)).toEqual([0, 0.5]);
});

test.each([
  ['nothing', new Uint8Array(0), 'wav.empty'],
  ['no sound in it', wav({ data: new Uint8Array(0) }), 'wav.empty'],
  ['cut off', wav({}).subarray(0, 48), 'wav.truncated'],
  ['cut in its header', wav({}).subarray(0, 30), 'wav.format'],
  ['64 channels', wav({ channels: 64 }), 'wav.channels'],
  ['no channels', wav({ channels: 0 }), 'wav.channels'],
  ['an odd coding', wav({ tag: 85 }), 'wav.encoding'],
  ['12 bit', wav({ bits: 12 }), 'wav.encoding'],
  ['a rate of 1 Hz', wav({ rate: 1 }), 'wav.rate'],
  ['an MP3 with a tag', new TextEncoder().encode('ID3\x03 and so on'), 'wav.mp3'],
  ['a bare MP3', new Uint8Array([0xff, 0xfb, 0x90, 0]), 'wav.mp3'],
  ['a FLAC', new TextEncoder().encode('fLaC....'), 'wav.other'],
  ['text', new TextEncoder().encode('hello, this is no sound'), 'wav.unknown'],
])('a WAV that is %s is refused', (_, bytes, expected) => expect(code(bytes)).toBe(expected));

test('a WAV that claims 4 GB is refused by what it holds, at once', () => {
  const bytes = wav({ data: new Uint8Array(1000) });
  new DataView(bytes.buffer).setUint32(40, 0xffff_ffff, true);
  const read = readWav(bytes);
  expect(read.ok ? '' : read.problems[0].message).toMatch(
    /says it holds 48695\.8 s of sound but ends after 0\.0 s/,
  );
});

test('whatever bytes come, the reader answers', () => {
  // a single byte that an MP3 may begin with
  expect(readWav(Uint8Array.of(255)).ok).toBe(false);
  fc.assert(fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => void readWav(bytes)));
  const good = writeWav([Float32Array.from({ length: 50 }, (_, n) => Math.sin(n))], 44_100);
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(good.length - 1), fc.nat(255)), { maxLength: 8 }),
      fc.nat(good.length),
      (changes, length) => {
        const bytes = good.slice();
        for (const [at, value] of changes) bytes[at] = value;
        void readWav(bytes.subarray(0, length));
      },
    ),
    { numRuns: 400 },
  );
});

test('16-bit samples survive writing and reading within one step', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 1, maxLength: 50 }),
      (values) => {
        const back = unwrap(readWav(writeWav([Float32Array.from(values)], 44_100))).channels[0]!;
        values.forEach((value, index) => expect(Math.abs(back[index]! - value)).toBeLessThan(1.6 / 32_768));
      },
    ),
  );
});

test('notes in seconds become beats from where bar 1 lies', () => {
  const file = unwrap(
    readNotes(
      '{"notes":[{"onsetSec":1.5,"offsetSec":2,"midi":60,"cents":-12},{"onsetBeat":3,"durationBeats":1,"midi":62}]}',
    ),
  );
  expect(toBeats(file, 120, 1)).toEqual([
    { onsetBeat: 1, durationBeats: 1, midi: 60, cents: -12 },
    { onsetBeat: 3, durationBeats: 1, midi: 62 },
  ]);
});

test.each([
  ['[]', 'notes.shape', ''],
  ['{', 'notes.json', undefined],
  ['{"notes":[{"midi":60}]}', 'notes.shape', 'notes.0.onsetSec'],
  ['{"notes":[{"onsetBeat":0,"durationBeats":0,"midi":60}]}', 'notes.shape', 'notes.0.durationBeats'],
  ['{"notes":[{"onsetBeat":0,"durationBeats":1,"midi":"C"}]}', 'notes.shape', 'notes.0.midi'],
  ['{"notes":[{"onsetSec":2,"offsetSec":1,"midi":60}]}', 'notes.shape', 'notes.0.offsetSec'],
  ['{"schema":"other","notes":[]}', 'notes.shape', 'schema'],
])('notes %s are refused at their place', (text, expected, path) => {
  const read = readNotes(text);
  expect(read.ok ? [] : [read.problems[0].code, read.problems[0].path]).toEqual([expected, path]);
});

// Standard MIDI File 1.0, written by midi-file (MIT).
test('a MIDI file gives notes in beats; drums are left out', () => {
  const bytes = Uint8Array.from(
    writeMidi({
      header: { format: 0, numTracks: 1, ticksPerBeat: 480 },
      tracks: [
        [
          { deltaTime: 480, type: 'noteOn', channel: 0, noteNumber: 60, velocity: 90 },
          { deltaTime: 0, type: 'noteOn', channel: 9, noteNumber: 36, velocity: 90 },
          { deltaTime: 240, type: 'noteOff', channel: 0, noteNumber: 60, velocity: 0 },
          { deltaTime: 0, type: 'noteOn', channel: 0, noteNumber: 64, velocity: 90 },
          { deltaTime: 480, type: 'noteOn', channel: 0, noteNumber: 64, velocity: 0 },
          { deltaTime: 0, type: 'endOfTrack', meta: true },
        ],
      ],
    }),
  );
  expect(unwrap(readMidi(bytes))).toEqual([
    { onsetBeat: 1, durationBeats: 0.5, midi: 60 },
    { onsetBeat: 1.5, durationBeats: 1, midi: 64 },
  ]);
  expect(readMidi(new Uint8Array([1, 2, 3])).ok).toBe(false);
  fc.assert(
    fc.property(
      fc.uint8Array({ maxLength: 60 }),
      (tail) => void readMidi(Uint8Array.from([...bytes.subarray(0, 20), ...tail])),
    ),
  );
});

test('every report the analysis writes is one its schema reads, and a broken one is refused at its place', () => {
  const chart = unwrap(readChart('key: C\n| Dm7 | G7 | N.C. | Cmaj7 |'));
  const note = fc.record({
    midi: fc.integer({ min: 45, max: 85 }),
    onsetBeat: fc.integer({ min: -4, max: 60 }).map((n) => n / 2),
    durationBeats: fc.integer({ min: 1, max: 8 }).map((n) => n / 3),
  });
  fc.assert(
    fc.property(fc.array(note, { maxLength: 30 }), (notes) => {
      const report = JSON.parse(
        JSON.stringify(analyse({ chart, tempo: 130, notes, plan: { id: 'outline' } })),
      ) as object;
      const read = readReport(report);
      expect(read.ok ? '' : read.problems[0]).toBe('');
    }),
    { numRuns: 80 },
  );
  const report = analyse({
    chart,
    tempo: 130,
    plan: { id: 'outline' },
    notes: [{ midi: 60, onsetBeat: 0, durationBeats: 1 }],
  });
  const broken = readReport({ ...report, notes: [{ ...report.notes[0], height: 7 }] });
  expect(broken.ok ? '' : broken.problems[0].path).toBe('notes.0.height');
  expect(readReport(null).ok).toBe(false);
});
