import { exportTake, isExportFormat } from '@/server/takeFiles';
import { Failure } from '@/server/failure';
import { guitarFrom } from '@/server/guitar';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';

/** A take as a file of another kind: `?format=midi|musicxml|notes-csv|changes-csv|json|wav|archive`, and the guitar its tablature is for. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () => {
    const id = knownId((await params).id, 'take');
    const query = new URL(request.url).searchParams;
    const format = query.get('format') ?? '';
    if (!isExportFormat(format))
      throw new Failure(422, {
        code: 'export.format',
        message: `A take cannot be saved as “${format.slice(0, 20)}”.`,
        suggestion: 'midi, musicxml, notes-csv, changes-csv, json, wav or archive',
      });
    return exportTake(id, format, guitarFrom(query), request.signal);
  });
