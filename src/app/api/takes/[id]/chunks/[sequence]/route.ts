import { LIMITS } from '@/core/contracts';
import { storeChunk } from '@/server/audio';
import { readBytes } from '@/server/body';
import { Failure } from '@/server/failure';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ id: string; sequence: string }> };

/** One chunk of 16-bit PCM; `x-checksum` is the SHA-256 of the body in hexadecimal. Answers once it is safe. */
export const PUT = (request: Request, context: Context): Promise<Response> =>
  respond(async () => {
    const { id, sequence } = await context.params;
    if (!/^\d{1,6}$/.test(sequence))
      throw new Failure(400, { code: 'chunk.sequence', message: 'A chunk has a whole number from 0.' });
    const checksum = request.headers.get('x-checksum') ?? '';
    if (!/^[0-9a-f]{64}$/.test(checksum))
      throw new Failure(400, {
        code: 'chunk.checksum',
        message: 'A chunk comes with its SHA-256 in x-checksum.',
      });
    return storeChunk(
      knownId(id, 'take'),
      Number(sequence),
      await readBytes(request, LIMITS.request.chunkBytes),
      checksum,
    );
  });
