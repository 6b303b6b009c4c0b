import { readJson } from '@/server/body';
import { drillById, runsOf } from '@/server/drillRows';
import { changeDrill } from '@/server/drills';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';
import { drillChangeBody } from '@/server/validation';

type RouteContext = { params: Promise<{ id: string }> };

export const GET = (_: Request, { params }: RouteContext): Promise<Response> =>
  respond(async () => {
    const id = knownId((await params).id, 'drill');
    return { drill: await drillById(id), runs: await runsOf(id) };
  });

/** Tempo steps, and whether it comes back. */
export const PATCH = (request: Request, { params }: RouteContext): Promise<Response> =>
  respond(async () =>
    changeDrill(knownId((await params).id, 'drill'), await readJson(request, drillChangeBody)),
  );
