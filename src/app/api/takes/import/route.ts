import { LIMITS } from '@/core/contracts';
import { elementAt } from '@/core/shared';
import { readBytes } from '@/server/body';
import { Failure } from '@/server/failure';
import { respond, respondInSteps, wantsSteps } from '@/server/respond';
import { importQuery } from '@/server/validation';
import { importArchive, importLine, type ImportOptions, type ImportStep } from '@/server/takeImport';

/**
 * A take from a file: an archive as it is; a MIDI or MusicXML line held against `?chart=` at `?tempo=`, named
 * `?name=`. Who asks for it hears step by step what is being done.
 */
export const POST = (request: Request): Promise<Response> =>
  respond(async () => {
    const bytes = await readBytes(request, LIMITS.request.importBytes);
    return wantsSteps(request)
      ? respondInSteps<ImportStep>((onStep, signal) => imported(request, bytes, { signal, onStep }))
      : imported(request, bytes, { signal: request.signal });
  });

async function imported(request: Request, bytes: Uint8Array, options: ImportOptions): Promise<object> {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return importArchive(bytes, options);
  const { error, value } = importQuery.validate(Object.fromEntries(new URL(request.url).searchParams), {
    convert: true,
  });
  if (error)
    throw new Failure(422, {
      code: 'import.shape',
      message: `A line is held against a chart: ${elementAt(error.details, 0).message}.`,
      path: elementAt(error.details, 0).path.join('.'),
    });
  return importLine(bytes, value, options);
}
