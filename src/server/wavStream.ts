import { ReadableStream } from 'node:stream/web';
import { writeWav } from '@/core/formats';
import { pcmRange } from './audio';

const HEADER_BYTES = 44;

/** The 44 bytes before so many frames of mono PCM: the writer's own header with bits and length filled in. */
export function wavHeader(frames: number, rate: number, bits = 16): Buffer {
  const header = Buffer.from(writeWav([new Float32Array(0)], rate));
  const width = bits / 8;
  header.writeUInt32LE(HEADER_BYTES - 8 + frames * width, 4);
  header.writeUInt32LE(rate * width, 28);
  header.writeUInt16LE(width, 32);
  header.writeUInt16LE(bits, 34);
  header.writeUInt32LE(frames * width, 40);
  return header;
}

/** One `bytes=` range, half-open; null where none is asked for; 416 is the caller's, told by `undefined`. */
export function readRange(
  header: string | null,
  size: number,
): { from: number; to: number } | null | undefined {
  const found = /^bytes=(\d*)-(\d*)$/.exec(header ?? '');
  if (!found || (found[1] === '' && found[2] === '')) return null;
  const from = found[1] === '' ? Math.max(0, size - Number(found[2])) : Number(found[1]);
  const to = found[1] === '' || found[2] === '' ? size : Math.min(size, Number(found[2]) + 1);
  return from < to ? { from, to } : undefined;
}

type StoredSound = {
  readonly id: string;
  readonly frames: number;
  readonly rate: number;
  readonly bits: number;
};

/** A take as a WAV file, whole or in the range asked for (RFC 9110, section 14). */
export function wavResponse(take: StoredSound, range: string | null): Response {
  const size = HEADER_BYTES + (take.frames * take.bits) / 8;
  const asked = readRange(range, size);
  if (asked === undefined)
    return new Response(null, { status: 416, headers: { 'content-range': `bytes */${size}` } });
  const { from, to } = asked ?? { from: 0, to: size };
  const stream = ReadableStream.from(bytesOf(take, from, to)) as unknown as BodyInit;
  const headers: Record<string, string> = {
    'content-type': 'audio/wav',
    'accept-ranges': 'bytes',
    'content-length': String(to - from),
    'cache-control': 'private, no-cache',
    'x-content-type-options': 'nosniff',
  };
  if (asked) headers['content-range'] = `bytes ${from}-${to - 1}/${size}`;
  return new Response(stream, { status: asked ? 206 : 200, headers });
}

async function* bytesOf(take: StoredSound, from: number, to: number): AsyncGenerator<Uint8Array> {
  if (from < HEADER_BYTES)
    yield new Uint8Array(
      wavHeader(take.frames, take.rate, take.bits).subarray(from, Math.min(to, HEADER_BYTES)),
    );
  if (to > HEADER_BYTES)
    for await (const piece of pcmRange(take, Math.max(0, from - HEADER_BYTES), to - HEADER_BYTES))
      yield new Uint8Array(piece);
}
