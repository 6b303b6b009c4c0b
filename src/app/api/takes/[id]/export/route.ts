import { exportTake, isExportFormat } from '@/server/takeFiles';
import { Failure } from '@/server/failure';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';

/** A take as a file of another kind: `?format=midi|musicxml|notes-csv|changes-csv|json|wav|archive`. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () => {
    const id = knownId((await params).id, 'take');
    const format = new URL(request.url).searchParams.get('format') ?? '';
    if (!isExportFormat(format))
      throw new Failure(422, {
        code: 'export.format',
        message: `A take cannot be saved as “${format.slice(0, 20)}”.`,
        suggestion: 'midi, musicxml, notes-csv, changes-csv, json, wav or archive',
      });
    return exportTake(id, format);
  });
