import { readJson } from '@/server/body';
import { restoreVersion, versionsOf } from '@/server/charts';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';
import { restoreBody } from '@/server/validation';

type Context = { params: Promise<{ id: string }> };
const idOf = async ({ params }: Context): Promise<string> => knownId((await params).id, 'chart');

export const GET = (_: Request, context: Context): Promise<Response> =>
  respond(async () => versionsOf(await idOf(context)));

/** Turns the chart back to one of its versions. */
export const POST = (request: Request, context: Context): Promise<Response> =>
  respond(async () =>
    restoreVersion(await idOf(context), (await readJson(request, restoreBody, 1024)).version),
  );
