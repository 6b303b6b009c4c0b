import { knownId } from '@/server/ids';
import { foundAgain } from '@/server/phrases';
import { respond } from '@/server/respond';

/** Where a phrase was played again, take by take, newest first. */
export const GET = (_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  respond(async () => ({ takes: await foundAgain(knownId((await params).id, 'phrase')) }));
