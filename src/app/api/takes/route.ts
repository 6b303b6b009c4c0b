import { readJson } from '@/server/body';
import { respond } from '@/server/respond';
import { beginTake, listTakes } from '@/server/takes';
import { newTakeBody } from '@/server/validation';

export const GET = (): Promise<Response> => respond(listTakes);

export const POST = (request: Request): Promise<Response> =>
  respond(async () => Response.json(await beginTake(await readJson(request, newTakeBody)), { status: 201 }));
