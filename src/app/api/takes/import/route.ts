import { LIMITS } from '@/core/contracts';
import { elementAt } from '@/core/shared';
import { readBytes } from '@/server/body';
import { Failure } from '@/server/failure';
import { respond } from '@/server/respond';
import { importQuery } from '@/server/validation';
import { importArchive, importLine } from '@/server/takeImport';

/**
 * A take from a file: an archive as it is; a MIDI or MusicXML line held against `?chart=` at `?tempo=`, named
 * `?name=`.
 */
export const POST = (request: Request): Promise<Response> =>
  respond(async () => {
    const bytes = await readBytes(request, LIMITS.request.importBytes);
    if (bytes[0] === 0x50 && bytes[1] === 0x4b) return importArchive(bytes, request.signal);
    const { error, value } = importQuery.validate(Object.fromEntries(new URL(request.url).searchParams), {
      convert: true,
    });
    if (error)
      throw new Failure(422, {
        code: 'import.shape',
        message: `A line is held against a chart: ${elementAt(error.details, 0).message}.`,
        path: elementAt(error.details, 0).path.join('.'),
      });
    return importLine(bytes, value, request.signal);
  });
