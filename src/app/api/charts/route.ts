import { LIMITS } from '@/core/contracts';
import { readJson } from '@/server/body';
import { createChart, listCharts } from '@/server/charts';
import { respond } from '@/server/respond';
import { chartBody } from '@/server/validation';

export const GET = (): Promise<Response> => respond(listCharts);

export const POST = (request: Request): Promise<Response> =>
  respond(async () =>
    Response.json(await createChart((await readJson(request, chartBody, LIMITS.request.chartBytes)).text), {
      status: 201,
    }),
  );
