import { readJson } from '@/server/body';
import { createChart, listCharts } from '@/server/charts';
import { LIMITS } from '@/server/limits';
import { respond } from '@/server/respond';
import { chartBody } from '@/server/validation';

export const GET = (): Promise<Response> => respond(listCharts);

export const POST = (request: Request): Promise<Response> =>
  respond(async () =>
    Response.json(await createChart((await readJson(request, chartBody, LIMITS.chartBytes)).text), {
      status: 201,
    }),
  );
