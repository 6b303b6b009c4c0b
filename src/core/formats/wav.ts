import { LIMITS } from '../contracts';
import { accepted, refused, type Hz, type Outcome, type Problem, elementAt } from '../shared';

/** Audio as read: one Float32Array per channel, −1 to 1. */
export type WavAudio = {
  readonly rate: Hz;
  readonly channels: readonly Float32Array[];
  readonly bits: number;
  readonly float: boolean;
};

/** What a take may be: well past any solo, well below what would fill a machine's memory. */

type Format = { tag: number; channels: number; rate: Hz; frameBytes: number; bits: number };
const PCM = 1;
const IEEE_FLOAT = 3;
const EXTENSIBLE = 0xfffe;

/**
 * Reads RIFF/WAVE: 8, 16, 24 and 32 bit integers and 32 and 64 bit floats, mono or stereo, plain or
 * extensible header.
 * Source: "Multimedia Programming Interface and Data Specifications 1.0" (RIFF) and Microsoft's
 * WAVEFORMATEXTENSIBLE.
 * @returns the audio, or a problem whose `path` is the byte where it was met
 */
export function readWav(bytes: Uint8Array): Outcome<WavAudio> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const wrong = notAWav(bytes);
  if (wrong) return refused(wrong);
  let format: Format | null = null;
  for (let at = 12; at + 8 <= bytes.length;) {
    const id = ascii(bytes, at, 4);
    const size = view.getUint32(at + 4, true);
    if (id === 'fmt ') {
      const read = readFormat(view, at + 8, size);
      if ('code' in read) return refused(read);
      format = read;
    } else if (id === 'data') {
      if (!format)
        return refused(
          problem(
            'wav.order',
            at,
            'The sound comes before its format is named.',
            'Save the file again from the program that made it.',
          ),
        );
      return readData(view, at + 8, size, format);
    }
    at += 8 + size + (size % 2);
  }
  return refused(
    problem(
      'wav.truncated',
      bytes.length,
      'The file ends before any sound begins.',
      'Save or copy it again: it was cut off.',
    ),
  );
}

const problem = (code: string, byte: number, message: string, suggestion: string): Problem => ({
  code,
  path: `byte ${byte}`,
  message,
  suggestion,
});
const ascii = (bytes: Uint8Array, at: number, length: number): string =>
  String.fromCharCode(...bytes.subarray(at, at + length));

function notAWav(bytes: Uint8Array): Problem | null {
  const asWav = 'Save it as WAV and bring that.';
  if (bytes.length === 0)
    return problem('wav.empty', 0, 'The file is empty.', 'Choose the recording itself.');
  if (ascii(bytes, 0, 3) === 'ID3' || (bytes[0] === 0xff && ((bytes[1] ?? 0) & 0xe0) === 0xe0))
    return problem('wav.mp3', 0, 'This is an MP3, not a WAV file.', asWav);
  const others: Record<string, string> = { fLaC: 'a FLAC', OggS: 'an Ogg', FORM: 'an AIFF' };
  const other = others[ascii(bytes, 0, 4)];
  if (other) return problem('wav.other', 0, `This is ${other} file, not a WAV file.`, asWav);
  if (ascii(bytes, 0, 4) !== 'RIFF' || ascii(bytes, 8, 4) !== 'WAVE')
    return problem('wav.unknown', 0, 'This is not a WAV file.', asWav);
  return null;
}

function readFormat(view: DataView, at: number, size: number): Format | Problem {
  if (size < 16 || at + size > view.byteLength)
    return problem('wav.format', at, 'The description of the sound is cut off.', 'Save the file again.');
  let tag = view.getUint16(at, true);
  if (tag === EXTENSIBLE && size >= 26) tag = view.getUint16(at + 24, true);
  const format = {
    tag,
    channels: view.getUint16(at + 2, true),
    rate: view.getUint32(at + 4, true),
    frameBytes: view.getUint16(at + 12, true),
    bits: view.getUint16(at + 14, true),
  };
  const { channels, rate, frameBytes, bits } = format;
  if (channels < 1 || channels > LIMITS.wav.channels)
    return problem(
      'wav.channels',
      at + 2,
      `The file has ${channels} channels; a take has one or two.`,
      'Mix it down to mono or stereo.',
    );
  if (rate < LIMITS.wav.lowestRate || rate > LIMITS.wav.highestRate)
    return problem(
      'wav.rate',
      at + 4,
      `A sample rate of ${rate} Hz is not one that audio comes in.`,
      'Save it at 44.1 or 48 kHz.',
    );
  const known =
    (tag === PCM && [8, 16, 24, 32].includes(bits)) || (tag === IEEE_FLOAT && [32, 64].includes(bits));
  if (!known || frameBytes !== (channels * bits) / 8)
    return problem(
      'wav.encoding',
      at,
      `The sound is coded in a way this reader does not know (format ${tag}, ${bits} bit).`,
      'Save it as plain PCM, 16 or 24 bit.',
    );
  return format;
}

function readData(view: DataView, at: number, size: number, format: Format): Outcome<WavAudio> {
  const present = view.byteLength - at;
  const { rate, channels, frameBytes, bits, tag } = format;
  if (size > present) {
    const seconds = (bytes: number) => (bytes / frameBytes / rate).toFixed(1);
    return refused(
      problem(
        'wav.truncated',
        view.byteLength,
        `The file says it holds ${seconds(size)} s of sound but ends after ${seconds(present)} s.`,
        'Copy or save it again: it was cut off.',
      ),
    );
  }
  const frames = Math.floor(size / frameBytes);
  if (frames === 0)
    return refused(
      problem('wav.empty', at, 'The file holds no sound.', 'Choose a recording with something in it.'),
    );
  if (frames / rate > LIMITS.wav.seconds)
    return refused(
      problem(
        'wav.long',
        at,
        `The file lasts ${(frames / rate / 60).toFixed(0)} minutes; a take may last ${LIMITS.wav.seconds / 60}.`,
        'Cut it into takes.',
      ),
    );
  const read = sampleReader(view, tag, bits);
  const audio = Array.from({ length: channels }, (_, channel) => {
    const samples = new Float32Array(frames);
    for (let frame = 0; frame < frames; frame++)
      samples[frame] = read(at + frame * frameBytes + (channel * bits) / 8);
    return samples;
  });
  return accepted({ rate, channels: audio, bits, float: tag === IEEE_FLOAT });
}

/** Full scale is 1; a float beyond this is no sound. */
const LOUDEST = 1_000;

/**
 * Samples that are not numbers, or beyond all sense, count as silence: one bad value must not poison a take.
 */
function sampleReader(view: DataView, tag: number, bits: number): (at: number) => number {
  const finite = (value: number) => (Math.abs(value) <= LOUDEST ? value : 0);
  if (tag === IEEE_FLOAT)
    return bits === 32
      ? (at) => finite(view.getFloat32(at, true))
      : (at) => finite(view.getFloat64(at, true));
  if (bits === 8) return (at) => (view.getUint8(at) - 128) / 128;
  if (bits === 16) return (at) => view.getInt16(at, true) / 32_768;
  if (bits === 24)
    return (at) =>
      (view.getUint8(at) | (view.getUint8(at + 1) << 8) | (view.getInt8(at + 2) << 16)) / 8_388_608;
  return (at) => view.getInt32(at, true) / 2_147_483_648;
}

/** The mean of the channels. */
export function toMono({ channels }: WavAudio): Float32Array {
  const [first, second] = channels;
  if (!first) return new Float32Array(0);
  return second ? first.map((value, index) => (value + elementAt(second, index)) / 2) : first;
}

/** 16-bit PCM, mono or stereo; samples beyond full scale are clipped. */
export function writeWav(channels: readonly Float32Array[], rate: Hz): Uint8Array {
  const frames = channels[0]?.length ?? 0;
  const bytes = new Uint8Array(44 + frames * channels.length * 2);
  const view = new DataView(bytes.buffer);
  const word = (at: number, text: string) =>
    [...text].forEach((letter, index) => view.setUint8(at + index, letter.charCodeAt(0)));
  word(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  word(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, PCM, true);
  view.setUint16(22, channels.length, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * channels.length * 2, true);
  view.setUint16(32, channels.length * 2, true);
  view.setUint16(34, 16, true);
  word(36, 'data');
  view.setUint32(40, bytes.length - 44, true);
  for (let frame = 0; frame < frames; frame++)
    channels.forEach((samples, channel) => {
      const value = Math.round(Math.max(-1, Math.min(1, elementAt(samples, frame))) * 32_767);
      view.setInt16(44 + (frame * channels.length + channel) * 2, value, true);
    });
  return bytes;
}
