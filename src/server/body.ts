import { LIMITS } from '@/core/contracts';
import { open } from 'node:fs/promises';
import type Joi from 'joi';
import { Failure } from './failure';

/** A sender that gives nothing for so long is given up. */
export const PATIENCE_MS = 10_000;

/**
 * A body piece by piece. A longer one is refused before it is read where its length is told, and as soon as it is
 * passed where not; one that stops coming is refused after `PATIENCE_MS`.
 */
async function* piecesOf(request: Request, most: number, patienceMs: number): AsyncGenerator<Uint8Array> {
  const told = Number(request.headers.get('content-length') ?? NaN);
  if (told > most) throw tooLarge(most);
  if (!request.body) return;
  const reader = request.body.getReader();
  let length = 0;
  try {
    for (;;) {
      const { done, value } = await within(reader.read(), patienceMs);
      if (done) return;
      length += value.length;
      if (length > most) throw tooLarge(most);
      yield value;
    }
  } finally {
    // nothing waits for a sender that may never answer
    void reader.cancel().catch(() => undefined);
  }
}

async function within<T>(work: Promise<T>, ms: number): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, refuse) => {
    timer = setTimeout(() => refuse(tooSlow()), ms);
  });
  try {
    return await Promise.race([work, late]);
  } finally {
    clearTimeout(timer);
  }
}

const tooSlow = (): Failure =>
  new Failure(408, {
    code: 'body.slow',
    message: 'Nothing more of this request came for a while; nothing was changed.',
    suggestion: 'Send it again.',
  });

/** Reads at most so many bytes of a body. */
export async function readBytes(
  request: Request,
  most: number,
  patienceMs = PATIENCE_MS,
): Promise<Uint8Array<ArrayBuffer>> {
  const pieces: Uint8Array[] = [];
  for await (const piece of piecesOf(request, most, patienceMs)) pieces.push(piece);
  const bytes = new Uint8Array(pieces.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const piece of pieces) {
    bytes.set(piece, at);
    at += piece.length;
  }
  return bytes;
}

/**
 * Writes a body to a file piece by piece, never all of it in memory; refused as by `readBytes`.
 * @param file made anew; what was written of a refused body is the caller's to remove
 */
export async function writeBody(
  request: Request,
  file: string,
  most: number,
  patienceMs = PATIENCE_MS,
): Promise<void> {
  const handle = await open(file, 'w');
  try {
    for await (const piece of piecesOf(request, most, patienceMs)) await handle.write(piece);
    await handle.sync();
  } finally {
    await handle.close();
  }
}

const tooLarge = (most: number): Failure =>
  new Failure(413, {
    code: 'body.too-large',
    message: `This is larger than the ${Math.round(most / 1024)} kB that can be sent here at once.`,
    suggestion: 'Send less at once.',
  });

/** A JSON body that fits a schema; unknown fields are refused with their name. */
export async function readJson<T>(
  request: Request,
  schema: Joi.Schema<T>,
  most: number = LIMITS.request.jsonBytes,
): Promise<T> {
  const bytes = await readBytes(request, most);
  let json: unknown;
  try {
    json = JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    throw new Failure(400, { code: 'body.json', message: 'The request does not hold JSON.' });
  }
  const { error, value } = schema.validate(json, { convert: false });
  if (error) {
    const detail = error.details[0];
    throw new Failure(422, {
      code: 'body.shape',
      message: `The request is not as it should be: ${detail?.message ?? error.message}.`,
      path: detail?.path.join('.') ?? '',
    });
  }
  return value;
}
