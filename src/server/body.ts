import { open } from 'node:fs/promises';
import type Joi from 'joi';
import { Failure } from './failure';
import { LIMITS } from './limits';

/**
 * Reads at most so many bytes; a longer body is refused before it is read where its length is told, and as
 * soon as it is passed where not.
 */
export async function readBytes(request: Request, most: number): Promise<Uint8Array<ArrayBuffer>> {
  const told = Number(request.headers.get('content-length') ?? NaN);
  if (told > most) throw tooLarge(most);
  if (!request.body) return new Uint8Array(0);
  const pieces: Uint8Array[] = [];
  let length = 0;
  const reader = request.body.getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    length += value.length;
    if (length > most) {
      await reader.cancel();
      throw tooLarge(most);
    }
    pieces.push(value);
  }
  const bytes = new Uint8Array(length);
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
export async function writeBody(request: Request, file: string, most: number): Promise<void> {
  const told = Number(request.headers.get('content-length') ?? NaN);
  if (told > most) throw tooLarge(most);
  const handle = await open(file, 'w');
  try {
    let length = 0;
    for await (const piece of request.body ?? []) {
      length += piece.length;
      if (length > most) throw tooLarge(most);
      await handle.write(piece);
    }
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
  most: number = LIMITS.jsonBytes,
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
