import { readJson } from '@/server/body';
import { listDrills } from '@/server/drillRows';
import { takeUpDrill } from '@/server/drills';
import { respond } from '@/server/respond';
import { newDrillBody } from '@/server/validation';

export const dynamic = 'force-dynamic';

export const GET = (): Promise<Response> => respond(async () => ({ drills: await listDrills() }));

/** Takes a drill up: from a finding, from the catalogue, or in the player's words. */
export const POST = (request: Request): Promise<Response> =>
  respond(async () => takeUpDrill(await readJson(request, newDrillBody)));
