import { readJson } from '@/server/body';
import { addRun } from '@/server/drills';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';
import { runBody } from '@/server/validation';

/** Counts a take as an attempt. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () => addRun(knownId((await params).id, 'drill'), await readJson(request, runBody)));
