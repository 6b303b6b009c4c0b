import { LIMITS } from '@/core/contracts';
import { readJson } from '@/server/body';
import { chartById, removeChart, updateChart } from '@/server/charts';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';
import { chartBody } from '@/server/validation';

type Context = { params: Promise<{ id: string }> };
const idOf = async ({ params }: Context): Promise<string> => knownId((await params).id, 'chart');

export const GET = (_: Request, context: Context): Promise<Response> =>
  respond(async () => chartById(await idOf(context)));

export const PUT = (request: Request, context: Context): Promise<Response> =>
  respond(async () =>
    updateChart(await idOf(context), (await readJson(request, chartBody, LIMITS.request.chartBytes)).text),
  );

/** Puts a chart in the trash. */
export const DELETE = (_: Request, context: Context): Promise<Response> =>
  respond(async () => {
    await removeChart(await idOf(context));
    return new Response(null, { status: 204 });
  });
