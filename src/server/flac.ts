import { createRequire } from 'node:module';
import type { Flac } from 'libflacjs';
import { present } from '@/core/shared';

/** Loaded when the first sound comes: the codec is a quarter of a megabyte of compiled C (libFLAC, BSD). */
let codec: Promise<Flac> | null = null;

function ready(): Promise<Flac> {
  return (codec ??= new Promise((done) => {
    const flac = loaded();
    if (flac.isReady()) done(flac);
    else flac.on('ready', () => done(flac));
  }));
}

/**
 * As WebAssembly, which is three times as fast as the same package's plain script. It takes any process that has
 * `fetch` for a browser and asks for its own file by the network: while it looks, there is none.
 */
function loaded(): Flac {
  const { fetch } = globalThis;
  try {
    Reflect.deleteProperty(globalThis, 'fetch');
    return createRequire(import.meta.url)('libflacjs/dist/libflac.wasm.js') as Flac;
  } finally {
    globalThis.fetch = fetch;
  }
}

/** Compression level 5, libFLAC's own default. */
const LEVEL = 5;

/** Little-endian integer samples as 32-bit numbers. */
function integers(pcm: Uint8Array, bits: number): Int32Array {
  const view = new DataView(pcm.buffer, pcm.byteOffset, pcm.byteLength);
  const samples = new Int32Array(pcm.length / (bits / 8));
  for (let n = 0; n < samples.length; n++)
    samples[n] =
      bits === 16
        ? view.getInt16(n * 2, true)
        : (view.getInt8(n * 3 + 2) << 16) | view.getUint16(n * 3, true);
  return samples;
}

/**
 * One chunk of mono PCM as a FLAC stream of its own (RFC 9639): without loss, and samples whose low bits
 * are empty cost nothing for them.
 * @param pcm little-endian samples of `bits` bits, 16 or 24
 */
export async function encodeFlac(pcm: Uint8Array, rate: number, bits: number): Promise<Buffer> {
  const flac = await ready();
  const samples = integers(pcm, bits);
  const encoder = flac.create_libflac_encoder(rate, 1, bits, LEVEL, samples.length, false, 0);
  if (encoder === 0) throw new Error('FLAC: no encoder');
  const pieces: Buffer[] = [];
  try {
    if (
      flac.init_encoder_stream(
        encoder,
        (data) => void pieces.push(Buffer.from(data)),
        () => undefined,
      ) !== 0
    )
      throw new Error('FLAC: the encoder did not begin');
    if (
      !flac.FLAC__stream_encoder_process_interleaved(
        encoder,
        samples as Int32Array<ArrayBuffer>,
        samples.length,
      )
    )
      throw new Error('FLAC: not encoded');
    flac.FLAC__stream_encoder_finish(encoder);
  } finally {
    flac.FLAC__stream_encoder_delete(encoder);
  }
  return Buffer.concat(pieces);
}

/** The PCM that was encoded, bit for bit. */
export async function decodeFlac(stream: Uint8Array, bits: number): Promise<Buffer> {
  const flac = await ready();
  const decoder = flac.create_libflac_decoder(false);
  if (decoder === 0) throw new Error('FLAC: no decoder');
  const pieces: Buffer[] = [];
  let place = 0;
  let trouble: string | null = null;
  try {
    const read = (most: number) => {
      const piece = stream.subarray(place, place + most);
      place += piece.length;
      return { buffer: new Uint8Array(piece), readDataLength: piece.length, error: false };
    };
    const state = flac.init_decoder_stream(
      decoder,
      read,
      ([channel]) => void pieces.push(narrowed(present(channel), bits)),
      (_, message) => void (trouble = String(message)),
      () => undefined,
    );
    if (state !== 0) throw new Error('FLAC: the decoder did not begin');
    flac.FLAC__stream_decoder_process_until_end_of_stream(decoder);
    flac.FLAC__stream_decoder_finish(decoder);
  } finally {
    flac.FLAC__stream_decoder_delete(decoder);
  }
  if (trouble !== null) throw new Error(`FLAC: ${trouble as string}`);
  return Buffer.concat(pieces);
}

/** The decoder gives 24 bits in four bytes each; 16 in two. */
function narrowed(bytes: Uint8Array, bits: number): Buffer {
  if (bits === 16) return Buffer.from(bytes);
  const out = Buffer.allocUnsafe((bytes.length / 4) * 3);
  for (let from = 0, to = 0; to < out.length; from += 4, to += 3) {
    out[to] = bytes[from] ?? 0;
    out[to + 1] = bytes[from + 1] ?? 0;
    out[to + 2] = bytes[from + 2] ?? 0;
  }
  return out;
}
