import { restoreChart } from '@/server/charts';
import { knownId } from '@/server/ids';
import { respond } from '@/server/respond';

/** Brings a chart back out of the trash. */
export const POST = (_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () => restoreChart(knownId((await params).id, 'chart')));
